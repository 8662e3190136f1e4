import { CRITICAL_READINGS } from '../measure/evaluate';
import { formatPercent, formatPlain } from '../quantity/format';
import type { Finding } from '../shape/findings/finding';
import { readEnough } from './dimensions';
import type { JobDocument } from './document';
import { type History, type Print, standing, type Try, type Version } from './history';
import { neededDimensions, type ResolvedPart } from './resolve';

export const STAGES = ['brief', 'measure', 'fit', 'shape', 'print', 'try', 'keep'] as const;
export type Stage = (typeof STAGES)[number];

export interface NextStep {
  stage: Stage;
  /** On the button. */
  action: string;
  /** Why, beside it. */
  reason: string;
  /** The dimension or mate it is about. */
  key?: string;
  /** Whether it is the maker's turn rather than the printer's. */
  waits: boolean;
}

export interface Overview {
  next: NextStep;
  /** In words: where the job stands. */
  state: string;
  detail: string;
  /** Per stage, how much of it is settled: four pins, each 0 to 1. */
  pins: Record<Stage, number[]>;
  /** Standing prints, oldest first, with the worst verdict of each; null while not tried. */
  marks: { version: number; verdict: Mark | null }[];
  prints: number;
  hours: number;
  cost: number;
}

export type Mark = 'tight' | 'right' | 'loose';

/** Where the job stands and what to do next, from the document and its history alone. */
export function overviewOf(document: JobDocument, resolved: ResolvedPart, history: History): Overview {
  const now = standing(history);
  const marks = now.prints.map(print => ({
    version: now.versions.find(v => v.id === print.versionId)?.number ?? 0,
    verdict: markOf(now.tries.filter(t => t.printId === print.id)),
  }));
  const { state, detail } = stateOf(document, now);
  return {
    next: nextStep(document, resolved, now),
    state,
    detail,
    pins: pinsOf(document, resolved, now),
    marks,
    prints: now.prints.length,
    hours: now.prints.reduce((sum, p) => sum + (p.hours ?? 0), 0),
    cost: now.prints.reduce((sum, p) => sum + (p.cost ?? 0), 0),
  };
}

/** One mark for a print: tight outranks loose, since what will not go on tells nothing of the rest. */
export function markOf(tries: readonly Try[]): Mark | null {
  const verdicts = tries.flatMap(t => Object.values(t.mates).flatMap(m => (m.verdict ? [m.verdict] : [])));
  if (verdicts.length === 0) return null;
  if (verdicts.some(v => v === 'tight' || v === 'wont-go')) return 'tight';
  if (verdicts.some(v => v === 'loose' || v === 'drops-off')) return 'loose';
  return 'right';
}

export const isRight = (row: Try) => {
  const verdicts = Object.values(row.mates).flatMap(m => (m.verdict ? [m.verdict] : []));
  return verdicts.length > 0 && verdicts.every(v => v === 'right');
};

/** The print that waits for a try, or the last one that was tried. */
function lastPrint(now: History): { print: Print; version: Version; tried?: Try } | undefined {
  const print = now.prints.at(-1);
  const version = now.versions.find(v => v.id === print?.versionId);
  return print && version
    ? { print, version, tried: now.tries.findLast(t => t.printId === print.id) }
    : undefined;
}

