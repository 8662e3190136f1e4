import type { Bounds, TriangleMesh } from './mesh/mesh';

/** The six sides of a part as it stands on the bed, and axis-aligned boxes. */
export const SIDES = ['top', 'underside', 'left', 'right', 'front', 'back'] as const;
export type Side = (typeof SIDES)[number];

/** Which of x, y and z leads to a side. */
export const AXIS_OF: Readonly<Record<Side, 0 | 1 | 2>> = {
  left: 0,
  right: 0,
  front: 1,
  back: 1,
  underside: 2,
  top: 2,
};

/** Whether a side is at the greater end of its axis. */
export const isUpper = (side: Side): boolean => side === 'right' || side === 'back' || side === 'top';

/** A box as triangles that face outwards. */
export function boxMesh({ min, max }: Bounds): TriangleMesh {
  const positions = Array.from({ length: 8 }, (_, i) => [
    i & 1 ? max[0] : min[0],
    i & 2 ? max[1] : min[1],
    i & 4 ? max[2] : min[2],
  ]).flat();
  const faces = [
    [0, 2, 3, 1],
    [4, 5, 7, 6],
    [0, 1, 5, 4],
    [2, 6, 7, 3],
    [0, 4, 6, 2],
    [1, 3, 7, 5],
  ] as const;
  return {
    positions: Float64Array.from(positions),
    triangles: Uint32Array.from(faces.flatMap(([a, b, c, d]) => [a, b, c, a, c, d])),
  };
}
