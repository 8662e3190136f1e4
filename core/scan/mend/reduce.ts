import { MeshoptSimplifier } from 'meshoptimizer';
import { onlyTriangles, type TriangleMesh } from '../../shape/mesh/mesh';
import { rayTreeOf } from '../../shape/mesh/rays';

/** Must be awaited once before anything is reduced. */
export const canReduce = MeshoptSimplifier.ready;

/**
 * The simplifier's own error is a mean over a corner's planes: its target is lowered until the measured distance keeps
 * to the bound.
 */
const TRIES = [1, 0.5, 0.25, 0.1, 0.04];
/** Number of corners that are measured. */
const MOST_MEASURED = 40_000;

/**
 * Fewer triangles; all but one in a thousand corners of the scan are within the bound of them, as measured on up to 40
 * 000. Borders stay where they are. Returns the scan itself where that is impossible.
 * @param bound mm @returns the largest distance of those corners, mm
 */
export function reduced(mesh: TriangleMesh, bound: number): { mesh: TriangleMesh; off: number } {
  const positions = Float32Array.from(mesh.positions);
  const scale = MeshoptSimplifier.getScale(positions, 3);
  for (const share of TRIES) {
    const [triangles] = MeshoptSimplifier.simplify(mesh.triangles, positions, 3, 0, (share * bound) / scale, [
      'LockBorder',
    ]);
    const fewer = onlyTriangles(mesh, triangles);
    const off = nearlyAllWithin(mesh, fewer, 2 * bound);
    if (off <= bound) return { mesh: fewer, off };
  }
  return { mesh, off: 0 };
}

/** One corner in a thousand belongs to a speck or a ragged edge. */
const NEARLY_ALL = 0.999;

/** Distances of the corners of one surface from another. @param most larger distances are not searched */
function nearlyAllWithin({ positions: p }: TriangleMesh, from: TriangleMesh, most: number): number {
  const tree = rayTreeOf(from);
  const step = 3 * Math.max(1, Math.floor(p.length / 3 / MOST_MEASURED));
  const offs: number[] = [];
  for (let v = 0; v < p.length; v += step)
    offs.push(tree.nearest([p[v]!, p[v + 1]!, p[v + 2]!], most)?.distance ?? most);
  return Float64Array.from(offs).sort()[Math.floor(NEARLY_ALL * (offs.length - 1))] ?? 0;
}
