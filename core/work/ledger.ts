import { chanceRight } from '../fit/best-number';
import type { SurfaceKind } from '../fit/print-bias';
import type { LedgerStep } from '../fit/propose';
import type { FitMate, Mate, Part, Reading } from '../job/document';
import { drawnClearance, WILD_MEASURED } from '../learn/likelihood';
import { expectationOf, type NextAnswer } from '../learn/next';
import type { MatePosterior, Trial } from '../learn/posterior';
import { verdictScale } from '../learn/verdict-scale';
import type { Evaluation } from '../measure/evaluate';
import { formatPlain } from '../quantity/format';
import type { DimensionState } from './dimension';
import { evidenceFor, feltScale, groupOf, isFelt, type Question, scaleAbout } from './evidence';
import { handOf } from './hand-of';
import { kindOn } from './kind-on';
import type { LedgerInput, OtherSize } from './ledger-input';
import { asDrawn, LEAST_CHANCE } from './model-number';
import type { Printers, SourcedBelief } from './printers';
import { type SignedLedger, signedChain, signedQuestions } from './signed-ledger';

/** A mate's chain from reading to model number. Lengths mm, clearance across the whole width. */
export interface MateLedger {
  mate: FitMate;
  /** The kind of our surface in the part's pose. */
  kind: SurfaceKind;
  dimension: DimensionState['dimension'];
  reading: { value: number; u: number; source: Reading['source'] };
  /** The reading was taken around: it counts as the diameter of a circle of that girth. */
  around: boolean;
  /** The want as a window of clearance on this object. */
  window: { min: number; max: number };
  /** The number that is built. */
  model: number;
  /** The number that the chain leads to; `model` differs where the maker set a number on Shape. */
  proposed: number;
  /** Expected clearance of the print. */
  clearance: number;
  pRight: number;
  /** It does not fit on the bed at this size: whatever the numbers say, no chance is given. */
  tooLarge: boolean;
  /** Amounts add up to `model`. */
  steps: LedgerStep[];
  prior: { mean: number; sd: number };
  /** How much of the prior and the bias belongs to this size only, beyond the posterior. */
  shift: number;
  /** Print-to-print scatter, sd. */
  scatter: number;
  /** The calibration behind the printer's part of the prior; null where it is the workshop's general belief. */
  calibration: SourcedBelief['calibration'];
  /** The number of other jobs of this workshop that it uses. */
  jobs: number;
  bias: { mean: number; sd: number };
  /** sd of the next print's clearance. */
  sd: number;
  /** Shares of the variance, the largest first. */
  doubts: { name: string; share: number }[];
  reason: string;
  tries: number;
  /** Whether a ladder was tried. */
  laddered: boolean;
  posterior: MatePosterior;
}

/** The share that all surfaces of one kind have in common, before and after this job's tries. mm */
export interface Learned {
  surface: SurfaceKind;
  before: { mean: number; sd: number };
  after: { mean: number; sd: number };
  prints: number;
}

export interface LedgerState {
  mates: MateLedger[];
  /** Mates that are judged by an amount. */
  signed: SignedLedger[];
  /** Chance that all are right in the next print; null while one of them is unread or cannot be printed. */
  pAllRight: number | null;
  /** What this job's tries taught about each kind of surface. */
  learned: Learned[];
  /** Mates whose dimension was not read yet. */
  unread: Mate[];
}

/** Whether a clearance goes across a diameter or a width. */
export const acrossOf = ({ kind }: Pick<MateLedger, 'kind'>): string =>
  kind.startsWith('hole') || kind.startsWith('peg') ? 'across the diameter' : 'across the width';

