/** Points, directions and frames in the plane and in space. Lengths mm, angles degrees. */
export type Point2 = readonly [number, number];
export type Point3 = readonly [number, number, number];

/** A place on a solid’s surface. */
export interface Place {
  point: Point3;
  /** Where the surface looks. */
  normal: Point3;
}

/** Where an outline is drawn: its origin, its own x, and its up. Unit vectors at right angles. */
export interface Frame {
  at: Point3;
  x: Point3;
  up: Point3;
}

/** On the bed: x to the right, y to the back, z up. */
export const BED: Frame = { at: [0, 0, 0], x: [1, 0, 0], up: [0, 0, 1] };

/** A point from its three coordinates, one after another. */
export const point3 = (coordinate: (i: 0 | 1 | 2) => number): Point3 => [
  coordinate(0),
  coordinate(1),
  coordinate(2),
];

export const dot = (a: Point3, b: Point3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

export const cross = (a: Point3, b: Point3): [number, number, number] => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** `from`, moved `times` along `by`. */
export const moved = (from: Point3, by: Point3, times = 1): Point3 => point3(i => from[i] + times * by[i]);

/** Never −0: a face with the direction −0 would get another name. */
export const scaled = (v: Point3, by: number): Point3 => point3(i => v[i] * by || 0);

export const negated = (v: Point3): Point3 => scaled(v, -1);

export const lengthOfVector = (v: Point3): number => Math.hypot(v[0], v[1], v[2]);

/** A point of a frame's own coordinates, in space. */
export function inSpace({ at, x, up }: Frame, [a, b, c]: Point3): Point3 {
  const y = cross(up, x);
  return point3(i => at[i] + a * x[i] + b * y[i] + c * up[i]);
}

/** Two directions at right angles to an axis and to each other; for the upright axis, the bed's own. */
export function basisOf(axis: Point3): { x: Point3; y: Point3 } {
  const [a, b, c] = axis;
  if (Math.abs(c) > 0.999999) return { x: [1, 0, 0], y: [0, c > 0 ? 1 : -1, 0] };
  // Along the bed, then upwards across the axis.
  const flat = Math.hypot(a, b);
  const x: Point3 = [-b / flat, a / flat, 0];
  return { x, y: cross(axis, x) };
}

/** The same frame, its origin moved along its own x and up. */
export const alongFrame = ({ at, x, up }: Frame, [right, rise]: Point2): Frame => ({
  at: moved(moved(at, x, right), up, rise),
  x,
  up,
});

/** Turned by `angle` about a line at right angles to x and up, `radius` along its x: its up leans towards x. */
export function bentFrame({ at, x, up }: Frame, radius: number, angle: number): Frame {
  const a = (angle * Math.PI) / 180;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  return {
    at: moved(moved(at, x, radius * (1 - c)), up, radius * s),
    x: point3(i => c * x[i] - s * up[i]),
    up: point3(i => s * x[i] + c * up[i]),
  };
}

/** Facing the opposite way along x, and so along the third direction. */
export const backwards = ({ at, x, up }: Frame): Frame => ({ at, x: negated(x), up });

/** In the plane: from b to a, the turn from one direction to another, the distance, and unit length. */
export const minus2 = (a: Point2, b: Point2): Point2 => [a[0] - b[0], a[1] - b[1]];
export const cross2 = (a: Point2, b: Point2): number => a[0] * b[1] - a[1] * b[0];
export const distance2 = (a: Point2, b: Point2): number => Math.hypot(a[0] - b[0], a[1] - b[1]);
export const unit2 = ([x, y]: Point2): Point2 => {
  const long = Math.hypot(x, y) || 1;
  return [x / long, y / long];
};
