import { z } from 'zod';

/**
 * What jobs teach about a printer with a plastic: how much tighter than drawn a kind of surface comes out, as far as
 * all surfaces of the kind share it. A job's own reading errors are never part of it. Lengths mm.
 */
export const Evidence = z.object({
  jobId: z.string(),
  title: z.string(),
  printerId: z.string().nullable(),
  materialId: z.string().nullable(),
  /** The kind of surface, as in `SurfaceKind`. */
  surface: z.string(),
  /** What this job's tries alone say about it. */
  mean: z.number(),
  sd: z.number().positive(),
  /** How many prints were tried. */
  prints: z.number().int(),
  /** The date of the last of them. */
  at: z.string(),
});
export type Evidence = z.infer<typeof Evidence>;

interface Belief {
  mean: number;
  sd: number;
}

/** With less than this the tries added nothing to the belief: their precision relative to the prior's. */
const LEAST_TOLD = 0.02;

/** What the tries alone said, from the beliefs before and after them. Null where they said nothing. */
export function toldBy(before: Belief, after: Belief): Belief | null {
  const [prior, posterior] = [1 / before.sd ** 2, 1 / after.sd ** 2];
  const told = posterior - prior;
  if (!(told > LEAST_TOLD * prior)) return null;
  return { mean: (after.mean * posterior - before.mean * prior) / told, sd: 1 / Math.sqrt(told) };
}

/** How far two jobs on one printer with one plastic differ, sd: another day, another spool. Practice. */
const BETWEEN_JOBS = 0.03;
/** And how much more per year between them, sd: nozzles wear, belts are tightened. Practice. */
const DRIFT_PER_YEAR = 0.08;
const YEAR = 365.25 * 24 * 3600 * 1000;

const ageOf = (at: string, now: string) => Math.max(0, Date.parse(now) - Date.parse(at)) / YEAR;
const spreadOf = ({ sd, at }: Evidence, now: string) =>
  Math.hypot(sd, BETWEEN_JOBS, DRIFT_PER_YEAR * ageOf(at, now));

/**
 * The belief for the next job: the general belief, and what other jobs taught, each by its own uncertainty and age.
 * @param now an ISO date
 */
export function beliefAfter(before: Belief, evidence: readonly Evidence[], now: string): Belief {
  let [precision, sum] = [1 / before.sd ** 2, before.mean / before.sd ** 2];
  for (const e of evidence) {
    const told = 1 / spreadOf(e, now) ** 2;
    precision += told;
    sum += told * e.mean;
  }
  const mean = sum / precision;
  // The next job differs too.
  return { mean, sd: Math.min(before.sd, Math.hypot(1 / Math.sqrt(precision), BETWEEN_JOBS)) };
}

/** Jobs of one printer, plastic and kind of surface with a lasting change among them. */
export interface Drift {
  /** The first job after the change. */
  since: string;
  /** How much tighter they come out since then, mm. */
  by: number;
}

/** A change counts from this many sd and this many mm: otherwise it is chance, or too small to notice. */
const DRIFT_SD = 2.5;
const LEAST_DRIFT = 0.05;
const LEAST_JOBS = 2;

/** Where the jobs before and since a day differ by more than chance; null where they do not. */
export function driftIn(evidence: readonly Evidence[]): Drift | null {
  const all = [...evidence].sort((a, b) => (a.at < b.at ? -1 : 1));
  let best: (Drift & { sds: number }) | null = null;
  for (let i = LEAST_JOBS; i <= all.length - LEAST_JOBS; i++) {
    const [old, young] = [meanOf(all.slice(0, i)), meanOf(all.slice(i))];
    const by = young.mean - old.mean;
    const sds = Math.abs(by) / Math.hypot(old.sd, young.sd);
    if (Math.abs(by) < LEAST_DRIFT || sds < DRIFT_SD || sds < (best?.sds ?? 0)) continue;
    best = { since: all[i]!.at, by, sds };
  }
  return best && { since: best.since, by: best.by };
}

/** Their mean, with the larger of their stated uncertainty and their actual spread. */
function meanOf(evidence: readonly Evidence[]): Belief {
  const told = evidence.map(e => 1 / Math.hypot(e.sd, BETWEEN_JOBS) ** 2);
  const total = told.reduce((sum, t) => sum + t, 0);
  const mean = evidence.reduce((sum, e, i) => sum + told[i]! * e.mean, 0) / total;
  const scatter = evidence.reduce((sum, e) => sum + (e.mean - mean) ** 2, 0) / (evidence.length - 1);
  return { mean, sd: Math.sqrt(Math.max(1 / total, scatter / evidence.length)) };
}

/** What the maker has left out, and why: all of it, or what is older than a day. */
export const Muted = z.object({
  printerId: z.string().nullable(),
  materialId: z.string().nullable(),
  surface: z.string(),
  before: z.iso.datetime().nullable(),
  reason: z.string().trim().min(1, 'Say why.').max(300, 'At most 300 characters.'),
});
export type Muted = z.infer<typeof Muted>;

const sameGroup = (
  a: Pick<Evidence, 'printerId' | 'materialId' | 'surface'>,
  b: Pick<Evidence, 'printerId' | 'materialId' | 'surface'>,
) => a.printerId === b.printerId && a.materialId === b.materialId && a.surface === b.surface;

/** The lessons that count: of this group and not left out. */
export const countingOf = (
  evidence: readonly Evidence[],
  muted: readonly Muted[],
  group: Pick<Evidence, 'printerId' | 'materialId' | 'surface'>,
): Evidence[] =>
  evidence.filter(
    e =>
      sameGroup(e, group) && !muted.some(m => sameGroup(m, group) && (m.before === null || e.at < m.before)),
  );
