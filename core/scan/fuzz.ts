import type { TriangleMesh } from '../shape/mesh/mesh';
import { trianglesAround } from './around';

/** Half of a normal distribution lies within this many sd. */
const MEDIAN_OF_SD = 0.6745;
/** Number of corners that are examined. */
const MOST = 60_000;

/**
 * Random scatter of a scan's corners, sd, along the normal: each corner against the plane of its neighbours. An even
 * bend or a smooth warp is not included. In the unit of the scan; null where no corner has neighbours.
 */
export function fuzzOf({ positions: p, triangles }: TriangleMesh): number | null {
  const corners = p.length / 3;
  const step = Math.max(1, Math.floor(corners / MOST));
  const { first, of } = trianglesAround(triangles, corners);
  const offs: number[] = [];
  for (let v = 0; v < corners; v += step) {
    const off = offPlane(p, triangles, of.subarray(first[v], first[v + 1]), v);
    if (off !== null) offs.push(off);
  }
  if (offs.length === 0) return null;
  offs.sort((a, b) => a - b);
  return offs[Math.floor(offs.length / 2)]! / MEDIAN_OF_SD;
}

/** How far a corner is off the mean of its neighbours along their normal, as the sd that alone would explain it. */
function offPlane(p: Float64Array, triangles: Uint32Array, own: Uint32Array, v: number): number | null {
  if (own.length < 4) return null;
  const around = new Map<number, number>();
  let [nx, ny, nz] = [0, 0, 0];
  for (const t of own) {
    const [a, b, c] = [3 * triangles[3 * t]!, 3 * triangles[3 * t + 1]!, 3 * triangles[3 * t + 2]!];
    const [ux, uy, uz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
    const [wx, wy, wz] = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
    nx += uy * wz - uz * wy;
    ny += uz * wx - ux * wz;
    nz += ux * wy - uy * wx;
    for (let e = 0; e < 3; e++) {
      const other = triangles[3 * t + e]!;
      if (other !== v) around.set(other, (around.get(other) ?? 0) + 1);
    }
  }
  // On a border all neighbours are on one side.
  if ([...around.values()].some(n => n !== 2)) return null;
  const long = Math.hypot(nx, ny, nz);
  if (!(long > 0)) return null;
  let [x, y, z] = [0, 0, 0];
  for (const o of around.keys()) {
    x += p[3 * o]!;
    y += p[3 * o + 1]!;
    z += p[3 * o + 2]!;
  }
  const k = around.size;
  const off = ((p[3 * v]! - x / k) * nx + (p[3 * v + 1]! - y / k) * ny + (p[3 * v + 2]! - z / k) * nz) / long;
  // The mean of k neighbours scatters too.
  return Math.abs(off) / Math.sqrt(1 + 1 / k);
}
