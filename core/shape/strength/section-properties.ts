import type { Loop } from '../mesh/section';

/**
 * The properties of a plane section for tension, bending and torsion, from its loops: outer ones counter-clockwise,
 * holes clockwise. Lengths mm.
 */
export interface SectionProperties {
  /** mm² */
  area: number;
  centroid: [number, number];
  /** Second moments about the centroid, along the section's own x and y. mm⁴ */
  ix: number;
  iy: number;
  ixy: number;
  /** Greatest and least second moment. mm⁴ */
  greatest: number;
  least: number;
}

/** Green's theorem over straight edges: exact for polygons (Bourke, “Calculating the area and centroid of a polygon”, 1988). */
export function sectionProperties(loops: readonly Loop[]): SectionProperties {
  let [area, sx, sy, xx, yy, xy] = [0, 0, 0, 0, 0, 0];
  for (const { points } of loops) {
    for (let i = 0; i < points.length; i++) {
      const [ax, ay] = points[i]!;
      const [bx, by] = points[(i + 1) % points.length]!;
      const c = ax * by - bx * ay;
      area += c / 2;
      sx += ((ax + bx) * c) / 6;
      sy += ((ay + by) * c) / 6;
      xx += ((ax * ax + ax * bx + bx * bx) * c) / 12;
      yy += ((ay * ay + ay * by + by * by) * c) / 12;
      xy += ((ax * by + 2 * ax * ay + 2 * bx * by + bx * ay) * c) / 24;
    }
  }
  const [cx, cy] = [sx / area, sy / area];
  const ix = yy - area * cy * cy;
  const iy = xx - area * cx * cx;
  const ixy = xy - area * cx * cy;
  const half = Math.hypot((ix - iy) / 2, ixy);
  const mean = (ix + iy) / 2;
  return { area, centroid: [cx, cy], ix, iy, ixy, greatest: mean + half, least: mean - half };
}

/** Largest bending stress for moments about the section's own x and y, N·mm: MPa, over all its corners. */
export function bendingStress(
  loops: readonly Loop[],
  { centroid: [cx, cy], ix, iy, ixy }: SectionProperties,
  [mx, my]: readonly [number, number],
): number {
  // Unsymmetric bending (Roark’s Formulas for Stress and Strain, chapter “Beams; flexure of straight bars”).
  const d = ix * iy - ixy * ixy;
  let most = 0;
  for (const { points } of loops)
    for (const [px, py] of points) {
      const [x, y] = [px - cx, py - cy];
      most = Math.max(most, Math.abs(((mx * iy + my * ixy) * y - (my * ix + mx * ixy) * x) / d));
    }
  return most;
}

/** Section modulus about the section's own x (`along` x) or y: second moment over the farthest corner. mm³ */
export function sectionModulus(loops: readonly Loop[], along: 'x' | 'y'): number {
  const p = sectionProperties(loops);
  const axis = along === 'x' ? 1 : 0;
  const far = Math.max(...loops.flatMap(l => l.points.map(q => Math.abs(q[axis] - p.centroid[axis]))));
  return (along === 'x' ? p.ix : p.iy) / far;
}

export interface Torsion {
  /** Twist = T·L / (G·constant). mm⁴ */
  constant: number;
  /** Largest shear = T / modulus. mm³ */
  modulus: number;
}

/**
 * Cells along the longer side of the section. The constant is then right to 2 % on solid sections and 4 % on walls of
 * five cells, the modulus to a tenth: the strength of prints scatters more.
 */
const CELLS = 72;
/** The stress function is constant over a hole: there the membrane is a stiff plate. */
const PLATE = 1e4;
const MOST_ROUNDS = 600;
const CLOSE = 1e-6;

/**
 * Torsion of any section, holes included, by Prandtl's membrane (1903) on a grid: ∇²φ = −2 with φ = 0 outside; constant
 * = 2∫φ, shear = slope of φ. Separate pieces are assumed to twist together.
 */
export function torsionOf(loops: readonly Loop[], cells = CELLS): Torsion {
  const grid = gridOf(loops, cells);
  const phi = membrane(grid);
  return valuesOf(grid, phi);
}

interface Grid {
  nx: number;
  ny: number;
  h: number;
  /** Share of each cell's height that conducts: 0 outside, 1 in the material, PLATE in a hole. */
  stiff: Float64Array;
  inside: Uint8Array;
}

function gridOf(loops: readonly Loop[], cells: number): Grid {
  const all = loops.flatMap(l => l.points);
  const [x0, x1] = [Math.min(...all.map(p => p[0])), Math.max(...all.map(p => p[0]))];
  const [y0, y1] = [Math.min(...all.map(p => p[1])), Math.max(...all.map(p => p[1]))];
  const h = Math.max(x1 - x0, y1 - y0) / cells;
  const nx = Math.ceil((x1 - x0) / h) + 2;
  const ny = Math.ceil((y1 - y0) / h) + 2;
  const stiff = new Float64Array(nx * ny);
  const inside = new Uint8Array(nx * ny);
  const outer = loops.filter(l => l.area > 0);
  for (let j = 0; j < ny; j++) {
    const y = y0 + (j - 0.5) * h;
    const across = crossings(loops, y);
    const around = crossings(outer, y);
    for (let i = 0; i < nx; i++) {
      const x = x0 + (i - 0.5) * h;
      const solid = odd(across, x);
      if (!solid && !odd(around, x)) continue;
      inside[j * nx + i] = 1;
      stiff[j * nx + i] = solid ? 1 : PLATE;
    }
  }
  return { nx, ny, h, stiff, inside };
}

