import { z } from 'zod';
import type { TriangleMesh } from '../shape/mesh/mesh';
import type { Point3 } from '../shape/vector';
import { basisOf, dot, lengthOfVector, negated, point3, scaled } from '../shape/vector';

/** How a part lies on the bed: a true rotation, which files, checks, pictures and the ledger follow. */

/** A vector whose length differs from 1 by more is a mistake. */
const UNIT = 1e-3;

/** The names of poses before they were rotations. */
const BY_NAME: Readonly<Record<string, { down: Point3; turn: number }>> = {
  'as-drawn': { down: [0, 0, -1], turn: 0 },
  'turned-over': { down: [0, 0, 1], turn: 0 },
  'on-side': { down: [0, -1, 0], turn: 0 },
};

const Part = z.number().min(-1.001).max(1.001);

export const Pose = z.preprocess(
  given => (typeof given === 'string' ? BY_NAME[given] : given),
  z.object({
    /** The direction that faces the bed, in the part's own coordinates; a unit vector. */
    down: z
      .tuple([Part, Part, Part])
      .refine(d => Math.abs(Math.hypot(...d) - 1) < UNIT, 'The way down must be as long as 1.')
      .readonly(),
    /** Then turned about the upright axis, degrees, anticlockwise from above. */
    turn: z.number().min(-360).max(360),
  }),
);
export type Pose = z.output<typeof Pose>;

export const AS_DRAWN: Pose = { down: [0, 0, -1], turn: 0 };

/** Two directions this close are one pose: the cosine of half a degree. */
const SAME = Math.cos((0.5 * Math.PI) / 180);
export const isSameDirection = (a: Point3, b: Point3): boolean => dot(a, b) > SAME;

export const isAsDrawn = ({ down, turn }: Pose): boolean =>
  turn % 360 === 0 && isSameDirection(down, AS_DRAWN.down);

/** The direction in which its layers are stacked, in the part's own coordinates. */
export const upOf = ({ down }: Pose): Point3 => negated(down);

/** A unit vector, without −0 and rounding errors. */
export function way(v: Point3): Point3 {
  const u = scaled(v, 1 / lengthOfVector(v));
  return point3(i =>
    Math.abs(u[i]) < 1e-9 ? 0 : Math.abs(Math.abs(u[i]) - 1) < 1e-9 ? Math.sign(u[i]) : u[i],
  );
}

/** The bed's x, y and up in the part's own coordinates. */
export function frameOf(pose: Pose): { x: Point3; y: Point3; up: Point3 } {
  const up = way(upOf(pose));
  const flat = basisOf(up);
  const a = (pose.turn * Math.PI) / 180;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  return {
    x: point3(i => c * flat.x[i] - s * flat.y[i]),
    y: point3(i => s * flat.x[i] + c * flat.y[i]),
    up,
  };
}

/** The lowest point of a body along an upward direction, mm. */
export function lowestOf({ positions: p }: TriangleMesh, up: Point3): number {
  let lowest = Infinity;
  for (let i = 0; i < p.length; i += 3)
    lowest = Math.min(lowest, p[i]! * up[0] + p[i + 1]! * up[1] + p[i + 2]! * up[2]);
  return lowest;
}

/** From a place on the bed to the same place in the drawing. @param mesh as drawn */
export function drawnFrom(mesh: TriangleMesh, pose: Pose): (lies: Point3) => Point3 {
  const { x, y, up } = frameOf(pose);
  const lowest = lowestOf(mesh, up);
  return lies => point3(i => lies[0] * x[i] + lies[1] * y[i] + (lies[2] + lowest) * up[i]);
}

/**
 * The triangles as they lie on the bed, with the lowest point at 0. A part that lies as drawn, at that height, is
 * returned as is.
 */
export function posed(mesh: TriangleMesh, pose: Pose): TriangleMesh {
  const { positions: p, triangles } = mesh;
  const { x, y, up } = frameOf(pose);
  const turned = new Float64Array(p.length);
  let lowest = Infinity;
  for (let i = 0; i < p.length; i += 3) {
    const [a, b, c] = [p[i]!, p[i + 1]!, p[i + 2]!];
    turned[i] = a * x[0] + b * x[1] + c * x[2];
    turned[i + 1] = a * y[0] + b * y[1] + c * y[2];
    turned[i + 2] = a * up[0] + b * up[1] + c * up[2];
    if (turned[i + 2]! < lowest) lowest = turned[i + 2]!;
  }
  if (Math.abs(lowest) < 1e-9 && isAsDrawn(pose)) return mesh;
  for (let i = 2; i < turned.length; i += 3) turned[i]! -= lowest;
  return { positions: turned, triangles };
}
