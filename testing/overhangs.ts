import { posed } from '../core/print/pose';
import type { MeshKernel } from '../core/shape/kernels/kernel';
import type { TriangleMesh } from '../core/shape/mesh/mesh';

/** Shapes whose overhangs are familiar to everybody who prints. Lengths mm. */

export type Profile = [number, number][];

/** Profiles in (x, height), extruded by `depth`; the first is the outline, the others are holes in it. */
export const standing = (
  kernel: Pick<MeshKernel, 'extrude'>,
  profiles: readonly Profile[],
  depth = 20,
): TriangleMesh => posed(kernel.extrude(profiles, depth), { down: [0, -1, 0], turn: 0 });

/** A profile in (radius, height) revolved about the upright axis, in `sides` flats. */
export function turned(profile: Profile, sides = 120): TriangleMesh {
  const at = (i: number) => (2 * Math.PI * i) / sides;
  const positions = profile.flatMap(([r, z]) =>
    Array.from({ length: sides }, (_, i) => [r * Math.cos(at(i)), r * Math.sin(at(i)), z]).flat(),
  );
  const triangles: number[] = [];
  for (let k = 0; k < profile.length; k++)
    for (let i = 0; i < sides; i++) {
      const [a, b] = [k * sides, ((k + 1) % profile.length) * sides];
      const j = (i + 1) % sides;
      triangles.push(a + i, a + j, b + j, a + i, b + j, b + i);
    }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** Two posts 8 wide and a board 4 thick over a gap. */
export const table = (gap: number): Profile => [
  [0, 0],
  [8, 0],
  [8, 12],
  [8 + gap, 12],
  [8 + gap, 0],
  [16 + gap, 0],
  [16 + gap, 16],
  [0, 16],
];

/** A post on a foot, with an arm of 12 over the foot. */
export const ARM: Profile = [
  [0, 0],
  [30, 0],
  [30, 3],
  [8, 3],
  [8, 12],
  [20, 12],
  [20, 15],
  [0, 15],
];

/** A cone on its narrow end. @param angle from the upright, degrees */
export const cone = (angle: number, rise = 15): TriangleMesh =>
  turned([
    [1e-4, 0],
    [6, 0],
    [6 + rise * Math.tan((angle * Math.PI) / 180), rise],
    [1e-4, rise],
  ]);

/** A block 40 × 40 with a level hole through it. @param roof the shape of the hole's top */
export function lyingHole(r: number, roof: 'round' | 'pointed' | 'cut flat' = 'round'): Profile[] {
  const n = 96;
  const hole = Array.from({ length: n }, (_, i): [number, number] => {
    const a = (-2 * Math.PI * i) / n;
    const [x, y] = [r * Math.cos(a), r * Math.sin(a)];
    if (roof === 'round' || y <= 0 || Math.abs(x) >= r * Math.SQRT1_2) return [x, y];
    const point = r * Math.SQRT2 - Math.abs(x);
    return [x, roof === 'pointed' ? point : Math.min(point, r + 0.3)];
  });
  const block: Profile = [
    [-20, -20],
    [20, -20],
    [20, 20],
    [-20, 20],
  ];
  return [block, hole];
}