/** The ledger of one part's mates that are in use. */
export function ledgerOf(input: LedgerInput): LedgerState {
  const { part, recipe, dimensions, printers } = input;
  const unread: Mate[] = [];
  const questions: Question[] = [];
  // Whoever judged last will judge the next print too; before that, whoever judges in this workshop.
  const hand = handOf(input.history) || printers.onlyHand();
  const early = printers.handShift(hand);
  for (const mate of input.mates) {
    const state =
      mate.other.of === 'object'
        ? dimensions.get(mate.other.dimension)
        : stateOfOther(mate, input.sizeOf(mate.other));
    if (!state?.evaluation) {
      unread.push(mate);
      continue;
    }
    // A girth counts as the circle of equal girth: the printer and the want know diameters.
    const spec = recipe.mates.find(m => m.id === mate.ours.surface);
    const around = mate.other.of === 'object' && (spec?.around ?? false);
    const per = around ? Math.PI : 1;
    const reading = {
      value: envelopeOf(state.evaluation, mate) / per,
      u: state.evaluation.standardUncertainty / per,
    };
    questions.push({
      id: mate.id,
      name: mate.name,
      side: mate.side,
      group: groupOf(mate, recipe, part),
      reading,
      scale: feltScale(scaleAbout(reading.value, state.source, mate.want, mate), mate.want, early),
      shift: 0,
      growth: 0,
      prefer: mate.want.prefer,
      own: input.own?.get(mate.id),
      number: spec?.parameter,
      mate,
      kind: kindOn(mate, recipe, part),
      around,
      state,
    });
  }
  const signed = signedQuestions(input);
  unread.push(...signed.unread);
  if (questions.length + signed.questions.length === 0)
    return { mates: [], signed: [], learned: [], pAllRight: null, unread };
  const priors = priorsOf(questions, part, printers);
  const { trials, elsewhere } = evidenceFor(questions, input);
  const s = printers.scatter(part);
  const believed = Object.entries(priors).map(
    ([group, { mean, sd, calibration }]) =>
      [group, { mean, sd, ...(calibration ? { wild: WILD_MEASURED } : {}) }] as const,
  );
  const next = input.next({
    mates: [
      ...questions.map(({ id, name, side, group, reading, scale, shift, growth, prefer, own, number }) => ({
        id,
        name,
        side,
        group,
        reading,
        scale,
        shift,
        growth,
        prefer,
        own,
        number,
        ...(elsewhere.has(id) ? { elsewhere: elsewhere.get(id) } : {}),
      })),
      ...signed.questions.map(q => q.next),
    ],
    priors: { ...Object.fromEntries(believed), ...signed.priors },
    repeatability: s,
    trials: [...trials, ...signed.trials],
  });
  const { bed } = input;
  const longest = bed ? Math.max(Math.hypot(bed.width, bed.depth), bed.height) : Infinity;
  const mates = questions.map(q => {
    const chain = chainOf(q, next.mates[q.id]!, priors[q.group]!, s, trials);
    // A loop is as wide as a third of its girth, whatever its shape, so it may well fit on the bed.
    const byHand = early !== 0 && isFelt(q.mate.want) ? ` ${handWords(hand, early)}` : '';
    return { ...chain, reason: chain.reason + byHand, tooLarge: !q.around && chain.model > longest };
  });
  return {
    mates,
    signed: signed.questions.map(q => signedChain(q, next.mates[q.mate.id]!)),
    learned: learnedIn(questions, priors, next, trials),
    pAllRight:
      unread.length > 0 || mates.some(m => m.tooLarge) ? null : Math.max(LEAST_CHANCE, next.pAllRight),
    unread,
  };
}

function learnedIn(
  questions: readonly Question[],
  priors: Record<string, SourcedBelief>,
  next: NextAnswer,
  trials: readonly Trial[],
): Learned[] {
  return Object.keys(priors).flatMap((group): Learned[] => {
    const own = questions.filter(q => q.group === group);
    const prints = trials.filter(t => own.some(q => t.mates[q.id])).length;
    if (prints === 0) return [];
    const { mean, sd } = priors[group]!;
    return [{ surface: own[0]!.kind, before: { mean, sd }, after: next.shared[group]!, prints }];
  });
}

/** The window is where this hand calls it right. */
const handWords = (hand: string, early: number): string =>
  `${hand} calls “tight” ${formatPlain(Math.abs(early))} mm ${early > 0 ? 'earlier' : 'later'} than the window says, as earlier jobs showed: the window is moved by that.`;

/** The other part's surface, as if it had been read on its future print. */
function stateOfOther(mate: FitMate, size: OtherSize | null): DimensionState | undefined {
  if (!size) return undefined;
  return {
    dimension: {
      id: mate.id,
      name: 'other_part',
      label: size.label.slice(0, 120),
      kind: mate.side === 'inside' ? 'outside' : 'inside',
      critical: true,
      guide: null,
      note: '',
      readings: [],
    },
    counted: [],
    values: [],
    source: 'seat',
    evaluation: {
      value: size.value,
      standardUncertainty: size.u,
      degreesOfFreedom: null,
      expandedUncertainty: 1.96 * size.u,
      spread: 0,
      outliers: [],
      advice: [],
      form: null,
      budget: [],
    },
    worked: { text: 'as it will print' },
    jawShortfall: null,
  };
}

/**
 * The belief about the printer before tries, by group. Surfaces of one printer, plastic and side share a bias; the
 * calibration shows how it changes with size, so each mate is shifted to its own size. */
