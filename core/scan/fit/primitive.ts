import { basisOf, cross, dot, lengthOfVector, moved, type Point3, point3, scaled } from '../../shape/vector';

/**
 * The surfaces that objects are made of, each as a few numbers that least squares can adjust. Lengths mm, angles
 * degrees.
 */

/** Without edges: each grows by itself; prisms come from their flats. */
export const SMOOTH_KINDS = ['plane', 'cylinder', 'cone', 'sphere'] as const;
export type SmoothKind = (typeof SMOOTH_KINDS)[number];
export const PRIMITIVE_KINDS = [...SMOOTH_KINDS, 'hexagon', 'prism'] as const;
export type PrimitiveKind = (typeof PRIMITIVE_KINDS)[number];

/** Regular prisms: the hexagon is the one that everybody names. */
export interface Prism {
  kind: 'hexagon' | 'prism';
  axis: Point3;
  at: Point3;
  /** Square to one of its flats. */
  x: Point3;
  sides: number;
  /** Half the width across its flats: from the axis to a flat. */
  radius: number;
}

export type Primitive =
  | { kind: 'plane'; normal: Point3; at: Point3 }
  | { kind: 'sphere'; centre: Point3; radius: number }
  | { kind: 'cylinder'; axis: Point3; at: Point3; radius: number }
  /** `radius` at `at`; it grows along the axis. */
  | { kind: 'cone'; axis: Point3; at: Point3; radius: number; halfAngle: number }
  | Prism;

/** Writes the signed distance of x, y, z from a surface and the surface's normal there: outwards for a round one. */
export type Measure = (x: number, y: number, z: number, out: Float64Array) => void;

/** Numbers only: a fit calls it some million times. */
export function measureOf(s: Primitive): Measure {
  if (s.kind === 'plane') {
    const [nx, ny, nz] = s.normal;
    const off = dot(s.at, s.normal);
    return (x, y, z, out) => {
      out[0] = x * nx + y * ny + z * nz - off;
      out[1] = nx;
      out[2] = ny;
      out[3] = nz;
    };
  }
  if (isPrism(s)) return measureOfPrism(s);
  const { radius } = s;
  const [cx, cy, cz] = s.kind === 'sphere' ? s.centre : s.at;
  const [ax, ay, az] = s.kind === 'sphere' ? [0, 0, 0] : s.axis;
  const lean = s.kind === 'cone' ? (s.halfAngle * Math.PI) / 180 : 0;
  const [sin, cos, tan] = [Math.sin(lean), Math.cos(lean), Math.tan(lean)];
  return (x, y, z, out) => {
    const along = (x - cx) * ax + (y - cy) * ay + (z - cz) * az;
    const [dx, dy, dz] = [x - cx - along * ax, y - cy - along * ay, z - cz - along * az];
    const far = Math.sqrt(dx * dx + dy * dy + dz * dz);
    const unit = far > 0 ? cos / far : 0;
    out[0] = (far - radius - along * tan) * cos;
    out[1] = dx * unit - sin * ax;
    out[2] = dy * unit - sin * ay;
    out[3] = dz * unit - sin * az;
  };
}

export const isPrism = (s: Primitive): s is Prism => s.kind === 'hexagon' || s.kind === 'prism';

function measureOfPrism({ axis, at, x: u, sides, radius }: Prism): Measure {
  const v = cross(axis, u);
  const step = (2 * Math.PI) / sides;
  return (x, y, z, out) => {
    const [dx, dy, dz] = [x - at[0], y - at[1], z - at[2]];
    const [a, b] = [dx * u[0] + dy * u[1] + dz * u[2], dx * v[0] + dy * v[1] + dz * v[2]];
    const turn = Math.round(Math.atan2(b, a) / step) * step;
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    out[0] = a * c + b * s - radius;
    for (let i = 0; i < 3; i++) out[i + 1] = c * u[i as 0] + s * v[i as 0];
  };
}

const OUT = new Float64Array(4);

/** Signed distance of a point from a surface, mm; outside a round one is above 0. */
export function distanceTo(s: Primitive, [x, y, z]: Point3): number {
  measureOf(s)(x, y, z, OUT);
  return OUT[0]!;
}

