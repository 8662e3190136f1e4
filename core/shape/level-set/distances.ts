import type { TriangleMesh } from '../mesh/mesh';
import { nearestOnTriangle } from '../mesh/nearest-on-triangle';
import type { Field, Grid } from './grid';

/**
 * The distance of each point of a grid from a surface, which need not be closed. It is exact next to the surface;
 * farther away each point tries the triangles that are nearest to its neighbours. Lengths mm.
 * @param most farther points get this distance
 */
export function distancesTo({ positions: p, triangles }: TriangleMesh, grid: Grid, most: number): Field {
  const { from, cell, count } = grid;
  const [nx, ny, nz] = count;
  const squares = new Float32Array(nx * ny * nz).fill(most * most);
  const nearest = new Int32Array(squares.length).fill(-1);
  const at = new Float64Array(3);
  let queue: number[] = [];
  const queued = new Uint8Array(squares.length);
  const offer = (triangle: number, ix: number, iy: number, iz: number): void => {
    const [x, y, z] = [from[0] + ix * cell, from[1] + iy * cell, from[2] + iz * cell];
    const [a, b, c] = [
      3 * triangles[3 * triangle]!,
      3 * triangles[3 * triangle + 1]!,
      3 * triangles[3 * triangle + 2]!,
    ];
    const square = nearestOnTriangle(p, a, b, c, x, y, z, at);
    const node = (iz * ny + iy) * nx + ix;
    // Without a tolerance, equally near triangles would be passed back and forth for ever.
    if (!(square < 0.9999 * squares[node]!)) return;
    squares[node] = square;
    nearest[node] = triangle;
    if (queued[node] === 0) {
      queued[node] = 1;
      queue.push(node);
    }
  };
  for (let t = 0; t < triangles.length / 3; t++) {
    const low = [Infinity, Infinity, Infinity];
    const high = [-Infinity, -Infinity, -Infinity];
    for (let e = 0; e < 3; e++)
      for (let i = 0; i < 3; i++) {
        const x = (p[3 * triangles[3 * t + e]! + i]! - from[i]!) / cell;
        low[i] = Math.min(low[i]!, x);
        high[i] = Math.max(high[i]!, x);
      }
    const first = low.map(x => Math.max(0, Math.floor(x)));
    const last = high.map((x, i) => Math.min(count[i]! - 1, Math.ceil(x)));
    for (let iz = first[2]!; iz <= last[2]!; iz++)
      for (let iy = first[1]!; iy <= last[1]!; iy++)
        for (let ix = first[0]!; ix <= last[0]!; ix++) offer(t, ix, iy, iz);
  }
  while (queue.length > 0) {
    const now = queue;
    queue = [];
    for (const node of now) queued[node] = 0;
    for (const node of now) {
      const triangle = nearest[node]!;
      const ix = node % nx;
      const iy = Math.floor(node / nx) % ny;
      const iz = Math.floor(node / (nx * ny));
      if (ix > 0) offer(triangle, ix - 1, iy, iz);
      if (ix < nx - 1) offer(triangle, ix + 1, iy, iz);
      if (iy > 0) offer(triangle, ix, iy - 1, iz);
      if (iy < ny - 1) offer(triangle, ix, iy + 1, iz);
      if (iz > 0) offer(triangle, ix, iy, iz - 1);
      if (iz < nz - 1) offer(triangle, ix, iy, iz + 1);
    }
  }
  return { grid, values: squares.map(Math.sqrt) };
}
