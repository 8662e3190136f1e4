import { type Bounds, boundsOf } from '../shape/mesh/mesh';
import { basisOf, dot, lengthOfVector, type Point3, scaled } from '../shape/vector';
import { type Weighed, weighedQuantile } from './quantile';
import type { ScanSurface } from './scan-surface';

/**
 * What would hold an object in a recess of its own shape, with the mouth level with the object's highest place, when it
 * is pulled out. Lengths mm, angles degrees.
 */
export interface Undercut {
  /** Area that would have to pass material of the recess, mm². */
  area: number;
  /** As a share of the whole surface. */
  fraction: number;
  /** How far material reaches over the object sideways, at most. */
  maxDepth: number;
  /** The draft to add to the recess's walls. */
  suggestedDraft: number;
  /** For each corner, how far material reaches over it sideways; 0 where it comes free. */
  depths: Float32Array;
}

/** Cells across the longer side, and number of heights that are examined. */
const [CELLS, LEVELS] = [260, 90];
/** Largest lean of walls, and smallest draft: common practice, no source. */
const [WALL, LEAST_DRAFT] = [20, 1];
/** A surface that faces down this steeply does not hold: degrees. */
const DOWN = -3;

export function undercutOf(scan: ScanSurface, pull: Point3): Undercut {
  const up = scaled(pull, 1 / lengthOfVector(pull));
  const { x, y } = basisOf(up);
  const { positions: p, triangles } = scan.mesh;
  const turned = new Float64Array(p.length);
  for (let v = 0; v < p.length; v += 3) {
    const q: Point3 = [p[v]!, p[v + 1]!, p[v + 2]!];
    turned[v] = dot(q, x);
    turned[v + 1] = dot(q, y);
    turned[v + 2] = dot(q, up);
  }
  const bounds = boundsOf({ positions: turned, triangles });
  const { min, max } = bounds;
  const cell = Math.max(max[0] - min[0], max[1] - min[1]) / CELLS || 1;
  const lowest = lowestIn(turned, triangles, bounds, cell);
  const sides = insideBy(lowest, bounds, cell);
  const surfels = scan.surfels(0);
  const tolerance = Math.max(cell, 3 * scan.fuzz);
  const depths = new Float32Array(scan.corners);
  const down = Math.sin((DOWN * Math.PI) / 180);
  for (let v = 0; v < scan.corners; v++) {
    const [a, b, h] = [turned[3 * v]!, turned[3 * v + 1]!, turned[3 * v + 2]!];
    const s = surfels.of[v]!;
    const looks =
      surfels.normals[3 * s]! * up[0] +
      surfels.normals[3 * s + 1]! * up[1] +
      surfels.normals[3 * s + 2]! * up[2];
    // What is level with the mouth has no recess above it.
    if (looks < down || h > max[2] - tolerance) continue;
    const n: Point3 = [surfels.normals[3 * s]!, surfels.normals[3 * s + 1]!, surfels.normals[3 * s + 2]!];
    const depth = sides(a, b, h, dot(n, x), dot(n, y));
    if (depth > tolerance) depths[v] = depth;
  }
  return summed(scan, depths, up);
}

function summed(scan: ScanSurface, depths: Float32Array, up: Point3): Undercut {
  const { triangles } = scan.mesh;
  let [area, whole, maxDepth] = [0, 0, 0];
  const leans: Weighed[] = [];
  for (let t = 0; t < triangles.length / 3; t++) {
    const size = scan.areaOfTriangle(t);
    whole += size;
    const corners = [0, 1, 2].map(e => triangles[3 * t + e]!);
    const held = corners.filter(v => depths[v]! > 0).length;
    area += (size * held) / 3;
    if (held > 0) continue;
    const s = scan.surfels(0).of[corners[0]!]!;
    const n = scan.surfels(0).normals;
    const looks = n[3 * s]! * up[0] + n[3 * s + 1]! * up[1] + n[3 * s + 2]! * up[2];
    const lean = (Math.asin(Math.max(-1, Math.min(1, looks))) * 180) / Math.PI;
    if (Math.abs(lean) < WALL) leans.push({ value: lean, weight: size });
  }
  for (const d of depths) maxDepth = Math.max(maxDepth, d);
  const worst = weighedQuantile(leans, 0.9) ?? -WALL;
  // Walls that open by more need no draft.
  const suggestedDraft = Math.max(0, LEAST_DRAFT + worst);
  return { area, fraction: whole > 0 ? area / whole : 0, maxDepth, suggestedDraft, depths };
}

interface Grid {
  columns: number;
  rows: number;
  values: Float64Array;
}

