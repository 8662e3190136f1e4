import { cross, dot, lengthOfVector, moved, type Point3, scaled } from '../../shape/vector';
import { type Found, strainDoubt } from '../fit/fit';
import type { ScanSurface } from '../scan-surface';

/** Features made of several surfaces: slots, hole patterns, plates. Lengths mm. */

export interface Slot {
  kind: 'slot';
  ends: [Found, Found];
  width: number;
  /** From round end to round end. */
  length: number;
  axis: Point3;
  centre: Point3;
  /** Of its width, standard. */
  u: number;
}

export type Pattern = {
  holes: Found[];
  /** Standard uncertainty of the pitch. */
  u: number;
  axis: Point3;
} & ({ kind: 'pitch-circle'; diameter: number; centre: Point3 } | { kind: 'grid'; pitch: number[] });

/** Two flats with only material, or only air, between them. */
export interface Across {
  kind: 'across';
  faces: [Found, Found];
  /** Material between: a plate; air: a channel. */
  isMaterial: boolean;
  size: number;
  u: number;
}

/** Degrees apart that are still parallel. */
const PARALLEL = Math.cos((1.5 * Math.PI) / 180);
const isAlong = (a: Point3, b: Point3) => Math.abs(dot(a, b)) > PARALLEL;

interface Round {
  found: Found;
  axis: Point3;
  at: Point3;
  radius: number;
  isHole: boolean;
}

function roundsOf(scan: ScanSurface, found: readonly Found[]): Round[] {
  return found.flatMap((f): Round[] =>
    f.surface.kind === 'cylinder'
      ? [
          {
            found: f,
            axis: f.surface.axis,
            at: f.surface.at,
            radius: f.surface.radius,
            isHole: isSeenFromInside(scan, f),
          },
        ]
      : [],
  );
}

/** A bore: the scan faces its axis. */
export function isSeenFromInside(scan: ScanSurface, { surface, corners }: Found): boolean {
  if (surface.kind === 'plane') return false;
  const from = surface.kind === 'sphere' ? surface.centre : surface.at;
  const axis: Point3 = surface.kind === 'sphere' ? [0, 0, 0] : surface.axis;
  let sum = 0;
  const step = Math.max(1, Math.floor(corners.length / 300));
  for (let i = 0; i < corners.length; i += step) {
    const off = moved(scan.point(corners[i]!), from, -1);
    sum += dot(moved(off, axis, -dot(off, axis)), scan.normal(corners[i]!));
  }
  return sum < 0;
}

const beside = (a: Round, b: Round): Point3 => {
  const off = moved(b.at, a.at, -1);
  return moved(off, a.axis, -dot(off, a.axis));
};

const sameSize = (a: Round, b: Round) =>
  Math.abs(a.radius - b.radius) < Math.max(0.15, 0.04 * a.radius, 2 * (a.found.u + b.found.u)) &&
  isAlong(a.axis, b.axis) &&
  a.isHole === b.isHole;

export function slotsOf(scan: ScanSurface, found: readonly Found[]): Slot[] {
  const half = roundsOf(scan, found).filter(r => r.found.coverage > 120 && r.found.coverage < 245);
  const slots: Slot[] = [];
  const taken = new Set<Round>();
  for (const a of half)
    for (const b of half) {
      if (a === b || taken.has(a) || taken.has(b) || !sameSize(a, b)) continue;
      const off = beside(a, b);
      const long = lengthOfVector(off);
      const deep = Math.abs(dot(moved(b.at, a.at, -1), a.axis));
      if (long < 0.5 || deep > 2 * a.radius + 2 || !isFacedApart(scan, a, b, scaled(off, 1 / long))) continue;
      taken.add(a).add(b);
      const [wa, wb] = [a.found.u ** -2, b.found.u ** -2];
      const width = (2 * (a.radius * wa + b.radius * wb)) / (wa + wb);
      slots.push({
        kind: 'slot',
        ends: [a.found, b.found],
        width,
        length: long + width,
        axis: a.axis,
        centre: moved(a.at, off, 0.5),
        u: (wa + wb) ** -0.5,
      });
    }
  return slots;
}

/** Round ends of one slot lie away from each other. */
function isFacedApart(scan: ScanSurface, a: Round, b: Round, way: Point3): boolean {
  const lean = (r: Round) => {
    const { corners } = r.found;
    return corners.reduce((sum, v) => sum + dot(moved(scan.point(v), r.at, -1), way), 0) / corners.length;
  };
  return lean(a) < -0.3 * a.radius && lean(b) > 0.3 * b.radius;
}

/** Holes of one size with parallel axes: on a circle, evenly, or in rows and columns. */
export function patternsOf(scan: ScanSurface, found: readonly Found[]): Pattern[] {
  const rounds: Round[] = [];
  const seen = roundsOf(scan, found).filter(r => r.found.coverage >= 180);
  for (const r of seen.sort((a, b) => b.found.area - a.found.area))
    if (!rounds.some(k => isSamePlace(k, r))) rounds.push(r);
  const left = new Set(rounds);
  const patterns: Pattern[] = [];
  for (const first of rounds) {
    if (!left.has(first)) continue;
    const alike = rounds.filter(r => left.has(r) && sameSize(first, r));
    for (const r of alike) left.delete(r);
    if (alike.length < 2) continue;
    const offs = alike.map(r => beside(first, r));
    const pattern = inGrid(alike, offs) ?? onCircle(alike, offs);
    if (!pattern) continue;
    const far = pattern.kind === 'grid' ? Math.max(...pattern.pitch) : pattern.diameter;
    const form = Math.max(...alike.map(r => r.found.form));
    patterns.push({ ...pattern, u: Math.hypot(pattern.u, strainDoubt(scan, form, far)) });
  }
  return patterns;
}

