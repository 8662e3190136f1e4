import type { Point3 } from '../../shape/vector';
import type { Surfels } from '../surfels';
import { measureOf, type Primitive, type SmoothKind } from './primitive';
import { type Refined, refined } from './refine';
import { startFor } from './starts';

/**
 * A surface grown over everything connected that belongs to it, and fitted again, until nothing more is added. Lengths
 * mm.
 */

export interface Grown extends Refined {
  /** Its surfels. */
  region: number[];
  /** Whether the scan faces outwards from a round surface (1) or inwards: a bore (−1). */
  looks: 1 | -1;
}

/** Growing and fitting settles after a few rounds. */
const ROUNDS = 7;
/** A corner belongs to it when it is this near, in multiples of the scatter, and its normal agrees within 25°. */
const BELONGS = 3.5;
export const LOOKS = Math.cos((25 * Math.PI) / 180);
/** No scan is better than this, mm. */
const LEAST = 0.03;
/** A scan that is farther off than this plus its scatter has another shape. */
const WARPED = 0.05;
const FEWEST = 8;
/** Surfels that an intermediate fit uses, and the steps that it takes. */
const [MOST, STEPS] = [160, 4];

/** How far off a surface its corners may be, mm. */
export const reach = (rms: number, fuzz: number): number =>
  Math.max(LEAST, BELONGS * Math.max(Math.min(rms, WARPED + 1.3 * fuzz), fuzz));

/** @param out written by the surface's measure @returns cosine between the normals of a surfel and of the surface */
export const lookAt = ({ normals: n }: Surfels, s: number, out: Float64Array): number =>
  out[1]! * n[3 * s]! + out[2]! * n[3 * s + 1]! + out[3]! * n[3 * s + 2]!;

const normalOf = ({ normals: n }: Surfels, s: number): Point3 => [n[3 * s]!, n[3 * s + 1]!, n[3 * s + 2]!];

/** Everything connected with one surfel that is accepted. */
export function linked(surfels: Surfels, from: readonly number[], takes: (s: number) => boolean): number[] {
  const seen = new Uint8Array(surfels.count);
  const found: number[] = [];
  for (const s of from) {
    if (seen[s] || !takes(s)) continue;
    seen[s] = 1;
    found.push(s);
  }
  for (let i = 0; i < found.length; i++)
    for (const o of surfels.around(found[i]!)) {
      if (seen[o]) continue;
      seen[o] = 1;
      if (takes(o)) found.push(o);
    }
  return found;
}

/** Everything within `radius` of a surfel that is connected with it without a sharp edge in between. */
export function regionAbout(
  surfels: Surfels,
  seed: number,
  radius: number,
  isFree: (s: number) => boolean = () => true,
): number[] {
  const { points: p, normals: n } = surfels;
  const seen = new Uint8Array(surfels.count);
  seen[seed] = 1;
  const found = [seed];
  for (let i = 0; i < found.length; i++) {
    const s = found[i]!;
    for (const o of surfels.around(s)) {
      if (seen[o] || !isFree(o)) continue;
      const far = Math.hypot(
        p[3 * o]! - p[3 * seed]!,
        p[3 * o + 1]! - p[3 * seed + 1]!,
        p[3 * o + 2]! - p[3 * seed + 2]!,
      );
      const turns = n[3 * o]! * n[3 * s]! + n[3 * o + 1]! * n[3 * s + 1]! + n[3 * o + 2]! * n[3 * s + 2]!;
      if (far > radius || turns < SMOOTH) continue;
      seen[o] = 1;
      found.push(o);
    }
  }
  return found;
}

/** Between neighbours, a larger turn is an edge. */
const SMOOTH = Math.cos((35 * Math.PI) / 180);

export function startOn(surfels: Surfels, kind: SmoothKind, region: readonly number[]): Primitive | null {
  const some = sampled(region);
  return startFor(
    kind,
    some.map(s => surfels.point(s)),
    some.map(s => normalOf(surfels, s)),
  );
}

/** @returns null where the surface loses the region it started from */
export function grownOver(
  surfels: Surfels,
  fuzz: number,
  start: Primitive,
  begin: readonly number[],
  isFree: (s: number) => boolean = () => true,
): Grown | null {
  const first = fittedTo(surfels, start, begin, reach(0, fuzz));
  if (!first) return null;
  let now: Refined = first;
  let region: readonly number[] = begin;
  let looks: 1 | -1 = 1;
  const { points: p } = surfels;
  const out = new Float64Array(4);
  for (let round = 0; round < ROUNDS; round++) {
    const measure = measureOf(now.surface);
    const most = reach(now.rms, fuzz);
    looks = sideOf(surfels, now.surface, region);
    const belongs = (s: number): boolean => {
      if (!isFree(s)) return false;
      measure(p[3 * s]!, p[3 * s + 1]!, p[3 * s + 2]!, out);
      return Math.abs(out[0]!) < most && looks * lookAt(surfels, s, out) > LOOKS;
    };
    const grown = linked(surfels, region, belongs);
    if (grown.length < FEWEST || grown.length < 0.4 * begin.length) return null;
    const isStill = Math.abs(grown.length - region.length) < 0.01 * region.length;
    region = grown;
    const next = fittedTo(surfels, now.surface, region, most);
    if (!next) return null;
    now = next;
    if (isStill && round > 0) break;
  }
  return { ...now, region: [...region], looks };
}

function fittedTo(
  surfels: Surfels,
  start: Primitive,
  region: readonly number[],
  least: number,
): Refined | null {
  return refined(
    start,
    sampled(region).map(s => surfels.point(s)),
    least,
    STEPS,
  );
}

function sampled(region: readonly number[]): readonly number[] {
  if (region.length <= MOST) return region;
  const step = region.length / MOST;
  return Array.from({ length: MOST }, (_, i) => region[Math.floor(i * step)]!);
}

function sideOf(surfels: Surfels, surface: Primitive, region: readonly number[]): 1 | -1 {
  const measure = measureOf(surface);
  const out = new Float64Array(4);
  let sum = 0;
  for (const s of sampled(region)) {
    measure(surfels.points[3 * s]!, surfels.points[3 * s + 1]!, surfels.points[3 * s + 2]!, out);
    sum += lookAt(surfels, s, out);
  }
  return sum >= 0 ? 1 : -1;
}