function priorsOf(questions: Question[], part: Part, printers: Printers): Record<string, SourcedBelief> {
  const priors: Record<string, SourcedBelief> = {};
  for (const group of new Set(questions.map(q => q.group))) {
    const own = questions.filter(q => q.group === group);
    const beliefs = own.map(q => printers.belief(part, q.side, q.kind, q.reading.value));
    const mean = beliefs.reduce((sum, b) => sum + b.mean, 0) / beliefs.length;
    own.forEach((q, i) => {
      q.shift = beliefs[i]!.mean - mean;
      q.growth = beliefs[i]!.growth;
    });
    priors[group] = { ...beliefs[0]!, mean, sd: Math.max(...beliefs.map(b => b.sd)) };
  }
  return priors;
}

/**
 * What a rigid part must pass on an object that is out of round: the largest size of an outside, the smallest of an
 * inside. A flexible part follows the mean.
 */
function envelopeOf({ value, form }: Evaluation, { side, soft }: Pick<FitMate, 'side' | 'soft'>): number {
  if (soft !== 'none' || form === null) return value;
  return value + ((side === 'inside' ? 1 : -1) * form) / 2;
}

function chainOf(
  q: Question,
  next: NextAnswer['mates'][string],
  prior: SourcedBelief,
  s: number,
  trials: readonly Trial[],
): Omit<MateLedger, 'tooLarge'> {
  const sign = q.side === 'inside' ? 1 : -1;
  const proposed = asDrawn(next.proposed);
  const model = q.own ?? proposed;
  const compensation = sign * (prior.mean + q.shift);
  const lesson = sign * (next.bias.mean - prior.mean);
  const sd = Math.hypot(next.bias.sd, s);
  const clearance = drawnClearance(q, model) - next.bias.mean;
  const u = q.reading.u;
  // With tries, the posterior's spread covers reading and printer together; it is split in the ratio of the prior's.
  const total = u ** 2 + q.growth ** 2 + prior.sd ** 2 || 1;
  const variances = [
    { name: 'this printer with this plastic', share: (next.bias.sd ** 2 * prior.sd ** 2) / total },
    { name: 'how a size like this shrinks', share: (next.bias.sd ** 2 * q.growth ** 2) / total },
    { name: 'the readings', share: (next.bias.sd ** 2 * u ** 2) / total },
    { name: 'print to print', share: s ** 2 },
  ].filter(v => v.share > 0);
  const sum = variances.reduce((all, v) => all + v.share, 0);
  return {
    mate: q.mate,
    kind: q.kind,
    around: q.around,
    dimension: q.state.dimension,
    reading: { ...q.reading, source: q.state.source ?? 'seat' },
    window: { min: q.scale.min, max: q.scale.max },
    model,
    proposed,
    clearance,
    // Nothing is ever certain to fail.
    pRight: Math.max(LEAST_CHANCE, chanceRight(expectationOf(q, next.posterior, s), q.scale, model)),
    steps: [
      { step: 'reading', amount: q.reading.value, u },
      { step: 'allowance', amount: proposed - q.reading.value - compensation - lesson, u: 0 },
      { step: 'compensation', amount: compensation, u: Math.hypot(prior.sd, q.growth) },
      { step: 'lesson', amount: lesson, u: 0 },
      ...(q.own === undefined ? [] : [{ step: 'own' as const, amount: model - proposed, u: 0 }]),
    ],
    prior: { mean: prior.mean + q.shift, sd: Math.hypot(prior.sd, q.growth) },
    shift: q.shift,
    scatter: s,
    calibration: prior.calibration,
    jobs: prior.jobs ?? 0,
    bias: { mean: next.bias.mean + q.shift, sd: next.bias.sd },
    sd,
    doubts: variances.map(v => ({ ...v, share: v.share / sum })).sort((a, b) => b.share - a.share),
    reason: next.reason,
    tries: trials.filter(t => t.mates[q.id] && !t.mates[q.id]!.rung).length,
    laddered: trials.some(t => t.mates[q.id]?.rung),
    posterior: next.posterior,
  };
}

/** Chance that the next print sits right with another drawn number, or another window. */
export function chanceIf(
  ledger: MateLedger,
  { model = ledger.model, window = ledger.window }: { model?: number; window?: MateLedger['window'] },
): number {
  const { mate, reading, shift, posterior, scatter } = ledger;
  const scale = verdictScale(window, mate.want.window.unit);
  const own = { id: mate.id, side: mate.side, group: '', reading, scale, shift };
  return chanceRight(expectationOf(own, posterior, scatter), window, model);
}