function nextStep(document: JobDocument, resolved: ResolvedPart, now: History): NextStep {
  const last = lastPrint(now);
  const unasked: NextStep | undefined =
    document.brief.ifItBreaks === null
      ? {
          stage: 'brief',
          action: 'Say what happens if it breaks',
          reason: 'It sets the margins and what must be tested before use.',
          waits: false,
        }
      : undefined;
  if (last?.tried && isRight(last.tried)) {
    // Asked before the first version, and once more before anybody relies on the part.
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
      reason: `Version ${last.version.number} sat right.`,
      waits: true,
    };
  }
  if (last && !last.tried) {
    return {
      stage: 'try',
      action: `Try version ${last.version.number}`,
      reason: 'It is printed; say how each surface feels.',
      waits: true,
    };
  }
  const needed = neededDimensions(document, resolved);
  const unread = needed.find(d => d.dimension.guide && !d.evaluation);
  if (unread) {
    const left = needed.filter(d => d.dimension.guide && !d.evaluation).length;
    return {
      stage: 'measure',
      action: `Measure the ${lower(unread.dimension.label)}`,
      reason: `${left} of ${needed.length} dimensions not read yet.`,
      key: unread.dimension.id,
      waits: false,
    };
  }
  const leaving = stillToRead(document, resolved);
  if (document.object.leaves && document.object.goneAt === null && leaving.length > 0 && needed.length > 0) {
    return {
      stage: 'measure',
      action: 'Read what is left before it goes',
      reason: `The object leaves: ${leaving[0]}${leaving.length > 1 ? ` and ${leaving.length - 1} more` : ''}.`,
      waits: true,
    };
  }
  // Once something was printed the tries say more than another reading would.
  const shaky = last ? undefined : shakyDimension(needed);
  if (shaky) return shaky;
  if (unasked && now.versions.length === 0) return unasked;
  const problem = Object.entries(resolved.problems)[0];
  if (problem)
    return { stage: 'shape', action: 'Mend a number', reason: problem[1], key: problem[0], waits: true };
  const unprinted = now.versions.findLast(v => v.partId === resolved.part.id);
  if (unprinted && !now.prints.some(p => p.versionId === unprinted.id)) {
    return {
      stage: 'print',
      action: `Print version ${unprinted.number}`,
      reason: `${formatPercent(unprinted.pAllRight)} likely to sit right.`,
      waits: false,
    };
  }
  const chance = resolved.ledger.pAllRight;
  return {
    stage: 'print',
    action: `Make version ${Math.max(0, ...now.versions.map(v => v.number)) + 1}`,
    reason:
      chance === null
        ? 'The numbers stand.'
        : `${formatPercent(chance)} likely to sit right${last ? ', with what the last try taught' : ''}.`,
    waits: Boolean(last),
  };
}

/** What must still be looked at while the object is here: unread, read too seldom, or on the maker’s list. */
export function stillToRead(document: JobDocument, resolved: ResolvedPart): string[] {
  return [
    ...neededDimensions(document, resolved).flatMap(state => {
      const { dimension, evaluation, counted } = state;
      if (dimension.derived && evaluation) return [];
      if (!evaluation) return [`${dimension.label} is not read`];
      if (dimension.critical && !readEnough(state, CRITICAL_READINGS))
        return [
          `${dimension.label} was read ${counted.length === 1 ? 'once' : 'twice'}, three times is safer`,
        ];
      return [];
    }),
    ...document.object.toRead.filter(t => !t.done).map(t => t.words),
  ];
}

/** Critical dimensions that stand on one reading: to be measured again before hours of printing. */
export const measureAgain = (document: JobDocument, resolved: ResolvedPart) =>
  neededDimensions(document, resolved).filter(
    state => state.evaluation && state.dimension.critical && !readEnough(state, 2),
  );

function shakyDimension(needed: ReturnType<typeof neededDimensions>): NextStep | undefined {
  for (const state of needed) {
    const { dimension, evaluation } = state;
    if (!evaluation || !dimension.critical) continue;
    const stray = evaluation.advice.find(
      a => a.code === 'outlier' || a.code === 'spread' || a.code === 'other-unit',
    );
    if (stray)
      return {
        stage: 'measure',
        action: `Measure the ${lower(dimension.label)} again`,
        reason: stray.message,
        key: dimension.id,
        waits: true,
      };
    if (!readEnough(state, 2)) {
      return {
        stage: 'measure',
        action: `Measure the ${lower(dimension.label)} again`,
        reason: 'It was read once, and the fit depends on it.',
        key: dimension.id,
        waits: false,
      };
    }
  }
  return undefined;
}

function stateOf(document: JobDocument, now: History): { state: string; detail: string } {
  const last = lastPrint(now);
  const newest = now.versions.at(-1);
  if (document.service.since && last?.tried && isRight(last.tried)) {
    return { state: 'In service', detail: `version ${last.version.number} sat right` };
  }
  const tried = now.tries.at(-1);
  const triedPrint = now.prints.find(p => p.id === tried?.printId);
  const triedVersion = now.versions.find(v => v.id === triedPrint?.versionId);
  const detail =
    tried && triedVersion ? `version ${triedVersion.number} ${saidOf(tried)}` : 'nothing tried yet';
  if (last && !last.tried)
    return { state: `Version ${last.version.number} printed, waiting for a try`, detail };
  if (newest && !now.prints.some(p => p.versionId === newest.id))
    return { state: `Version ${newest.number} is ready to print`, detail };
  if (last?.tried && isRight(last.tried)) return { state: `Version ${last.version.number} fits`, detail };
  if (last?.tried) return { state: `Version ${last.version.number + 1} is being fitted`, detail };
  return { state: 'On the bench', detail };
}

