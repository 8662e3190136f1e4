import type { History, Print, Try, TryMate, Version } from '../job/history';
import { MARK_OF, type VerdictMark } from '../learn/verdict';

/** The outcome of a print: the last verdict on each of its surfaces. */
export interface Outcome {
  /** By mate. */
  said: Readonly<Record<string, TryMate>>;
  /** Surfaces of the version that nobody judged yet. */
  unjudged: (Version['mates'] | Version['signed'])[number][];
  /** Whether every surface sits right and its effort is right: nothing is left to change. */
  right: boolean;
  /** It missed, but handwork put it right and nothing else is left to change: this piece may be used. */
  saved: boolean;
  /** For every surface that was judged. */
  marks: VerdictMark[];
  /** What else happened, at any of its tries. */
  happened: Try['happened'];
}

/** A version as one of its prints shows it: a slice carries some of its mates and says nothing about the others. */
export const carriedBy = ({ slice }: Pick<Print, 'slice'>, version: Version): Version =>
  slice === null
    ? version
    : { ...version, mates: version.mates.filter(m => slice.includes(m.mateId)), signed: [] };

/**
 * The verdicts on a print; null while it was not tried. Two tries of one print count as one: the later verdict on a
 * surface counts.
 */
export function outcomeOf(
  print: Print,
  made: Version,
  { tries, reworks }: Pick<History, 'tries' | 'reworks'>,
): Outcome | null {
  const version = carriedBy(print, made);
  const own = tries.filter(t => t.printId === print.id);
  if (own.length === 0) return null;
  const said: Record<string, TryMate> = {};
  for (const row of own)
    for (const [id, mate] of Object.entries(row.mates)) said[id] = together(said[id], mate);
  // What was tried on a gauge must still be tried on the object.
  const unjudged = [
    ...version.mates.filter(m => !said[m.mateId]?.verdict || said[m.mateId]?.gauge),
    ...version.signed.filter(m => !said[m.mateId]?.off),
  ];
  const happened = own.flatMap(t => t.happened);
  const mended = new Set(
    reworks.filter(r => r.printId === print.id && r.after === 'right').map(r => r.mateId),
  );
  const sits = (orMended: boolean) =>
    // A right slice leaves nothing to change, but the whole part is still to be printed.
    print.slice === null &&
    happened.length === 0 &&
    version.mates.length + version.signed.length > 0 &&
    version.mates.every(m => sitsRight(said[m.mateId]) || (orMended && mended.has(m.mateId))) &&
    version.signed.every(m => isWithin(said[m.mateId], m.tolerance));
  const right = sits(false);
  return { said, unjudged, right, saved: !right && sits(true), marks: marksOf(said, version), happened };
}

/** The later verdict counts; a verdict on the object replaces one on a gauge. */
function together(before: TryMate | undefined, { ...later }: TryMate): TryMate {
  const { gauge, ...rest } = before ?? {};
  return later.verdict ? { ...rest, ...later } : { ...rest, ...(gauge ? { gauge } : {}), ...later };
}

const isWithin = (mate: TryMate | undefined, { min, max }: Version['signed'][number]['tolerance']): boolean =>
  mate?.off !== undefined && mate.off.value >= min && mate.off.value <= max;

/** The mark of each judged surface at a glance; too much counts like too tight. */
function marksOf(said: Outcome['said'], version: Version): VerdictMark[] {
  const felt = Object.values(said).flatMap(m => (m.verdict ? [MARK_OF[m.verdict]] : []));
  const seen = version.signed.flatMap(({ mateId, tolerance }): VerdictMark[] => {
    const off = said[mateId]?.off;
    if (!off) return [];
    return [isWithin(said[mateId], tolerance) ? 'right' : off.value > tolerance.max ? 'tight' : 'loose'];
  });
  return [...felt, ...seen];
}

const sitsRight = (mate: TryMate | undefined): boolean =>
  mate?.verdict === 'right' &&
  !mate.gauge &&
  Object.values(mate.effort ?? {}).every(effort => effort === 'good');

/** A print that came out, with its version and its verdicts; null while it was not tried. */
export interface CountedPrint {
  print: Print;
  version: Version;
  outcome: Outcome | null;
}

/** Prints that came out and count, the oldest first: each of them can be judged, and judged again. */
export const countedPrints = ({ versions, prints, ...said }: History): CountedPrint[] =>
  prints.flatMap(print => {
    const made = versions.find(v => v.id === print.versionId);
    if (!made || print.failed !== null) return [];
    const version = carriedBy(print, made);
    return [{ print, version, outcome: outcomeOf(print, version, said) }];
  });

/** Those that are whole parts: only they may be used. */
export const wholePrints = (history: History): CountedPrint[] =>
  countedPrints(history).filter(p => p.print.slice === null);

/** What was judged sits right, the rest may be wrong: it waits. A surface that misses is changed first. */
export const restWaits = (outcome: Outcome): boolean =>
  outcome.unjudged.length > 0 &&
  outcome.happened.length === 0 &&
  outcome.marks.every(mark => mark === 'right');
