import type { SurfaceKind } from '../fit/print-bias';
import { chanceWithin } from '../fit/probability';
import type { LedgerStep } from '../fit/propose';
import { clearanceWindow, type Side, windowForSize } from '../fit/wants';
import { type NextMate, nextVersion } from '../learn/next';
import { drawnClearance, type MatePosterior, type Trial } from '../learn/posterior';
import { verdictScale } from '../learn/verdict';
import type { Evaluation } from '../measure/evaluate';
import type { DimensionState } from './dimensions';
import type { JobDocument, Mate, Part, Pose } from './document';
import { type History, standing, type Try } from './history';
import { printerBelief, type SourcedBelief } from './printer-belief';
import type { Workshop } from './workshop';

/** A mate's chain from reading to model number. Lengths mm, clearance whole width. */
export interface MateLedger {
  mate: Mate;
  dimension: DimensionState['dimension'];
  reading: { value: number; u: number; source: 'seat' | 'old-part' | 'said' };
  /** What the want comes to in clearance on this object. */
  window: { min: number; max: number };
  model: number;
  /** Expected clearance of the print. */
  clearance: number;
  pRight: number;
  /** Amounts add up to `model`. */
  steps: LedgerStep[];
  prior: { mean: number; sd: number };
  /** What the printer's part of the prior comes from; null where it is the workshop's general belief. */
  calibration: SourcedBelief['calibration'];
  bias: { mean: number; sd: number };
  /** sd of the next print's clearance. */
  sd: number;
  /** Shares of the variance, largest first. */
  doubts: { name: string; share: number }[];
  reason: string;
  tries: number;
  posterior: MatePosterior;
}

export interface LedgerState {
  mates: MateLedger[];
  /** Chance that all are right with the next print; null while one of them is unread. */
  pAllRight: number | null;
  /** Mates whose dimension was not read yet. */
  unread: Mate[];
}

/** Model numbers are kept to a hundredth: no printer follows a finer one. */
const MODEL_STEP = 0.01;

/** What the pose makes of an upright round surface. */
export const surfaceKind = (side: Side, pose: Pose): SurfaceKind => {
  const round = side === 'inside' ? 'hole' : 'outside';
  return pose === 'on-side' ? `${round}-on-side` : round;
};

/** Verdicts carry over only among prints of one printer, material, side and pose. */
const groupOf = (side: Side, part: Pick<Part, 'printerId' | 'materialId' | 'pose'>) =>
  [surfaceKind(side, part.pose), part.printerId, part.materialId].join('/');

/** The ledger of one part's mates that are in use. */
export function ledgerOf(
  document: JobDocument,
  partId: string,
  active: readonly Mate[],
  dimensions: ReadonlyMap<string, DimensionState>,
  workshop: Workshop,
  history: History,
): LedgerState {
  const part = document.parts.find(p => p.id === partId)!;
  const unread: Mate[] = [];
  const questions: (NextMate & { mate: Mate; state: DimensionState })[] = [];
  for (const mate of active) {
    const state = mate.other.of === 'object' ? dimensions.get(mate.other.dimension) : undefined;
    if (!state?.evaluation) {
      unread.push(mate);
      continue;
    }
    const reading = { value: envelopeOf(state.evaluation, mate), u: state.evaluation.standardUncertainty };
    const wanted = windowOn(mate.want, reading.value, mate);
    // An old part's size already holds its maker's clearance: it is copied, within the want's width, and
    // gets back what it has worn.
    const half = (wanted.max - wanted.min) / 2;
    const wear = mate.want.wear ?? 0;
    const window = state.source === 'old-part' ? { min: -wear - half, max: -wear + half } : wanted;
    questions.push({
      id: mate.id,
      name: mate.name,
      side: mate.side,
      group: groupOf(mate.side, part),
      reading,
      scale: verdictScale(window, mate.want.window.unit),
      prefer: mate.want.prefer,
      mate,
      state,
    });
  }
  if (questions.length === 0) return { mates: [], pAllRight: null, unread };
  const priors = Object.fromEntries(
    questions.map(q => {
      // One printer, one plastic, one side: what they share is believed at the middle of their sizes.
      const sizes = questions.filter(o => o.group === q.group).map(o => o.reading.value);
      const middle = sizes.reduce((sum, size) => sum + size, 0) / sizes.length;
      return [q.group, printerBelief(workshop, part, q.side, surfaceKind(q.side, part.pose), middle)];
    }),
  );
  const trials = trialsOf(questions, history);
  const s = workshop.belief.repeatability;
  const next = remembered({
    mates: questions,
    priors: Object.fromEntries(Object.entries(priors).map(([group, { mean, sd }]) => [group, { mean, sd }])),
    repeatability: s,
    trials,
  });
  return {
    mates: questions.map(q => chainOf(q, next.mates[q.id]!, priors[q.group]!, s, trials)),
    pAllRight: unread.length > 0 ? null : next.pAllRight,
    unread,
  };
}

/** What a want comes to in clearance on this object. */
const windowOn = (want: Mate['want'], size: number, { side, soft }: Pick<Mate, 'side' | 'soft'>) =>
  clearanceWindow(windowForSize(want, size), size, side, soft);

