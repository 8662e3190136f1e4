import { basisOf, dot, lengthOfVector, moved, type Point3, point3, scaled } from '../../shape/vector';

/** Surfaces that objects are made of, each as a few numbers that least squares may move. Lengths mm, angles degrees. */

export const PRIMITIVE_KINDS = ['plane', 'cylinder', 'cone', 'sphere'] as const;
export type PrimitiveKind = (typeof PRIMITIVE_KINDS)[number];

export type Primitive =
  | { kind: 'plane'; normal: Point3; at: Point3 }
  | { kind: 'sphere'; centre: Point3; radius: number }
  | { kind: 'cylinder'; axis: Point3; at: Point3; radius: number }
  /** `radius` at `at`; it grows along the axis. */
  | { kind: 'cone'; axis: Point3; at: Point3; radius: number; halfAngle: number };

/** Signed distance of a point from a surface, mm; outside of a round one is above 0. */
export function distanceTo(s: Primitive, p: Point3): number {
  if (s.kind === 'plane') return dot(moved(p, s.at, -1), s.normal);
  if (s.kind === 'sphere') return lengthOfVector(moved(p, s.centre, -1)) - s.radius;
  const off = moved(p, s.at, -1);
  const along = dot(off, s.axis);
  const out = lengthOfVector(moved(off, s.axis, -along));
  if (s.kind === 'cylinder') return out - s.radius;
  const a = (s.halfAngle * Math.PI) / 180;
  return (out - s.radius - along * Math.tan(a)) * Math.cos(a);
}

/** The way a surface looks at a point, outwards of a round one; a unit vector. */
export function normalAt(s: Primitive, p: Point3): Point3 {
  if (s.kind === 'plane') return s.normal;
  const from = s.kind === 'sphere' ? s.centre : s.at;
  const off = moved(p, from, -1);
  const out = s.kind === 'sphere' ? off : moved(off, s.axis, -dot(off, s.axis));
  const unit = scaled(out, 1 / (lengthOfVector(out) || 1));
  if (s.kind !== 'cone') return unit;
  const a = (s.halfAngle * Math.PI) / 180;
  return point3(i => Math.cos(a) * unit[i] - Math.sin(a) * s.axis[i]);
}

/** How many numbers may be moved. */
export const FREE: Readonly<Record<PrimitiveKind, number>> = { plane: 3, sphere: 4, cylinder: 5, cone: 6 };

/** A surface with its numbers moved by so much: shifts in mm, turns and angles in radians. */
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
  return { ...s, axis: turned, at, radius, halfAngle: s.halfAngle + (by[5]! * 180) / Math.PI };
}

/** The same surface, told from the middle of its points: its numbers then pull least at each other. */
export function centredOn(s: Primitive, middle: Point3): Primitive {
  if (s.kind === 'sphere') return s;
  if (s.kind === 'plane') return { ...s, at: moved(middle, s.normal, -distanceTo(s, middle)) };
  const along = dot(moved(middle, s.at, -1), s.axis);
  const at = moved(s.at, s.axis, along);
  if (s.kind === 'cylinder') return { ...s, at };
  return { ...s, at, radius: s.radius + along * Math.tan((s.halfAngle * Math.PI) / 180) };
}