function saidOf(row: Try): string {
  const mark = markOf([row]);
  if (mark === 'right') return 'sat right';
  return mark === 'tight' ? 'went on tight' : 'was loose';
}

function pinsOf(document: JobDocument, resolved: ResolvedPart, now: History): Record<Stage, number[]> {
  const { brief, object } = document;
  const needed = neededDimensions(document, resolved).filter(d => d.dimension.guide);
  const critical = needed.filter(d => d.dimension.critical);
  const share = (parts: readonly boolean[]) =>
    parts.length === 0 ? 0 : parts.filter(Boolean).length / parts.length;
  const chance = resolved.ledger.pAllRight ?? 0;
  const last = lastPrint(now);
  const right = Boolean(last?.tried && isRight(last.tried));
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
      resolved.ledger.mates.length === 0
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
    try: [now.tries.length > 0 ? 1 : 0, last?.tried ? 1 : 0, right ? 1 : 0, right ? 1 : 0],
    keep: [document.service.since ? 1 : 0, document.service.notes.length > 0 ? 1 : 0, 0, 0],
  };
}

/** A proof load, as a multiple of the load said. Common practice, no source. */
const PROOF = { damage: 2, injury: 3 } as const;

/** What must be said before anybody relies on the part. */
export function cautionsOf(document: JobDocument, resolved: ResolvedPart): Finding[] {
  const { brief } = document;
  const findings: Finding[] = [];
  const say = (code: string, level: Finding['level'], message: string) =>
    findings.push({ code, level, message });
  if (brief.ifItBreaks === 'injury') {
    say(
      'injury',
      'stop',
      'You said a failure may injure somebody. A printed part must not be the only thing that prevents that: ask somebody licensed for this kind of work, and keep to the local rules.',
    );
  }
  if (brief.ifItBreaks === 'damage') {
    say(
      'damage',
      'warn',
      'You said a failure does damage. Test it beyond what it will bear before use, where nothing can be harmed, and look at it again after a week.',
    );
  }
  if (brief.mustHold.includes('water') || brief.mustHold.includes('air')) {
    say(
      'tight',
      'note',
      'Printed walls weep, and a cap can come off. Test it under water or with soap before anything depends on it; buoyancy compartments keep the maker’s own closure.',
    );
  }
  if (brief.ifItBreaks !== null && brief.ifItBreaks !== 'nuisance') {
    for (const load of brief.loads) {
      if (!load.forceN) continue;
      const proof = PROOF[brief.ifItBreaks] * load.forceN;
      say(
        `proof-${load.id}`,
        'note',
        `Proof test before use, for “${load.words}”: hang ${formatPlain(proof / 9.81, 1)} kg on it (${formatPlain(proof, 0)} N, ${PROOF[brief.ifItBreaks]} times the load) where nothing can be harmed, for ten minutes; look for white lines and cracks, and again after a week in use.`,
      );
    }
  }
  if (brief.touches?.includes('mains')) {
    say(
      'mains',
      'stop',
      'It touches mains. Printed plastic burns and creeps: only a licensed electrician may decide on parts there, by the local rules.',
    );
  }
  if (brief.touches?.includes('food')) {
    say(
      'food',
      'warn',
      'It touches food. Layers hold germs and most filaments and nozzles are not made for food: keep it to dry, short contact, or line it, and follow the local rules.',
    );
  }
  const { material } = resolved;
  if (brief.hottestC !== null && brief.hottestC > material.softensC - 10) {
    say(
      'heat',
      brief.hottestC >= material.softensC ? 'stop' : 'warn',
      `${material.name} softens at about ${formatPlain(material.softensC)} °C; it will meet ${formatPlain(brief.hottestC)} °C. Choose a plastic that keeps at least 10 °C of distance.`,
    );
  }
  return findings;
}

const lower = (label: string) => label.replace(/^\p{Lu}(?=\p{Ll})/u, c => c.toLowerCase()).split(',')[0]!;
