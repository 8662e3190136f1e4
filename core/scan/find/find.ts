import { type Found, settled } from '../fit/fit';
import { type Grown, grownOver, regionAbout, startOn } from '../fit/grow';
import { measureOf, SMOOTH_KINDS } from '../fit/primitive';
import { refined } from '../fit/refine';
import { startFor } from '../fit/starts';
import type { ScanSurface } from '../scan-surface';
import type { Surfels } from '../surfels';

/**
 * Every plane, cylinder, cone and sphere in a scan. Places are tried in turn and the surfaces grown there compete; the
 * largest is taken, and its corners are gone for the others. Large surfaces are searched in coarse cells, the rest in
 * ever finer ones.
 */

/** Share of the scan that is searched at a time. */
const MOST_SURFELS = 16_000;
/** Radii of the regions in which a place is tried, in cells. */
const RADII = [2.6, 5.5, 11];
/** Number of places that are tried before the best is taken. */
const AT_ONCE = 10;
/** Smaller surfaces were not intended: surfels, corners, and how far round, degrees. */
const [FEWEST_SURFELS, FEWEST_CORNERS, LEAST_ROUND] = [12, 70, 45];

interface Candidate extends Grown {
  score: number;
}

/** @param progress called with the share of the scan that was searched, 0 to 1 */
export function findAll(scan: ScanSurface, progress: (share: number) => void = () => {}): Found[] {
  const free = new Uint8Array(scan.corners).fill(1);
  const found: Found[] = [];
  const finest = scan.surfels(0);
  let cell = finest.cell;
  while (scan.surfels(cell).count > MOST_SURFELS) cell *= 2;
  for (; cell >= finest.cell * 0.99; cell /= 2) searched(scan, scan.surfels(cell), free, found, progress);
  return found.sort((a, b) => b.area - a.area);
}

function searched(
  scan: ScanSurface,
  surfels: Surfels,
  free: Uint8Array,
  found: Found[],
  progress: (share: number) => void,
): void {
  const left = freeIn(surfels, free);
  const isFree = (s: number) => left[s] === 1;
  const tried = new Uint8Array(surfels.count);
  const order = scattered(surfels.count);
  let pool: Candidate[] = [];
  let next = 0;
  for (;;) {
    let places = 0;
    while (next < order.length && places < AT_ONCE) {
      const s = order[next++]!;
      if (!left[s] || tried[s]) continue;
      for (const o of surfels.around(s)) tried[o] = 1;
      places++;
      const best = bestAt(scan, surfels, s, isFree);
      if (best) {
        pool.push(best);
        // The rest of a region need not be tried: it would grow into the same surface.
        for (const r of best.region) tried[r] = 1;
      }
    }
    if (pool.length === 0 && next >= order.length) return;
    pool.sort((a, b) => a.score - b.score);
    const best = pool.pop();
    if (!best) continue;
    const whole = stillWhole(scan, surfels, best, isFree);
    if (!whole) {
      for (const r of best.region) if (left[r]) tried[r] = 0;
      next = 0;
      continue;
    }
    const fit = settled(scan, surfels, simplest(scan, surfels, whole, isFree));
    if (!fit || !isSound(scan, fit)) continue;
    for (const v of fit.corners) free[v] = 0;
    for (const s of whole.region) left[s] = 0;
    found.push(fit);
    pool = pool.filter(c => c.region.some(isFree));
    progress(1 - left.reduce((sum, x) => sum + x, 0) / surfels.count);
  }
}

function isSound(scan: ScanSurface, { corners, coverage, rms, surface, u }: Found): boolean {
  if (corners.length < FEWEST_CORNERS || coverage < LEAST_ROUND || rms > mostOff(scan)) return false;
  if (surface.kind === 'plane') return true;
  if (surface.kind === 'cone' && Math.abs(surface.halfAngle) > STEEPEST) return false;
  return u < VAGUE * surface.radius && isCurved(scan, corners, rms);
}

/** A surface this near to a plane is a warped flat, or a piece of something else. */
function isCurved(scan: ScanSurface, corners: readonly number[], rms: number): boolean {
  const step = Math.max(1, corners.length / 300);
  const some = Array.from(
    { length: Math.floor(corners.length / step) },
    (_, i) => corners[Math.floor(i * step)]!,
  );
  const points = some.map(v => scan.point(v));
  const start = startFor(
    'plane',
    points,
    some.map(v => scan.normal(v)),
  );
  // Normals in all directions cancel: nothing is more curved.
  const flat = start && refined(start, points, Infinity);
  return !flat || flat.rms > CURVED * rms;
}
const CURVED = 2.5;

