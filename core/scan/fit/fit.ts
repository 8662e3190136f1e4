import { basisOf, dot, moved, type Point3 } from '../../shape/vector';
import type { ScanSurface } from '../scan-surface';
import { distanceTo, normalAt, type Primitive, type PrimitiveKind } from './primitive';
import { type Refined, refined } from './refine';
import { startFor } from './starts';

/** A surface of a kind where somebody pressed: fitted there, then grown over what belongs to it. Lengths mm. */

export interface Found {
  surface: Primitive;
  /** Standard uncertainty of its size, form error included: diameter, or where a plane lies. */
  u: number;
  /** Over the corners kept. */
  rms: number;
  /** mm² */
  area: number;
  /** How far round it was seen, degrees; 360 for a plane. */
  coverage: number;
  /** Its corners. */
  corners: number[];
}

export interface FitAsked {
  kind: PrimitiveKind;
  near: Point3;
  /** Of the region to start from. */
  radius: number;
}

/** Growing and fitting again settles after a few rounds. */
const ROUNDS = 7;
/** Corners that a fit goes by: more tell nothing more. */
const MOST_POINTS = 3000;
/** A corner belongs where it lies so near, in times of the scatter, and looks the same way within 25°. */
const BELONGS = 3.5;
const LOOKS = Math.cos((25 * Math.PI) / 180);
/** No scan is better than this, mm. */
const LEAST = 0.03;
const FEWEST = 30;

/** @returns null where nothing of that kind is there */
export function fitAt(scan: ScanSurface, { kind, near, radius }: FitAsked): Found | null {
  const seed = scan.nearest(near);
  const at = scan.point(seed);
  const within = (v: number) => {
    const p = scan.point(v);
    return Math.hypot(p[0] - at[0], p[1] - at[1], p[2] - at[2]) <= radius;
  };
  const { fuzz } = scan;
  let corners = scan.grown([seed], within);
  if (corners.length < FEWEST) return null;
  let now = fitted(scan, kind, corners, null, BELONGS * fuzz);
  for (let round = 0; now && round < ROUNDS; round++) {
    const { surface, rms } = now;
    const looks = sideOf(scan, surface, corners);
    const most = Math.max(LEAST, BELONGS * Math.max(rms, fuzz));
    const belongs = (v: number) =>
      Math.abs(distanceTo(surface, scan.point(v))) < most &&
      looks * dot(normalAt(surface, scan.point(v)), scan.normal(v)) > LOOKS;
    const grown = scan.grown(corners.filter(belongs), belongs);
    if (grown.length < FEWEST) return null;
    const settled = Math.abs(grown.length - corners.length) < 0.005 * corners.length;
    corners = grown;
    now = fitted(scan, kind, corners, surface, most);
    if (settled && round > 0) break;
  }
  return now && found(scan, now, corners);
}

function fitted(
  scan: ScanSurface,
  kind: PrimitiveKind,
  corners: readonly number[],
  start: Primitive | null,
  least: number,
): Refined | null {
  const step = Math.max(1, Math.floor(corners.length / MOST_POINTS));
  const some = corners.filter((_, i) => i % step === 0);
  const points = some.map(v => scan.point(v));
  const begins =
    start ??
    startFor(
      kind,
      points,
      some.map(v => scan.normal(v)),
    );
  return begins && refined(begins, points, Math.max(LEAST, least));
}

/** Whether the scan looks outwards of a round surface (1), or into it: a bore (−1). */
function sideOf(scan: ScanSurface, surface: Primitive, corners: readonly number[]): 1 | -1 {
  const step = Math.max(1, Math.floor(corners.length / 200));
  let sum = 0;
  for (let i = 0; i < corners.length; i += step)
    sum += dot(normalAt(surface, scan.point(corners[i]!)), scan.normal(corners[i]!));
  return sum >= 0 ? 1 : -1;
}

function found(scan: ScanSurface, { surface, rms }: Refined, corners: number[]): Found {
  const { u, coverage } = doubtOf(scan, surface, rms, corners);
  return { surface, u, rms, area: scan.areaOf(corners), coverage, corners };
}

/** Sectors round an axis, and along it, over which form is averaged. */
const [SECTORS, LENGTHS] = [12, 3];
const BINS = 72;

/**
 * A fit's own standard error is far too small: warp is no white noise. The surface is parted into blocks, and what they
 * say of the size apart from each other is its doubt.
 */
function doubtOf(scan: ScanSurface, surface: Primitive, rms: number, corners: readonly number[]) {
  const axis = surface.kind === 'plane' ? surface.normal : surface.kind === 'sphere' ? UP : surface.axis;
  const from = surface.kind === 'sphere' ? surface.centre : surface.at;
  const { x, y } = basisOf(axis);
  const along = corners.map(v => dot(moved(scan.point(v), from, -1), axis));
  const [low, high] = along.reduce(([a, b], t) => [Math.min(a, t), Math.max(b, t)], [Infinity, -Infinity]);
  const blocks = new Map<number, { sum: number; count: number }>();
  const seen = new Uint8Array(BINS);
  corners.forEach((v, i) => {
    const off = moved(scan.point(v), from, -1);
    const turn = (Math.atan2(dot(off, y), dot(off, x)) / (2 * Math.PI) + 1) % 1;
    seen[Math.floor(turn * BINS) % BINS] = 1;
    const sector = Math.floor(turn * SECTORS) % SECTORS;
    const length = Math.min(LENGTHS - 1, Math.floor(((along[i]! - low) / (high - low || 1)) * LENGTHS));
    const key = sector * LENGTHS + length;
    const block = blocks.get(key) ?? { sum: 0, count: 0 };
    block.sum += distanceTo(surface, scan.point(v));
    block.count++;
    blocks.set(key, block);
  });
  const means = [...blocks.values()].filter(b => b.count > 4).map(b => b.sum / b.count);
  const form = means.length > 2 ? Math.sqrt(means.reduce((s, m) => s + m * m, 0) / (means.length - 1)) : rms;
  const coverage = surface.kind === 'plane' ? 360 : (360 * seen.reduce((s, b) => s + b, 0)) / BINS;
  // Neighbouring blocks warp alike; what was not seen round it leaves the centre free.
  const apart = Math.max(1, means.length / BLOCKS_ALIKE);
  const open = surface.kind === 'plane' ? 1 : Math.max(1, (FULL / Math.max(coverage, 20)) ** SPREADS);
  const size = surface.kind === 'plane' ? PLANE_SHARE : 2;
  return { u: size * open * Math.hypot(form / Math.sqrt(apart), rms / Math.sqrt(corners.length)), coverage };
}

const UP: Point3 = [0, 0, 1];
/** So many blocks say one thing between them. Measured on warped scans of known size. */
const BLOCKS_ALIKE = 36;
/** How fast the doubt grows with what was not seen, and how much less a plane's place depends on its warp. Measured so. */
const [SPREADS, PLANE_SHARE] = [3.2, 0.3];
/** Seen so far round, a circle is as good as whole, degrees. */
const FULL = 260;
