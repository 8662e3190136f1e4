import { solved } from '../../quantity/linear';
import type { Point3 } from '../../shape/vector';
import { centredOn, FREE, measureOf, movedBy, type Primitive, slopesOf } from './primitive';

/** A surface fitted to points by least squares of orthogonal distance (Gauss–Newton), without outliers. */

export interface Refined {
  surface: Primitive;
  /** For the points kept, mm. */
  rms: number;
  /** Which points were kept, by their place in the list. */
  kept: number[];
}

const ROUNDS = 25;
/** Points farther off than this many times the median distance are outliers. */
const FAR = 3;
const MEDIAN_OF_SD = 0.6745;
/** Converged: nothing moves more than this, mm and radians. */
const STILL = 1e-7;
/** No number changes by more at once, as a share of the size of what is fitted. */
const LARGEST = 0.3;

/**
 * @param least a distance that always belongs, mm @param rounds at most @returns null where the points do not determine
 * such a surface
 */
export function refined(
  start: Primitive,
  points: readonly Point3[],
  least: number,
  rounds = ROUNDS,
): Refined | null {
  const n = FREE[start.kind];
  if (points.length < 2 * n) return null;
  const size = sizeOf(points);
  const middle = middleOf(points);
  let surface = centredOn(start, middle);
  let kept = points.map((_, i) => i);
  let damping = 1e-6;
  for (let round = 0; round < rounds; round++) {
    const offs = offsOf(surface, points);
    const near = new Float64Array(kept.length);
    for (let i = 0; i < kept.length; i++) near[i] = Math.abs(offs[kept[i]!]!);
    near.sort();
    const sd = near[Math.floor(near.length / 2)]! / MEDIAN_OF_SD;
    const limit = Math.max(least, FAR * sd);
    kept = [];
    for (let i = 0; i < offs.length; i++) if (Math.abs(offs[i]!) <= limit) kept.push(i);
    if (kept.length < 2 * n) return null;
    const { a, b } = normalEquations(surface, points, kept);
    for (let j = 0; j < n; j++) a[j]![j]! *= 1 + damping;
    const step = solved(a, b);
    if (!step) return null;
    const most = LARGEST * size;
    const bounded = step.map(x => Math.max(-most, Math.min(most, x)));
    const next = movedBy(surface, bounded);
    const cost = (s: Primitive) => {
      const far = offsOf(s, points);
      return kept.reduce((sum, i) => sum + far[i]! ** 2, 0);
    };
    if (!(cost(next) <= cost(surface) * (1 + 1e-9))) {
      damping = Math.max(1e-4, 10 * damping);
      if (damping > 1e6) break;
      continue;
    }
    damping = Math.max(1e-9, damping / 5);
    surface = next;
    if (Math.max(...bounded.map(Math.abs)) < STILL) break;
  }
  const offs = offsOf(surface, points);
  const rms = Math.sqrt(kept.reduce((sum, i) => sum + offs[i]! ** 2, 0) / kept.length);
  const isSound = Number.isFinite(rms) && (!('radius' in surface) || surface.radius > 0);
  return isSound ? { surface, rms, kept } : null;
}

function normalEquations(surface: Primitive, points: readonly Point3[], kept: readonly number[]) {
  const n = FREE[surface.kind];
  const a = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  const b = new Array<number>(n).fill(0);
  const [measure, slopesAt] = [measureOf(surface), slopesOf(surface)];
  const out = new Float64Array(4);
  const slopes = new Float64Array(6);
  for (const i of kept) {
    const [x, y, z] = points[i]!;
    measure(x, y, z, out);
    slopesAt(x, y, z, out, slopes);
    for (let j = 0; j < n; j++) {
      b[j]! -= slopes[j]! * out[0]!;
      const row = a[j]!;
      for (let k = 0; k <= j; k++) row[k]! += slopes[j]! * slopes[k]!;
    }
  }
  for (let j = 0; j < n; j++) for (let k = 0; k < j; k++) a[k]![j] = a[j]![k]!;
  return { a, b };
}

function offsOf(surface: Primitive, points: readonly Point3[]): Float64Array {
  const measure = measureOf(surface);
  const out = new Float64Array(4);
  const offs = new Float64Array(points.length);
  for (let i = 0; i < points.length; i++) {
    const p = points[i]!;
    measure(p[0], p[1], p[2], out);
    offs[i] = out[0]!;
  }
  return offs;
}

export function middleOf(points: readonly Point3[]): Point3 {
  const sum: [number, number, number] = [0, 0, 0];
  for (const p of points) for (let i = 0; i < 3; i++) sum[i]! += p[i]!;
  return [sum[0] / points.length, sum[1] / points.length, sum[2] / points.length];
}

function sizeOf(points: readonly Point3[]): number {
  const middle = middleOf(points);
  const sum = points.reduce(
    (all, p) => all + (p[0] - middle[0]) ** 2 + (p[1] - middle[1]) ** 2 + (p[2] - middle[2]) ** 2,
    0,
  );
  return Math.sqrt(sum / points.length);
}
