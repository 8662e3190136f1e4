import { basisOf, dot, moved, type Point3 } from '../../shape/vector';
import type { ScanSurface } from '../scan-surface';
import type { Surfels } from '../surfels';
import { type Grown, grownOver, LOOKS, lookAt, reach, regionAbout, startOn } from './grow';
import { measureOf, type Primitive, type SmoothKind } from './primitive';
import { type Refined, refined } from './refine';

/** A surface of a given kind at a pressed place: fitted there, then grown over what belongs to it. Lengths mm. */

export interface Found {
  surface: Primitive;
  /** Standard uncertainty of its size, form error included: its diameter, or a plane's position. */
  u: number;
  /** Over the corners kept. */
  rms: number;
  /** How far its blocks are off it, rms: warp, with the scatter averaged away. */
  form: number;
  /** mm² */
  area: number;
  /** How far round it was seen, degrees; 360 for a plane. */
  coverage: number;
  /** Its corners. */
  corners: number[];
}

export interface FitAsked {
  kind: SmoothKind;
  near: Point3;
  /** Radius of the region to start from. */
  radius: number;
}

/** The most corners that a fit uses: more add nothing. */
const MOST_POINTS = 3000;
const FEWEST = 30;
/** The pressed region is about this many cells across. */
const CELLS = 5;

/** @returns null where nothing of that kind is there */
export function fitAt(scan: ScanSurface, { kind, near, radius }: FitAsked): Found | null {
  const surfels = scan.surfels(radius / CELLS);
  const seed = surfels.of[scan.nearest(near)]!;
  const region = regionAbout(surfels, seed, radius);
  const start = region.length * 4 >= FEWEST ? startOn(surfels, kind, region) : null;
  const grown = start && grownOver(surfels, scan.fuzz, start, region);
  return grown && settled(scan, surfels, grown);
}

/** A region's surface from all corners that belong to it. @returns null where there are too few */
export function settled(scan: ScanSurface, surfels: Surfels, grown: Grown): Found | null {
  const among = new Uint8Array(surfels.count);
  for (const s of grown.region) {
    among[s] = 1;
    for (const o of surfels.around(s)) among[o] ||= looksLike(surfels, o, grown) ? 1 : 0;
  }
  let now: Refined | null = grown;
  let corners: number[] = [];
  for (let round = 0; now && round < 2; round++) {
    corners = cornersOn(scan, surfels, among, now);
    if (corners.length < FEWEST) return null;
    const step = Math.max(1, corners.length / MOST_POINTS);
    const some = Array.from({ length: Math.floor(corners.length / step) }, (_, i) =>
      scan.point(corners[Math.floor(i * step)]!),
    );
    now = refined(now.surface, some, reach(now.rms, scan.fuzz));
  }
  return now && found(scan, now, corners);
}

function looksLike(surfels: Surfels, s: number, { surface, looks }: Grown): boolean {
  const out = new Float64Array(4);
  measureOf(surface)(...surfels.point(s), out);
  return looks * lookAt(surfels, s, out) > LOOKS;
}

function cornersOn(
  scan: ScanSurface,
  surfels: Surfels,
  among: Uint8Array,
  { surface, rms }: Refined,
): number[] {
  const { positions: p } = scan.mesh;
  const measure = measureOf(surface);
  const out = new Float64Array(4);
  const most = reach(rms, scan.fuzz);
  const corners: number[] = [];
  for (let v = 0; v < scan.corners; v++) {
    if (!among[surfels.of[v]!]) continue;
    measure(p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!, out);
    if (Math.abs(out[0]!) < most) corners.push(v);
  }
  return corners;
}

function found(scan: ScanSurface, { surface, rms }: Refined, corners: number[]): Found {
  const { u, form, coverage } = doubtOf(scan, surface, rms, corners);
  return { surface, u, rms, form, area: scan.areaOf(corners), coverage, corners };
}

/** Sectors round an axis, and along it, over which form is averaged. */
const [SECTORS, LENGTHS] = [12, 3];
const [FEWEST_BINS, BINS] = [18, 72];

/**
 * A fit's own standard error is far too small, since warp is not white noise. The surface is divided into blocks, and
 * the spread of the sizes that they give is its uncertainty.
 */
function doubtOf(scan: ScanSurface, surface: Primitive, rms: number, corners: readonly number[]) {
  const axis = surface.kind === 'plane' ? surface.normal : surface.kind === 'sphere' ? UP : surface.axis;
  const from = surface.kind === 'sphere' ? surface.centre : surface.at;
  const { x, y } = basisOf(axis);
  const along = corners.map(v => dot(moved(scan.point(v), from, -1), axis));
  const [low, high] = along.reduce(([a, b], t) => [Math.min(a, t), Math.max(b, t)], [Infinity, -Infinity]);
  const blocks = new Map<number, { sum: number; count: number }>();
  // With few corners, bins that were seen may be empty.
  const bins = Math.max(FEWEST_BINS, Math.min(BINS, Math.floor(corners.length / 8)));
  const seen = new Uint8Array(bins);
  const measure = measureOf(surface);
  const out = new Float64Array(4);
  corners.forEach((v, i) => {
    const off = moved(scan.point(v), from, -1);
    const turn = (Math.atan2(dot(off, y), dot(off, x)) / (2 * Math.PI) + 1) % 1;
    seen[Math.floor(turn * bins) % bins] = 1;
    const sector = Math.floor(turn * SECTORS) % SECTORS;
    const length = Math.min(LENGTHS - 1, Math.floor(((along[i]! - low) / (high - low || 1)) * LENGTHS));
    const key = sector * LENGTHS + length;
    const block = blocks.get(key) ?? { sum: 0, count: 0 };
    const [px, py, pz] = scan.point(v);
    measure(px, py, pz, out);
    block.sum += out[0]!;
    block.count++;
    blocks.set(key, block);
  });
  const means = [...blocks.values()].filter(b => b.count > 4).map(b => b.sum / b.count);
  const form = means.length > 2 ? Math.sqrt(means.reduce((s, m) => s + m * m, 0) / (means.length - 1)) : rms;
  const coverage = surface.kind === 'plane' ? 360 : (360 * seen.reduce((s, b) => s + b, 0)) / bins;
  // Neighbouring blocks warp alike; the unseen part of a circle leaves its centre free.
  const apart = Math.max(1, means.length / BLOCKS_ALIKE);
  const open = surface.kind === 'plane' ? 1 : Math.max(1, (FULL / Math.max(coverage, 20)) ** SPREADS);
  const size = surface.kind === 'plane' ? PLANE_SHARE : 2;
  const own = size * open * Math.hypot(form / Math.sqrt(apart), rms / Math.sqrt(corners.length));
  const across = 'radius' in surface ? 2 * surface.radius : 0;
  return { u: Math.hypot(own, strainDoubt(scan, form, across)), form, coverage };
}

/**
 * A scan that warps here by this much is stretched elsewhere by as much: the share of that in a size between two
 * places, mm.
 */
export const strainDoubt = (scan: ScanSurface, form: number, size: number): number =>
  STRAIN * form * Math.min(1, size / scan.size);
/** Tried on scans whose views drifted. */
const STRAIN = 2.5;

const UP: Point3 = [0, 0, 1];
/** This many blocks count as one independent value. Measured on warped scans of known size. */
const BLOCKS_ALIKE = 36;
/** How fast the doubt grows with what was not seen, and how much less a plane's place depends on its warp. Measured so. */
const [SPREADS, PLANE_SHARE] = [3.2, 0.3];
/** Seen this far round, a circle is as good as whole, degrees. */
const FULL = 260;
