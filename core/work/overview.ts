import type { JobDocument } from '../job/document';
import { counting, type History, type Version } from '../job/history';
import { LOOKED_WORDS } from '../job/history/look';
import { pieceWords } from '../job/history/print';
import { HAPPENING_WORDS } from '../learn/happened';
import { markOf, type VerdictMark } from '../learn/verdict';
import { CRITICAL_READINGS } from '../measure/evaluate';
import { capital, formatPercent } from '../quantity/format';
import { type DimensionState, readEnough } from './dimension';
import { type CountedPrint, countedPrints, type Outcome, outcomeOf, restWaits, wholePrints } from './outcome';
import { stillToRead } from './reading-list';
import type { ResolvedPart } from './resolved';
import { runningPrints } from './running';
import { failedPiece, lookAgainAt } from './service';
import { versionWords } from './show';
import { type NextStep, STAGES, type Stage } from './stages';

export interface Overview {
  /** The part it is about. */
  partId: string;
  next: NextStep;
  /** The state of the job in words. */
  state: string;
  detail: string;
  /** How much of each of the four pinned stages is settled, 0 to 1. */
  pins: Record<Stage, number[]>;
  /** Prints that count, the oldest first, with the worst verdict of each; null while not tried. */
  marks: {
    version: number;
    slice: boolean;
    /** “version 2 of the lid”. */
    words: string;
    verdict: VerdictMark | null;
  }[];
  prints: number;
  /** Of these, the prints that failed. */
  failed: number;
  grams: number;
  hours: number;
  cost: number;
  /** When to look again at the part in service; null while none is. */
  lookAt: string | null;
}

/** The state of one part of the job, and its next step. */
export function overviewOf(resolved: ResolvedPart): Overview {
  const now = counting(resolved.history);
  const { state, detail } = stateOf(resolved, now);
  return {
    partId: resolved.part.id,
    next: nextStep(resolved, now),
    state,
    detail,
    pins: pinsOf(resolved, now),
    lookAt: lookAgainAt(resolved),
    ...totalsOf(now, resolved.document),
  };
}

/**
 * The part whose next step comes first: one that waits for its maker, then the earliest stage, then the order of the
 * list.
 */
export function foremostOf<P extends { overview: Overview }>(parts: readonly P[]): P {
  const rank = ({ next }: Overview) => (next.waits ? 0 : STAGES.length) + STAGES.indexOf(next.stage);
  return parts.reduce((best, part) => (rank(part.overview) < rank(best.overview) ? part : best));
}

/** The whole job: the step of the part that comes first, and the prints of all parts. */
export function jobOverview(parts: readonly (ResolvedPart & { overview: Overview })[]): Overview {
  const first = foremostOf(parts);
  if (parts.length === 1) return first.overview;
  const { versions, prints, tries } = mergedHistory(parts.map(p => counting(p.history)));
  const { overview } = first;
  return {
    ...overview,
    state: `${first.part.name}: ${overview.state}`,
    next: { ...overview.next, action: `${overview.next.action}, ${first.part.name}` },
    ...totalsOf({ ...counting(first.history), versions, prints, tries }, first.document),
  };
}

const mergedHistory = (histories: readonly History[]) => ({
  versions: histories.flatMap(h => h.versions),
  prints: histories.flatMap(h => h.prints).sort((a, b) => a.at.localeCompare(b.at)),
  tries: histories.flatMap(h => h.tries),
});

function totalsOf(
  now: History,
  document: JobDocument,
): Pick<Overview, 'marks' | 'prints' | 'failed' | 'grams' | 'hours' | 'cost'> {
  return {
    marks: countedPrints(now).map(({ version, print, outcome }) => ({
      version: version.number,
      slice: print.slice !== null,
      words: versionWords(version.number, version.partId, document),
      verdict: outcome ? markOf(outcome.marks) : null,
    })),
    prints: now.prints.length,
    failed: now.prints.filter(p => p.failed !== null).length,
    grams: now.prints.reduce((sum, p) => sum + (p.grams ?? 0), 0),
    hours: now.prints.reduce((sum, p) => sum + (p.hours ?? 0), 0),
    cost: now.prints.reduce((sum, p) => sum + (p.cost ?? 0), 0),
  };
}

