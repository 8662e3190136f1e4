import { joined, type TriangleMesh } from '../mesh/mesh';
import { distancesTo } from './distances';
import type { Field, Grid } from './grid';

/**
 * What an object sweeps on its way straight up, z, out of a recess, as distances: the recess with clearance is where
 * they are less than that clearance. The object's surface need not be closed, and what lies above it does not matter.
 * Lengths mm, angles degrees.
 */
export interface Swept extends Field {
  /** For each column, starting to the right: the height where the object begins; infinite where none of it is. */
  readonly lowest: Float32Array;
  /** mm of extra width on each side per mm upwards. */
  readonly slope: number;
}

/** @param draft how far each wall leans back @param most farther points get this distance */
export function sweptUp(mesh: TriangleMesh, grid: Grid, draft: number, most: number): Swept {
  const lowest = lowestOf(mesh, grid);
  const floors = closedOver(lowest, grid);
  const whole = floors ? joined([mesh, floors]) : mesh;
  const slope = Math.tan((draft * Math.PI) / 180);
  const [nx, ny, nz] = grid.count;
  const high = grid.cell * (nz - 1) * slope;
  const { values } = distancesTo(whole, grid, most + high);
  const layer = nx * ny;
  for (let column = 0; column < layer; column++) {
    let least = Infinity;
    for (let k = 0; k < nz; k++) {
      const at = k * layer + column;
      const z = grid.from[2] + k * grid.cell;
      // Inside or above the object the space is swept.
      const here = z >= lowest[column]! ? 0 : values[at]!;
      least = Math.min(here, least - grid.cell * slope);
      values[at] = least;
    }
  }
  return { grid, values, lowest, slope };
}

/** If most columns first meet a face that faces up, the surface was seen from above only and has no other side. */
const SEEN_FROM_ABOVE = 0.5;

/**
 * Where each column of a grid first meets the surface from below. A column that meets a face facing up there entered
 * through a hole in the underside: nobody knows where it begins.
 */
function lowestOf({ positions: p, triangles }: TriangleMesh, { from, cell, count }: Grid): Float32Array {
  const [nx, ny] = count;
  const lowest = new Float32Array(nx * ny).fill(Infinity);
  const looksUp = new Uint8Array(nx * ny);
  for (let t = 0; t < triangles.length; t += 3) {
    const [i, j, k] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
    const [ax, ay] = [(p[i]! - from[0]) / cell, (p[i + 1]! - from[1]) / cell];
    const [bx, by] = [(p[j]! - from[0]) / cell, (p[j + 1]! - from[1]) / cell];
    const [cx, cy] = [(p[k]! - from[0]) / cell, (p[k + 1]! - from[1]) / cell];
    const area = (bx - ax) * (cy - ay) - (cx - ax) * (by - ay);
    // Seen edge-on it covers no column.
    if (Math.abs(area) < 1e-9) continue;
    const x0 = Math.max(0, Math.ceil(Math.min(ax, bx, cx)));
    const x1 = Math.min(nx - 1, Math.floor(Math.max(ax, bx, cx)));
    const y0 = Math.max(0, Math.ceil(Math.min(ay, by, cy)));
    const y1 = Math.min(ny - 1, Math.floor(Math.max(ay, by, cy)));
    for (let y = y0; y <= y1; y++)
      for (let x = x0; x <= x1; x++) {
        const u = ((x - ax) * (cy - ay) - (cx - ax) * (y - ay)) / area;
        const v = ((bx - ax) * (y - ay) - (x - ax) * (by - ay)) / area;
        if (u < -1e-9 || v < -1e-9 || u + v > 1 + 1e-9) continue;
        const z = p[i + 2]! + u * (p[j + 2]! - p[i + 2]!) + v * (p[k + 2]! - p[i + 2]!);
        const at = y * nx + x;
        if (z >= lowest[at]!) continue;
        lowest[at] = z;
        looksUp[at] = area > 0 ? 1 : 0;
      }
  }
  let [met, up] = [0, 0];
  for (let at = 0; at < lowest.length; at++) {
    if (lowest[at] === Infinity) continue;
    met++;
    up += looksUp[at]!;
  }
  if (up < SEEN_FROM_ABOVE * met)
    for (let at = 0; at < lowest.length; at++) if (looksUp[at] === 1) lowest[at] = Infinity;
  return lowest;
}

/** How often the floor of a hole is smoothed. */
const EVENED = 60;

/**
 * Holes in the underside are closed, from rim to rim: a place that was not scanned must not become a post in the
 * recess. The patches are put into `lowest` and returned as triangles.
 */
function closedOver(lowest: Float32Array, { from, cell, count }: Grid): TriangleMesh | null {
  const [nx, ny] = count;
  const outside = new Uint8Array(lowest.length);
  const open: number[] = [];
  const reach = (x: number, y: number): void => {
    const at = y * nx + x;
    if (x < 0 || y < 0 || x >= nx || y >= ny || outside[at] !== 0 || lowest[at]! < Infinity) return;
    outside[at] = 1;
    open.push(at);
  };
  for (let x = 0; x < nx; x++) {
    reach(x, 0);
    reach(x, ny - 1);
  }
  for (let y = 0; y < ny; y++) {
    reach(0, y);
    reach(nx - 1, y);
  }
  for (let at = open.pop(); at !== undefined; at = open.pop()) {
    const [x, y] = [at % nx, Math.floor(at / nx)];
    reach(x - 1, y);
    reach(x + 1, y);
    reach(x, y - 1);
    reach(x, y + 1);
  }
  const holes: number[] = [];
  for (let at = 0; at < lowest.length; at++) if (lowest[at] === Infinity && outside[at] === 0) holes.push(at);
  if (holes.length === 0) return null;
  levelled(lowest, holes, nx);
  const own = new Uint8Array(lowest.length);
  for (const at of holes) own[at] = 1;
  const positions: number[] = [];
  const triangles: number[] = [];
  const named = new Map<number, number>();
  const corner = (at: number): number => {
    const known = named.get(at);
    if (known !== undefined) return known;
    positions.push(from[0] + (at % nx) * cell, from[1] + Math.floor(at / nx) * cell, lowest[at]!);
    named.set(at, named.size);
    return named.size - 1;
  };
  for (const at of holes)
    for (const [right, back] of [
      [1, nx],
      [1, -nx],
      [-1, nx],
      [-1, -nx],
    ] as const) {
      const square = [at, at + right, at + right + back, at + back];
      // Two of them may ask for one square: a doubled surface does not change the distance.
      if (square.some(s => !(lowest[s]! < Infinity))) continue;
      const [a, b, c, d] = square.map(corner) as [number, number, number, number];
      triangles.push(a, b, c, a, c, d);
    }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** A soap film from rim to rim. */
function levelled(lowest: Float32Array, holes: readonly number[], nx: number): void {
  // From the rims inwards first, so that the film starts close to its final shape.
  let left = [...holes];
  while (left.length > 0) {
    const put = left.flatMap(at => {
      const around = [at - 1, at + 1, at - nx, at + nx].map(n => lowest[n]!).filter(z => z < Infinity);
      return around.length > 0 ? [[at, around.reduce((a, b) => a + b, 0) / around.length] as const] : [];
    });
    for (const [at, z] of put) lowest[at] = z;
    left = left.filter(at => lowest[at] === Infinity);
  }
  for (let round = 0; round < EVENED; round++)
    for (const at of holes) {
      const around = [at - 1, at + 1, at - nx, at + nx].map(n => lowest[n]!).filter(z => z < Infinity);
      lowest[at] = around.reduce((a, b) => a + b, 0) / around.length;
    }
}
