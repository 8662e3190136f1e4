import type { Print, Try, TryMate, Version } from '../job/history';
import type { Verdict } from '../learn/verdict';

/** What a print came to: the last word on each of its surfaces. */
export interface Outcome {
  /** By mate. */
  said: Readonly<Record<string, TryMate>>;
  /** Surfaces of the version that nobody judged yet. */
  unjudged: Version['mates'];
  /** Whether each of its surfaces sits right, and nothing about its effort was wrong: nothing is left to mend. */
  right: boolean;
}

/**
 * What was said of a print; null while it was not tried. Two tries of one print are one print: the later word on a
 * surface counts.
 */
export function outcomeOf(print: Print, version: Version, tries: readonly Try[]): Outcome | null {
  const own = tries.filter(t => t.printId === print.id);
  if (own.length === 0) return null;
  const said: Record<string, TryMate> = {};
  for (const row of own)
    for (const [id, mate] of Object.entries(row.mates)) said[id] = { ...said[id], ...mate };
  const unjudged = version.mates.filter(m => !said[m.mateId]?.verdict);
  const right = version.mates.length > 0 && version.mates.every(m => sitsRight(said[m.mateId]));
  return { said, unjudged, right };
}

const sitsRight = (mate: TryMate | undefined): boolean =>
  mate?.verdict === 'right' && Object.values(mate.effort ?? {}).every(effort => effort === 'good');

/** What was judged sits right, and the rest may still be wrong: it waits. What does not sit is mended first. */
export const restWaits = (outcome: Outcome): boolean =>
  outcome.unjudged.length > 0 && verdictsOf(outcome).every(v => v === 'right');

/** Every verdict that counts of a print. */
export const verdictsOf = ({ said }: Pick<Outcome, 'said'>): Verdict[] =>
  Object.values(said).flatMap(m => (m.verdict ? [m.verdict] : []));