/** The print that waits for a try, or the last one that was tried. */
export const lastPrint = (now: History): CountedPrint | undefined => countedPrints(now).at(-1);

function nextStep(resolved: ResolvedPart, now: History): NextStep {
  const { document, needed } = resolved;
  const last = lastPrint(now);
  const failed = failedPiece(now, document.service.since);
  if (failed && !failed.mended)
    return {
      stage: 'keep',
      action: 'See why it failed',
      reason: `Version ${failed.version.number}: ${LOOKED_WORDS[failed.look.found]}${failed.days === null ? '' : ` after ${failed.days} ${failed.days === 1 ? 'day' : 'days'}`}.`,
      waits: true,
    };
  const unasked: NextStep | undefined =
    document.brief.ifItBreaks === null
      ? {
          stage: 'brief',
          action: 'Say what happens if it breaks',
          reason: 'It sets the margins and what must be tested before use.',
          waits: false,
        }
      : undefined;
  // A part that failed in service is not to be put back, however well it fitted.
  if (last && maybeUsed(last.outcome) && failed?.print.id !== last.print.id) {
    // Asked before the first version, and again before anybody relies on the part.
    if (unasked) return { ...unasked, waits: true };
    if (document.service.since) {
      return {
        stage: 'keep',
        action: 'Note how it holds',
        reason: 'In service. A word now saves a guess when the next one is needed.',
        waits: false,
      };
    }
    return {
      stage: 'keep',
      action: 'Put it in service',
      reason: `Version ${last.version.number} ${saidOf(last.outcome)}.`,
      waits: true,
    };
  }
  if (last && !last.outcome) {
    return {
      stage: 'try',
      action: `Try ${last.print.slice ? 'the slice of ' : ''}version ${last.version.number}`,
      reason: `It is printed; say how ${last.print.slice ? 'it' : 'each surface'} feels.`,
      waits: true,
    };
  }
  if (last?.outcome && restWaits(last.outcome))
    return {
      stage: 'try',
      action: `Say how the rest of version ${last.version.number} sits`,
      reason: `Not judged yet: ${namesOf(resolved, last.outcome.unjudged)}.`,
      waits: true,
    };
  // Nothing is measured again for a part that is being printed.
  const [running] = runningPrints(resolved.history);
  if (running)
    return {
      stage: 'print',
      action: `Say how version ${running.version.number} came out`,
      reason: 'It is on the printer.',
      waits: false,
    };
  const unread = needed.find(d => d.dimension.guide && !d.evaluation);
  if (unread) {
    const left = needed.filter(d => d.dimension.guide && !d.evaluation).length;
    return {
      stage: 'measure',
      action: `Measure “${unread.dimension.label}”`,
      reason: `${left} of ${needed.length} dimensions not read yet.`,
      key: unread.dimension.id,
      waits: false,
    };
  }
  const leaving = stillToRead(resolved);
  if (document.object.leaves && document.object.goneAt === null && leaving.length > 0 && needed.length > 0) {
    return {
      stage: 'measure',
      action: 'Read what is left before it goes',
      reason: `The object leaves: ${leaving[0]}${leaving.length > 1 ? ` and ${leaving.length - 1} more` : ''}.`,
      waits: true,
    };
  }
  // Once something was printed, its tries tell more than another reading would.
  // An object that is away cannot be measured again.
  const shaky = last || document.object.goneAt ? undefined : shakyDimension(needed);
  if (shaky) return shaky;
  if (unasked && now.versions.length === 0) return unasked;
  const problem = Object.entries(resolved.problems)[0];
  if (problem)
    return { stage: 'shape', action: 'Mend a number', reason: problem[1], key: problem[0], waits: true };
  const unprinted = now.versions.at(-1);
  const printed = (version: Version) => wholePrints(now).some(p => p.version.id === version.id);
  const slices = unprinted ? slicesOf(unprinted, now) : [];
  if (unprinted && !printed(unprinted) && slices.every(sliceFits)) {
    const again = now.prints.some(p => p.versionId === unprinted.id && p.slice === null);
    return {
      stage: 'print',
      action: `Print version ${unprinted.number}${again ? ' again' : ''}`,
      reason: again
        ? 'Its print failed; that says nothing about the fit.'
        : slices.length > 0
          ? `${slices.length === 1 ? 'Its slice' : 'Each of its slices'} sat right.`
          : `${formatPercent(unprinted.pAllRight)} likely to sit right.`,
      waits: slices.length > 0,
    };
  }
  const chance = resolved.ledger.pAllRight;
  return {
    stage: 'print',
    action: `Make version ${resolved.nextNumber}`,
    reason:
      chance === null
        ? 'The numbers stand.'
        : `${formatPercent(chance)} likely to sit right${last ? ', with what the last try taught' : ''}.`,
    waits: Boolean(last),
  };
}

