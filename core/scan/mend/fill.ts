import type { TriangleMesh } from '../../shape/mesh/mesh';
import { openEdgesOf } from '../edges';

export interface Filled {
  mesh: TriangleMesh;
  /** Holes that were closed, and borders that stay open: larger ones, and the border of what was seen. */
  filled: number;
  left: number;
}

/**
 * Closes holes by triangles from their border to their centre: they are flat there, which is right only for small
 * holes.
 * @param across longest side of a hole's box that is still closed, mm
 */
export function filled({ positions: p, triangles }: TriangleMesh, across: number): Filled {
  const loops = bordersOf({ positions: p, triangles });
  const positions: number[] = [];
  const added: number[] = [];
  const corners = p.length / 3;
  let [closed, left] = [0, 0];
  for (const loop of loops) {
    const min = [Infinity, Infinity, Infinity];
    const max = [-Infinity, -Infinity, -Infinity];
    const middle = [0, 0, 0];
    for (const v of loop)
      for (let i = 0; i < 3; i++) {
        const x = p[3 * v + i]!;
        min[i] = Math.min(min[i]!, x);
        max[i] = Math.max(max[i]!, x);
        middle[i]! += x / loop.length;
      }
    if (Math.max(...max.map((x, i) => x - min[i]!)) > across) {
      left++;
      continue;
    }
    closed++;
    if (loop.length === 3) {
      added.push(loop[0]!, loop[1]!, loop[2]!);
      continue;
    }
    const centre = corners + positions.length / 3;
    positions.push(...middle);
    for (const [i, v] of loop.entries()) added.push(v, loop[(i + 1) % loop.length]!, centre);
  }
  const whole = new Float64Array(p.length + positions.length);
  whole.set(p);
  whole.set(positions, p.length);
  const faces = new Uint32Array(triangles.length + added.length);
  faces.set(triangles);
  faces.set(added, triangles.length);
  return { mesh: { positions: whole, triangles: faces }, filled: closed, left };
}

/** Closed lines along open edges, directed so that triangles on them face the way their neighbours do. */
function bordersOf({ positions, triangles }: TriangleMesh): number[][] {
  const next = new Map<number, number[]>();
  for (const [a, b] of openEdgesOf(triangles, positions.length / 3).open)
    next.set(b, [...(next.get(b) ?? []), a]);
  const loops: number[][] = [];
  for (const start of next.keys())
    while (next.get(start)!.length > 0) {
      // Where two borders meet in a corner, either continuation closes one of them.
      const loop: number[] = [];
      let v = start;
      do {
        loop.push(v);
        v = next.get(v)?.pop() ?? -1;
      } while (v >= 0 && v !== start);
      if (v === start && loop.length >= 3) loops.push(loop);
    }
  return loops;
}
