import type { MeshKernel } from '../../shape/kernels/kernel';
import type { TriangleMesh } from '../../shape/mesh/mesh';
import type { Point2, Point3 } from '../../shape/vector';

/** The side of the part that faces the viewer. */
export const SIDES = ['top', 'bottom', 'front', 'back', 'right', 'left'] as const;
export type Side = (typeof SIDES)[number];

/** Closed lines, holes the other way round. Lengths mm, seen from that side, y up. */
export type Rings = readonly (readonly Point2[])[];

/** The part turned so that the side faces up; the opposite side shows the mirror image. */
const TURNS: readonly (readonly [side: Side, other: Side, turn: (p: Point3) => Point3])[] = [
  ['top', 'bottom', p => p],
  ['front', 'back', ([x, y, z]) => [x, z, -y]],
  ['right', 'left', ([x, y, z]) => [y, z, x]],
];

/** A part as seen from each of its sides. */
export function shadowsOf(mesh: TriangleMesh, kernel: Pick<MeshKernel, 'shadow'>): Record<Side, Rings> {
  const shadows = TURNS.flatMap(([side, other, turn]): [Side, Rings][] => {
    const rings = kernel.shadow(turned(mesh, turn));
    return [
      [side, rings],
      [other, rings.map(ring => ring.map(([x, y]): Point2 => [-x, y]).reverse())],
    ];
  });
  return Object.fromEntries(shadows) as Record<Side, Rings>;
}

function turned({ positions, triangles }: TriangleMesh, turn: (p: Point3) => Point3): TriangleMesh {
  const out = new Float64Array(positions.length);
  for (let i = 0; i < positions.length; i += 3)
    out.set(turn([positions[i]!, positions[i + 1]!, positions[i + 2]!]), i);
  return { positions: out, triangles };
}