/** Slices of a version that were tried. */
const slicesOf = (version: Version, now: History): CountedPrint[] =>
  countedPrints(now).filter(p => p.version.id === version.id && p.print.slice !== null && p.outcome !== null);

const sliceFits = ({ outcome }: CountedPrint): boolean =>
  outcome !== null && outcome.happened.length === 0 && outcome.marks.every(mark => mark === 'right');

/** “Lip in groove, Plug in bore”. */
export const namesOf = ({ document }: Pick<ResolvedPart, 'document'>, mates: Outcome['unjudged']): string =>
  mates
    .map(m => document.mates.find(x => x.id === m.mateId)?.name ?? ('name' in m ? m.name : m.surface))
    .join(', ');

function shakyDimension(needed: readonly DimensionState[]): NextStep | undefined {
  for (const state of needed) {
    const { dimension, evaluation } = state;
    if (!evaluation || !dimension.critical) continue;
    const stray = evaluation.advice.find(
      a => a.code === 'outlier' || a.code === 'spread' || a.code === 'other-unit',
    );
    if (stray)
      return {
        stage: 'measure',
        action: `Measure “${dimension.label}” again`,
        reason: stray.message,
        key: dimension.id,
        waits: true,
      };
    if (!readEnough(state, 2)) {
      return {
        stage: 'measure',
        action: `Measure “${dimension.label}” again`,
        reason: 'It was read once, and the fit depends on it.',
        key: dimension.id,
        waits: false,
      };
    }
  }
  return undefined;
}

function stateOf(
  { document, history, nextNumber }: ResolvedPart,
  now: History,
): { state: string; detail: string } {
  const last = lastPrint(now);
  const newest = now.versions.at(-1);
  const failed = failedPiece(now, document.service.since);
  if (failed && !failed.mended)
    return { state: 'Failed in service', detail: LOOKED_WORDS[failed.look.found] };
  if (document.service.since && last && maybeUsed(last.outcome) && failed?.print.id !== last.print.id) {
    return { state: 'In service', detail: `version ${last.version.number} ${saidOf(last.outcome)}` };
  }
  const tried = now.tries.at(-1);
  const triedPrint = now.prints.find(p => p.id === tried?.printId);
  const triedVersion = now.versions.find(v => v.id === triedPrint?.versionId);
  const outcome = triedPrint && triedVersion && outcomeOf(triedPrint, triedVersion, now);
  const detail =
    outcome && triedVersion ? `version ${triedVersion.number} ${saidOf(outcome)}` : 'nothing tried yet';
  if (last && !last.outcome)
    return {
      state: `${capital(`${pieceWords(last.print)}version`)} ${last.version.number} printed, waiting for a try`,
      detail,
    };
  const [running] = runningPrints(history);
  if (running) return { state: `Version ${running.version.number} is on the printer`, detail };
  if (
    newest &&
    !wholePrints(now).some(p => p.version.id === newest.id) &&
    slicesOf(newest, now).every(sliceFits)
  )
    return { state: `Version ${newest.number} is ready to print`, detail };
  if (last && maybeUsed(last.outcome)) return { state: `Version ${last.version.number} fits`, detail };
  if (last?.outcome && restWaits(last.outcome))
    return { state: `Version ${last.version.number} is being tried`, detail };
  if (last?.outcome) return { state: `Version ${nextNumber} is being fitted`, detail };
  return { state: 'On the bench', detail };
}