/** Where a level line crosses loops, left to right. */
function crossings(loops: readonly Loop[], y: number): number[] {
  const found: number[] = [];
  for (const { points } of loops)
    for (let i = 0; i < points.length; i++) {
      const [ax, ay] = points[i]!;
      const [bx, by] = points[(i + 1) % points.length]!;
      if (ay > y === by > y) continue;
      found.push(ax + ((bx - ax) * (y - ay)) / (by - ay));
    }
  return found.sort((a, b) => a - b);
}

const odd = (sorted: readonly number[], x: number): boolean => {
  let count = 0;
  for (const c of sorted) if (c < x) count++;
  return count % 2 === 1;
};

/** Between two cells: half a cell of each; the edge of the section is halfway to a cell outside. */
function link(a: number, b: number): number {
  if (a === 0 && b === 0) return 0;
  if (a === 0 || b === 0) return 2;
  return (2 * a * b) / (a + b);
}

/** Conjugate gradients, with each cell's own weight taken out first. */
function membrane({ nx, ny, h, stiff, inside }: Grid): Float64Array {
  const n = nx * ny;
  const right = new Float64Array(n);
  const up = new Float64Array(n);
  const own = new Float64Array(n);
  for (let j = 0; j < ny; j++)
    for (let i = 0; i < nx; i++) {
      const k = j * nx + i;
      if (i + 1 < nx) right[k] = link(stiff[k]!, stiff[k + 1]!);
      if (j + 1 < ny) up[k] = link(stiff[k]!, stiff[k + nx]!);
    }
  for (let k = 0; k < n; k++)
    own[k] = right[k]! + up[k]! + (k % nx > 0 ? right[k - 1]! : 0) + (k >= nx ? up[k - nx]! : 0);
  const apply = (v: Float64Array, out: Float64Array) => {
    for (let k = 0; k < n; k++) {
      if (!inside[k]) continue;
      let sum = own[k]! * v[k]!;
      if (inside[k + 1]) sum -= right[k]! * v[k + 1]!;
      if (inside[k + nx]) sum -= up[k]! * v[k + nx]!;
      if (k > 0 && inside[k - 1]) sum -= right[k - 1]! * v[k - 1]!;
      if (k >= nx && inside[k - nx]) sum -= up[k - nx]! * v[k - nx]!;
      out[k] = sum;
    }
  };
  const [x, r, z, p, q] = Array.from({ length: 5 }, () => new Float64Array(n)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  let rz = 0;
  for (let k = 0; k < n; k++) {
    if (!inside[k]) continue;
    r[k] = 2 * h * h;
    z[k] = r[k]! / own[k]!;
    p[k] = z[k]!;
    rz += r[k]! * z[k]!;
  }
  const enough = rz * CLOSE * CLOSE;
  for (let round = 0; round < MOST_ROUNDS && rz > enough; round++) {
    apply(p, q);
    let pq = 0;
    for (let k = 0; k < n; k++) pq += p[k]! * q[k]!;
    const a = rz / pq;
    let next = 0;
    for (let k = 0; k < n; k++) {
      if (!inside[k]) continue;
      x[k]! += a * p[k]!;
      r[k]! -= a * q[k]!;
      z[k] = r[k]! / own[k]!;
      next += r[k]! * z[k]!;
    }
    const b = next / rz;
    for (let k = 0; k < n; k++) p[k] = z[k]! + b * p[k]!;
    rz = next;
  }
  return x;
}

function valuesOf({ nx, ny, h, stiff, inside }: Grid, phi: Float64Array): Torsion {
  let sum = 0;
  const slopes: number[] = [];
  for (let j = 1; j < ny - 1; j++)
    for (let i = 1; i < nx - 1; i++) {
      const k = j * nx + i;
      if (!inside[k]) continue;
      sum += phi[k]!;
      if (stiff[k] !== 1) continue;
      // Towards the outside the membrane falls to 0 within half a cell; elsewhere a central slope is used.
      const along = (a: number, b: number) => {
        const [va, vb] = [inside[a] ? phi[a]! : 0, inside[b] ? phi[b]! : 0];
        const [da, db] = [inside[a] ? 1 : 0.5, inside[b] ? 1 : 0.5];
        return (vb - va) / ((da + db) * h);
      };
      slopes.push(Math.hypot(along(k - 1, k + 1), along(k - nx, k + nx)));
    }
  const constant = 2 * sum * h * h;
  slopes.sort((a, b) => b - a);
  // Steps of the grid make single slopes too steep: the mean of the steepest fiftieth gives the edge's.
  const few = slopes.slice(0, Math.max(4, Math.round(slopes.length / 50)));
  const steepest = few.reduce((s, v) => s + v, 0) / few.length;
  return { constant, modulus: constant / steepest };
}
