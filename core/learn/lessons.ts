import { z } from 'zod';

/**
 * What jobs teach of a printer with a plastic: how much tighter than drawn a kind of surface comes out, the part that
 * all surfaces of a kind share. Never a job's own reading errors. Lengths mm.
 */
export const Evidence = z.object({
  jobId: z.string(),
  title: z.string(),
  printerId: z.string().nullable(),
  materialId: z.string().nullable(),
  /** Of surface, as `SurfaceKind`. */
  surface: z.string(),
  /** What this job's tries alone say of it. */
  mean: z.number(),
  sd: z.number().positive(),
  /** Prints that were tried. */
  prints: z.number().int(),
  /** When the last of them was. */
  at: z.string(),
});
export type Evidence = z.infer<typeof Evidence>;

interface Belief {
  mean: number;
  sd: number;
}

/** Less than this the tries told nothing that was not believed before: as precision over the prior's. */
const LEAST_TOLD = 0.02;

/** What tries alone said, out of what was believed before them and after them. Null where they said nothing. */
export function toldBy(before: Belief, after: Belief): Belief | null {
  const [prior, posterior] = [1 / before.sd ** 2, 1 / after.sd ** 2];
  const told = posterior - prior;
  if (!(told > LEAST_TOLD * prior)) return null;
  return { mean: (after.mean * posterior - before.mean * prior) / told, sd: 1 / Math.sqrt(told) };
}

/** Two jobs on one printer with one plastic differ by so much, sd: another day, another spool. Practice. */
const BETWEEN_JOBS = 0.03;
/** And by so much more for each year between, sd: nozzles wear, belts are tightened. Practice. */
const DRIFT_PER_YEAR = 0.08;
const YEAR = 365.25 * 24 * 3600 * 1000;

const ageOf = (at: string, now: string) => Math.max(0, Date.parse(now) - Date.parse(at)) / YEAR;
const spreadOf = ({ sd, at }: Evidence, now: string) =>
  Math.hypot(sd, BETWEEN_JOBS, DRIFT_PER_YEAR * ageOf(at, now));

/**
 * What is believed for the next job: what was believed anyhow, and what other jobs taught, each by its own doubt and
 * age. @param now an ISO date
 */
export function beliefAfter(before: Belief, evidence: readonly Evidence[], now: string): Belief {
  let [precision, sum] = [1 / before.sd ** 2, before.mean / before.sd ** 2];
  for (const e of evidence) {
    const told = 1 / spreadOf(e, now) ** 2;
    precision += told;
    sum += told * e.mean;
  }
  const mean = sum / precision;
  // The next job is another one too.
  return { mean, sd: Math.min(before.sd, Math.hypot(1 / Math.sqrt(precision), BETWEEN_JOBS)) };
}

/** Jobs of one printer, plastic and kind of surface since which something has changed. */
export interface Drift {
  /** The first job after it. */
  since: string;
  /** How much tighter they come out since, mm. */
  by: number;
}

/** So many sd apart, and so many mm: else it is chance, or nothing that a hand would notice. */
const DRIFT_SD = 2.5;
const LEAST_DRIFT = 0.05;
const LEAST_JOBS = 2;

/** Where the jobs before a day and those since differ by more than chance; null where they do not. */
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

/** Their mean; as doubtful as they say, or as they differ, whichever is more. */
function meanOf(evidence: readonly Evidence[]): Belief {
  const told = evidence.map(e => 1 / Math.hypot(e.sd, BETWEEN_JOBS) ** 2);
  const total = told.reduce((sum, t) => sum + t, 0);
  const mean = evidence.reduce((sum, e, i) => sum + told[i]! * e.mean, 0) / total;
  const scatter = evidence.reduce((sum, e) => sum + (e.mean - mean) ** 2, 0) / (evidence.length - 1);
  return { mean, sd: Math.sqrt(Math.max(1 / total, scatter / evidence.length)) };
}

/** What the maker does not want to go by any more, and why; all of it, or what is older than a day. */
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

/** What of it counts: not muted, and of this group. */
export const countingOf = (
  evidence: readonly Evidence[],
  muted: readonly Muted[],
  group: Pick<Evidence, 'printerId' | 'materialId' | 'surface'>,
): Evidence[] =>
  evidence.filter(
    e =>
      sameGroup(e, group) && !muted.some(m => sameGroup(m, group) && (m.before === null || e.at < m.before)),
  );