/** It sits right as printed, or after handwork. */
const maybeUsed = (outcome: Outcome | null): outcome is Outcome =>
  outcome !== null && (outcome.right || outcome.saved);

function saidOf(outcome: Outcome): string {
  if (outcome.right) return 'sat right';
  if (outcome.saved) return 'sits right after work by hand';
  const [happening] = outcome.happened;
  if (happening) return `was tried: ${HAPPENING_WORDS[happening.what]}`;
  const mark = markOf(outcome.marks);
  if (mark === null) return 'was measured, not judged';
  if (mark === 'right')
    return outcome.unjudged.length > 0 ? 'sat right so far' : 'sat right, not as easily as it should';
  return mark === 'tight' ? 'went on tight' : 'was loose';
}

function pinsOf(resolved: ResolvedPart, now: History): Record<Stage, number[]> {
  const { document } = resolved;
  const { brief, object } = document;
  const needed = resolved.needed.filter(d => d.dimension.guide);
  const critical = needed.filter(d => d.dimension.critical);
  const share = (parts: readonly boolean[]) =>
    parts.length === 0 ? 0 : parts.filter(Boolean).length / parts.length;
  const chance = resolved.ledger.pAllRight ?? 0;
  const last = lastPrint(now);
  const right = last !== undefined && maybeUsed(last.outcome);
  const solid = Object.keys(resolved.problems).length === 0;
  return {
    brief: [
      object.name ? 1 : 0,
      brief.purpose ? 1 : 0,
      brief.ifItBreaks ? 1 : 0,
      brief.hottestC === null ? 0 : 1,
    ],
    measure: [
      share(needed.map(d => d.evaluation !== null)),
      share(critical.map(d => readEnough(d, 2))),
      share(critical.map(d => readEnough(d, CRITICAL_READINGS))),
      share(needed.map(d => d.evaluation !== null && d.evaluation.outliers.length === 0)),
    ],
    fit:
      resolved.ledger.mates.length + resolved.ledger.signed.length === 0
        ? [0, 0, 0, 0]
        : [1, Math.min(1, chance / 0.5), Math.min(1, chance / 0.75), chance],
    shape: [
      solid ? 1 : 0,
      resolved.provisional.size === 0 ? 1 : 0.3,
      now.versions.length > 0 ? 1 : 0,
      now.versions.length > 0 ? 1 : 0,
    ],
    print: [
      now.versions.length > 0 ? 1 : 0,
      now.prints.length > 0 ? 1 : 0,
      last?.print.hours ? 1 : 0,
      last?.print.grams ? 1 : 0,
    ],
    try: [now.tries.length > 0 ? 1 : 0, last?.outcome ? 1 : 0, right ? 1 : 0, right ? 1 : 0],
    keep: [
      document.service.since ? 1 : 0,
      document.service.notes.length + now.looks.length > 0 ? 1 : 0,
      now.looks.length > 1 ? 1 : 0,
      now.looks.at(-1)?.found === 'holds' ? 1 : 0,
    ],
  };
}