/** For each cell seen along the pull, where the object begins; infinite where nothing of it is. */
function lowestIn(turned: Float64Array, triangles: Uint32Array, { min, max }: Bounds, cell: number): Grid {
  const columns = Math.ceil((max[0] - min[0]) / cell) + 3;
  const rows = Math.ceil((max[1] - min[1]) / cell) + 3;
  const values = new Float64Array(columns * rows).fill(Infinity);
  const put = (a: number, b: number, h: number) => {
    const at = (Math.floor((b - min[1]) / cell) + 1) * columns + Math.floor((a - min[0]) / cell) + 1;
    if (h < values[at]!) values[at] = h;
  };
  for (let t = 0; t < triangles.length; t += 3) {
    const [i, j, k] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
    const side = (a: number, b: number) =>
      Math.hypot(turned[a]! - turned[b]!, turned[a + 1]! - turned[b + 1]!);
    const steps = Math.max(1, Math.ceil((2 * Math.max(side(i, j), side(j, k), side(k, i))) / cell));
    for (let u = 0; u <= steps; u++)
      for (let v = 0; v <= steps - u; v++) {
        const [q, r, s] = [u / steps, v / steps, (steps - u - v) / steps];
        put(
          q * turned[i]! + r * turned[j]! + s * turned[k]!,
          q * turned[i + 1]! + r * turned[j + 1]! + s * turned[k + 1]!,
          q * turned[i + 2]! + r * turned[j + 2]! + s * turned[k + 2]!,
        );
      }
  }
  return { columns, rows, values };
}

/** A surface that faces less to the side than this faces up: the nearest way out counts. */
const ASIDE = 0.25;

/**
 * How far material reaches over a place at a height: towards the side that the surface faces (dx, dy), through the
 * columns that the object has entered by then.
 */
function insideBy(
  lowest: Grid,
  { min, max }: Bounds,
  cell: number,
): (a: number, b: number, h: number, dx: number, dy: number) => number {
  const step = (max[2] - min[2]) / LEVELS || 1;
  const levels = new Map<number, Float32Array>();
  const placeOf = (a: number, b: number) => {
    const [c, r] = [Math.floor((a - min[0]) / cell) + 1, Math.floor((b - min[1]) / cell) + 1];
    return c < 0 || r < 0 || c >= lowest.columns || r >= lowest.rows ? -1 : r * lowest.columns + c;
  };
  const upwards = (a: number, b: number, h: number) => {
    const level = Math.max(0, Math.floor((h - min[2]) / step));
    const far = levels.get(level) ?? distancesTo(lowest, min[2] + level * step, cell);
    levels.set(level, far);
    // From the centre of a cell to the edge of the free one.
    return Math.max(0, far[placeOf(a, b)]! - cell / 2);
  };
  return (a, b, h, dx, dy) => {
    const aside = Math.hypot(dx, dy);
    if (aside < ASIDE) return upwards(a, b, h);
    const [u, v] = [((dx / aside) * cell) / 2, ((dy / aside) * cell) / 2];
    // Its own cell and its neighbour belong to the wall itself.
    for (let k = 2; ; k++) {
      const at = placeOf(a + k * u, b + k * v);
      if (at < 0 || !(lowest.values[at]! <= h - step / 2)) return k > 3 ? (k * cell) / 2 : 0;
    }
  };
}

/** Exact distances to the cells that are free at a height (Felzenszwalb and Huttenlocher 2012). */
function distancesTo({ columns, rows, values }: Grid, h: number, cell: number): Float32Array {
  const square = Float64Array.from(values, v => (v > h ? 0 : 1e12));
  const line = new Float64Array(Math.max(columns, rows));
  for (let c = 0; c < columns; c++) {
    for (let r = 0; r < rows; r++) line[r] = square[r * columns + c]!;
    spreadAlong(line, rows, (r, v) => {
      square[r * columns + c] = v;
    });
  }
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) line[c] = square[r * columns + c]!;
    spreadAlong(line, columns, (c, v) => {
      square[r * columns + c] = v;
    });
  }
  return Float32Array.from(square, v => cell * Math.sqrt(v));
}

function spreadAlong(f: Float64Array, n: number, put: (i: number, value: number) => void): void {
  const hull = new Int32Array(n);
  const from = new Float64Array(n + 1);
  let k = 0;
  from[0] = -Infinity;
  from[1] = Infinity;
  const meet = (q: number, r: number) => (f[q]! + q * q - f[r]! - r * r) / (2 * q - 2 * r);
  for (let q = 1; q < n; q++) {
    let s = meet(q, hull[k]!);
    while (s <= from[k]!) {
      k--;
      s = meet(q, hull[k]!);
    }
    k++;
    hull[k] = q;
    from[k] = s;
    from[k + 1] = Infinity;
  }
  k = 0;
  for (let q = 0; q < n; q++) {
    while (from[k + 1]! < q) k++;
    put(q, (q - hull[k]!) ** 2 + f[hull[k]!]!);
  }
}
