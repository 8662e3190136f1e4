import type { Frame, Point3 } from './kernels/kernel';
import type { TriangleMesh } from './mesh/mesh';

/** Where outlines stand in space. Lengths mm, angles degrees. */
export const alongFrame = ({ at, x, up }: Frame, [right, rise]: readonly [number, number]): Frame => ({
  at: plus(at, [right, x], [rise, up]),
  x,
  up,
});

/** Turned by `angle` about a line square to x and up, `radius` along its x: its way up leans towards x. */
export function bentFrame({ at, x, up }: Frame, radius: number, angle: number): Frame {
  const a = (angle * Math.PI) / 180;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  return {
    at: plus(at, [radius * (1 - c), x], [radius * s, up]),
    x: plus([0, 0, 0], [c, x], [-s, up]),
    up: plus([0, 0, 0], [s, x], [c, up]),
  };
}

/** Looking the other way along x, and so along the third direction. */
export const backwards = ({ at, x, up }: Frame): Frame => ({ at, x: [-x[0], -x[1], -x[2]], up });

/** Triangles drawn about z, stood in a frame. */
export function placedMesh({ positions: p, triangles }: TriangleMesh, { at, x, up }: Frame): TriangleMesh {
  const y = [up[1] * x[2] - up[2] * x[1], up[2] * x[0] - up[0] * x[2], up[0] * x[1] - up[1] * x[0]];
  const placed = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 3)
    for (let k = 0; k < 3; k++)
      placed[i + k] = at[k]! + p[i]! * x[k]! + p[i + 1]! * y[k]! + p[i + 2]! * up[k]!;
  return { positions: placed, triangles };
}

function plus(from: Point3, ...steps: (readonly [number, Point3])[]): Point3 {
  const sum: [number, number, number] = [...from];
  for (const [by, d] of steps) for (let i = 0; i < 3; i++) sum[i]! += by * d[i]!;
  return sum;
}