/** How many numbers can be adjusted. */
export const FREE: Readonly<Record<PrimitiveKind, number>> = {
  plane: 3,
  sphere: 4,
  cylinder: 5,
  cone: 6,
  hexagon: 6,
  prism: 6,
};

/** Writes how the distance of x, y, z changes with each number of `movedBy`. @param out what the measure wrote there */
export type Slopes = (x: number, y: number, z: number, out: Float64Array, slopes: Float64Array) => void;

export function slopesOf(s: Primitive): Slopes {
  if (s.kind === 'sphere')
    return (_x, _y, _z, out, slopes) => {
      for (let i = 0; i < 3; i++) slopes[i] = -out[i + 1]!;
      slopes[3] = -1;
    };
  const axis = s.kind === 'plane' ? s.normal : s.axis;
  const { x: u, y: v } = basisOf(axis);
  const lean = s.kind === 'cone' ? (s.halfAngle * Math.PI) / 180 : 0;
  const [sin, cos] = [Math.sin(lean), Math.cos(lean)];
  const [ax, ay, az] = s.at;
  return (x, y, z, out, slopes) => {
    const [n0, n1, n2] = [out[1]!, out[2]!, out[3]!];
    const [rx, ry, rz] = [x - ax, y - ay, z - az];
    // How fast it turns under the point: r × n.
    const [tx, ty, tz] = [ry * n2 - rz * n1, rz * n0 - rx * n2, rx * n1 - ry * n0];
    slopes[0] = -(tx * v[0] + ty * v[1] + tz * v[2]);
    slopes[1] = tx * u[0] + ty * u[1] + tz * u[2];
    if (s.kind === 'plane') {
      slopes[2] = -1;
      return;
    }
    slopes[2] = -(n0 * u[0] + n1 * u[1] + n2 * u[2]);
    slopes[3] = -(n0 * v[0] + n1 * v[1] + n2 * v[2]);
    slopes[4] = -cos;
    if (isPrism(s)) {
      slopes[5] = -(tx * axis[0] + ty * axis[1] + tz * axis[2]);
      return;
    }
    const along = rx * axis[0] + ry * axis[1] + rz * axis[2];
    slopes[5] = -(sin * out[0]! + along) / cos;
  };
}

/** A surface with its numbers changed: shifts in mm, turns and angles in radians. */
export function movedBy(s: Primitive, by: readonly number[]): Primitive {
  if (s.kind === 'sphere')
    return { ...s, centre: point3(i => s.centre[i] + by[i]!), radius: s.radius + by[3]! };
  const axis = s.kind === 'plane' ? s.normal : s.axis;
  const { x, y } = basisOf(axis);
  const leaning = point3(i => axis[i] + by[0]! * x[i] + by[1]! * y[i]);
  const turned = scaled(leaning, 1 / lengthOfVector(leaning));
  if (s.kind === 'plane') return { ...s, normal: turned, at: moved(s.at, axis, by[2]!) };
  const at = point3(i => s.at[i] + by[2]! * x[i] + by[3]! * y[i]);
  const radius = s.radius + by[4]!;
  if (s.kind === 'cylinder') return { ...s, axis: turned, at, radius };
  if (isPrism(s)) {
    const rolled = point3(i => s.x[i] + by[5]! * cross(s.axis, s.x)[i]);
    const level = moved(rolled, turned, -dot(rolled, turned));
    return { ...s, axis: turned, at, radius, x: scaled(level, 1 / lengthOfVector(level)) };
  }
  return { ...s, axis: turned, at, radius, halfAngle: s.halfAngle + (by[5]! * 180) / Math.PI };
}

/** The same surface, described from the centre of its points: its numbers are then least correlated. */
export function centredOn(s: Primitive, middle: Point3): Primitive {
  if (s.kind === 'sphere') return s;
  if (s.kind === 'plane') return { ...s, at: moved(middle, s.normal, -distanceTo(s, middle)) };
  const along = dot(moved(middle, s.at, -1), s.axis);
  const at = moved(s.at, s.axis, along);
  if (s.kind !== 'cone') return { ...s, at };
  return { ...s, at, radius: s.radius + along * Math.tan((s.halfAngle * Math.PI) / 180) };
}