/** Two pieces of one hole. */
const isSamePlace = (a: Round, b: Round) =>
  isAlong(a.axis, b.axis) && lengthOfVector(beside(a, b)) < OUT_OF_PLACE + 0.1 * a.radius;

/** How far a hole may be from its place, mm. */
const OUT_OF_PLACE = 0.4;

function centreDoubt(holes: readonly Round[]): number {
  // A circle's centre is half as uncertain as its diameter; two of them make a pitch.
  return Math.sqrt((2 * holes.reduce((sum, h) => sum + (h.found.u / 2) ** 2, 0)) / holes.length);
}

function onCircle(holes: readonly Round[], offs: readonly Point3[]): Pattern | null {
  if (holes.length < 3) return null;
  const n = holes.length;
  const centre = scaled(
    offs.reduce((sum, o) => moved(sum, o), [0, 0, 0] as Point3),
    1 / n,
  );
  const far = offs.map(o => lengthOfVector(moved(o, centre, -1)));
  const radius = far.reduce((s, r) => s + r, 0) / n;
  if (far.some(r => Math.abs(r - radius) > OUT_OF_PLACE)) return null;
  const u = (2 * centreDoubt(holes)) / Math.sqrt(2 * n);
  const found = holes.map(h => h.found);
  const { axis } = holes[0]!;
  return {
    kind: 'pitch-circle',
    holes: found,
    diameter: 2 * radius,
    centre: moved(holes[0]!.at, centre),
    u,
    axis,
  };
}

function inGrid(holes: readonly Round[], offs: readonly Point3[]): Pattern | null {
  const found = holes.map(h => h.found);
  const { axis } = holes[0]!;
  const u = centreDoubt(holes);
  const byFar = offs.slice(1).sort((a, b) => lengthOfVector(a) - lengthOfVector(b));
  if (holes.length === 2) return { kind: 'grid', holes: found, pitch: [lengthOfVector(byFar[0]!)], u, axis };
  for (const along of byFar) {
    const x = scaled(along, 1 / lengthOfVector(along));
    const y = cross(axis, x);
    const [us, vs] = [offs.map(o => dot(o, x)), offs.map(o => dot(o, y))];
    const [p, q] = [pitchOf(us), pitchOf(vs)];
    if (p === null || q === null) continue;
    const [columns, rows] = [p.steps + 1, q.steps + 1];
    if (columns * rows !== holes.length) continue;
    const pitch = [p, q].filter(s => s.steps > 0).map(s => s.pitch);
    return { kind: 'grid', holes: found, pitch, u: u / Math.sqrt(holes.length / 2), axis };
  }
  return null;
}

/** One spacing of which all places are multiples. */
function pitchOf(places: readonly number[]): { pitch: number; steps: number } | null {
  const sorted = [...places].sort((a, b) => a - b);
  const groups: number[][] = [];
  for (const x of sorted) {
    const last = groups.at(-1);
    if (last && x - last.at(-1)! < OUT_OF_PLACE) last.push(x);
    else groups.push([x]);
  }
  const means = groups.map(g => g.reduce((s, x) => s + x, 0) / g.length);
  const steps = means.length - 1;
  if (steps === 0) return { pitch: 0, steps };
  const pitch = (means[steps]! - means[0]!) / steps;
  const isEven = means.every((m, i) => Math.abs(m - means[0]! - i * pitch) < OUT_OF_PLACE);
  return isEven ? { pitch, steps } : null;
}

/** Parallel flats that face away from each other, or towards each other, and overlap: the nearest of each. */
export function acrossOf(scan: ScanSurface, found: readonly Found[]): Across[] {
  const flats = found.flatMap(f =>
    f.surface.kind === 'plane' ? [{ f, normal: f.surface.normal, box: spread(scan, f) }] : [],
  );
  const all: Across[] = [];
  flats.forEach((a, i) => {
    for (const b of flats.slice(i + 1)) {
      if (dot(a.normal, b.normal) > -PARALLEL) continue;
      const size = dot(moved(a.box.middle, b.box.middle, -1), a.normal);
      const off = moved(a.box.middle, b.box.middle, -1);
      const shift = lengthOfVector(moved(off, a.normal, -size));
      if (Math.abs(size) < 0.3 || shift > 0.6 * Math.max(a.box.reach, b.box.reach)) continue;
      const u = Math.hypot(a.f.u, b.f.u, strainDoubt(scan, Math.max(a.f.form, b.f.form), Math.abs(size)));
      all.push({ kind: 'across', faces: [a.f, b.f], isMaterial: size > 0, size: Math.abs(size), u });
    }
  });
  return all.sort((a, b) => Math.min(...b.faces.map(f => f.area)) - Math.min(...a.faces.map(f => f.area)));
}

function spread(scan: ScanSurface, { corners }: Found): { middle: Point3; reach: number } {
  const sum: [number, number, number] = [0, 0, 0];
  for (const v of corners) for (let i = 0; i < 3; i++) sum[i]! += scan.point(v)[i]!;
  const middle = scaled(sum, 1 / corners.length);
  const reach = corners.reduce(
    (most, v) => Math.max(most, lengthOfVector(moved(scan.point(v), middle, -1))),
    0,
  );
  return { middle, reach };
}