/**
 * What a rigid part must pass on an object that is out of round: the largest of an outside, the smallest
 * of an inside. A flexible one follows the mean.
 */
function envelopeOf({ value, form }: Evaluation, { side, soft }: Pick<Mate, 'side' | 'soft'>): number {
  if (soft !== 'none' || form === null) return value;
  return value + ((side === 'inside' ? 1 : -1) * form) / 2;
}

/**
 * Evidence rows: what was said of each print, where it was made as the next one will be. Two tries of one
 * print are one print: the later word on a mate counts. A verdict is about the want it was judged by.
 */
function trialsOf(questions: readonly (NextMate & { mate: Mate })[], history: History): Trial[] {
  const { versions, prints, tries } = standing(history);
  return prints.flatMap(print => {
    const version = versions.find(v => v.id === print.versionId)!;
    const said = Object.assign(
      {},
      ...tries.filter(t => t.printId === print.id).map(t => t.mates),
    ) as Try['mates'];
    const mates: Trial['mates'] = {};
    for (const q of questions) {
      const own = said[q.id];
      const drawn = version.mates.find(m => m.mateId === q.id);
      if (!own || !drawn || groupOf(q.side, version) !== q.group) continue;
      if (!own.verdict && !own.printed) continue;
      const scale = verdictScale(windowOn(drawn.want, q.reading.value, q.mate), drawn.want.window.unit);
      mates[q.id] = { model: drawn.model, verdict: own.verdict, printed: own.printed, scale };
    }
    return Object.keys(mates).length > 0 ? [{ mates }] : [];
  });
}

function chainOf(
  q: NextMate & { mate: Mate; state: DimensionState },
  next: { model: number; bias: { mean: number; sd: number }; posterior: MatePosterior; reason: string },
  prior: SourcedBelief,
  s: number,
  trials: readonly Trial[],
): MateLedger {
  const sign = q.side === 'inside' ? 1 : -1;
  const model = Number((Math.round(next.model / MODEL_STEP) * MODEL_STEP).toFixed(2));
  const compensation = sign * prior.mean;
  const lesson = sign * (next.bias.mean - prior.mean);
  const sd = Math.hypot(next.bias.sd, s);
  const clearance = drawnClearance(q, model) - next.bias.mean;
  const u = q.reading.u;
  // With tries the posterior's spread holds reading and printer together; their split follows the prior's.
  const readingShare = u ** 2 / (u ** 2 + prior.sd ** 2 || 1);
  const variances = [
    { name: 'this printer with this plastic', share: next.bias.sd ** 2 * (1 - readingShare) },
    { name: 'the readings', share: next.bias.sd ** 2 * readingShare },
    { name: 'print to print', share: s ** 2 },
  ];
  const total = variances.reduce((sum, v) => sum + v.share, 0);
  return {
    mate: q.mate,
    dimension: q.state.dimension,
    reading: { ...q.reading, source: q.state.source ?? 'seat' },
    window: { min: q.scale.min, max: q.scale.max },
    model,
    clearance,
    pRight: chanceRight(next.posterior, q, model, s),
    steps: [
      { step: 'reading', amount: q.reading.value, u },
      { step: 'allowance', amount: model - q.reading.value - compensation - lesson, u: 0 },
      { step: 'compensation', amount: compensation, u: prior.sd },
      { step: 'lesson', amount: lesson, u: 0 },
    ],
    prior: { mean: prior.mean, sd: prior.sd },
    calibration: prior.calibration,
    bias: next.bias,
    sd,
    doubts: variances.map(v => ({ ...v, share: v.share / total })).sort((a, b) => b.share - a.share),
    reason: next.reason,
    tries: trials.filter(t => t.mates[q.id]).length,
    posterior: next.posterior,
  };
}

/** Chance that a print of this model number falls in the window, over what is believed of β. */
export function chanceRight(posterior: MatePosterior, q: NextMate, model: number, s: number): number {
  const drawn = drawnClearance(q, model);
  let chance = 0;
  for (let i = 0; i < posterior.beta.length; i++) {
    const w = posterior.weight[i]!;
    if (w > 1e-9) chance += w * chanceWithin(q.scale.min, q.scale.max, drawn - posterior.beta[i]!, s);
  }
  return chance;
}

/** The last answers, so that typing in a field that no mate depends on costs nothing. */
const answers = new Map<string, ReturnType<typeof nextVersion>>();
const MOST_ANSWERS = 40;

function remembered(question: Parameters<typeof nextVersion>[0]): ReturnType<typeof nextVersion> {
  const plain = question.mates.map(({ id, name, side, group, reading, scale, prefer }) => ({
    id,
    name,
    side,
    group,
    reading,
    scale,
    prefer,
  }));
  const key = JSON.stringify({ ...question, mates: plain });
  const known = answers.get(key);
  if (known) return known;
  const answer = nextVersion(question);
  if (answers.size >= MOST_ANSWERS) answers.delete(answers.keys().next().value!);
  answers.set(key, answer);
  return answer;
}