/** Scans scatter and warp; a surface that is farther off has another shape. mm rms */
const mostOff = (scan: ScanSurface) => 0.06 + 1.3 * scan.fuzz;
/**
 * A flatter cone is a warped plane, degrees; a size with a larger uncertainty than this share of its radius is not a
 * size.
 */
const [STEEPEST, VAGUE] = [85, 0.15];

/** A short rim fits a ball and a taper as well as a cylinder: then it is a cylinder. */
function simplest(
  scan: ScanSurface,
  surfels: Surfels,
  whole: Candidate,
  isFree: (s: number) => boolean,
): Candidate {
  const { kind } = whole.surface;
  if (kind !== 'cone' && kind !== 'sphere') return whole;
  const start = startOn(surfels, 'cylinder', whole.region);
  const plain = start && scored(scan, surfels, grownOver(surfels, scan.fuzz, start, whole.region, isFree));
  return plain && plain.region.length > 0.93 * whole.region.length && plain.rms < 1.15 * whole.rms
    ? plain
    : whole;
}

/** For each cell, whether most of its corners are still free. */
function freeIn(surfels: Surfels, free: Uint8Array): Uint8Array {
  const counts = new Uint32Array(surfels.count);
  for (let v = 0; v < free.length; v++) counts[surfels.of[v]!]! += free[v]!;
  return Uint8Array.from(counts, (n, s) => (2 * n > surfels.weights[s]! ? 1 : 0));
}

/**
 * A candidate that lost corners to others is grown again; one that lost many is given up, and its places are tried
 * again.
 */
function stillWhole(
  scan: ScanSurface,
  surfels: Surfels,
  candidate: Candidate,
  isFree: (s: number) => boolean,
): Candidate | null {
  const kept = candidate.region.filter(isFree);
  if (kept.length === candidate.region.length) return candidate;
  if (kept.length < Math.max(FEWEST_SURFELS, 0.7 * candidate.region.length)) return null;
  return scored(scan, surfels, grownOver(surfels, scan.fuzz, candidate.surface, kept, isFree));
}

function bestAt(
  scan: ScanSurface,
  surfels: Surfels,
  seed: number,
  isFree: (s: number) => boolean,
): Candidate | null {
  let best: Candidate | null = null;
  for (const radius of RADII) {
    const region = regionAbout(surfels, seed, radius * surfels.cell, isFree);
    if (region.length < FEWEST_SURFELS / 1.5) continue;
    for (const kind of SMOOTH_KINDS) {
      const start = startOn(surfels, kind, region);
      const grown = start && scored(scan, surfels, grownOver(surfels, scan.fuzz, start, region, isFree));
      if (grown && (!best || grown.score > best.score)) best = grown;
    }
  }
  return best;
}

/** Of surfaces that explain equally much, the one with fewer numbers. Tried on scans of known objects. */
const WORTH = { plane: 1.08, cylinder: 1.04, sphere: 1, cone: 0.96, hexagon: 1, prism: 1 } as const;

/** How much of the scan a surface explains; corners that it barely reaches count least. */
function scored(scan: ScanSurface, surfels: Surfels, grown: Grown | null): Candidate | null {
  if (!grown || grown.region.length < FEWEST_SURFELS || grown.rms > mostOff(scan)) return null;
  const measure = measureOf(grown.surface);
  const out = new Float64Array(4);
  const most = 0.06 + 3 * scan.fuzz;
  let sum = 0;
  for (const s of grown.region) {
    measure(surfels.points[3 * s]!, surfels.points[3 * s + 1]!, surfels.points[3 * s + 2]!, out);
    sum += Math.max(0, 1 - (out[0]! / most) ** 2);
  }
  return { ...grown, score: sum * WORTH[grown.surface.kind] };
}

/** Every place once, with neighbours in the list far apart on the scan: by the golden ratio, like leaves on a stem. */
function scattered(count: number): Uint32Array {
  let step = Math.max(1, Math.round(count * 0.618034));
  while (divisor(step, count) > 1) step++;
  return Uint32Array.from({ length: count }, (_, i) => (i * step) % count);
}

const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b));
