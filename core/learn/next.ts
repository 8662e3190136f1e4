import { bestNumber, chanceRight, type Expectation, worthOf } from '../fit/best-number';
import { chanceWithin } from '../fit/probability';
import type { Preference } from '../fit/wants';
import { formatPlain, formatSigned } from '../quantity/format';
import {
  drawnClearance,
  type GroupPrior,
  groupPosterior,
  type LearnMate,
  type MatePosterior,
  type Trial,
} from './posterior';
import { MARK_OF, VERDICT_WORDS, type Verdict } from './verdict';
import type { VerdictScale } from './verdict-scale';

export interface NextMate extends LearnMate {
  prefer?: Preference;
  /** A number that is built whatever the tries say. */
  own?: number;
  /** How it is called in sentences. */
  name?: string;
}

export interface NextQuestion {
  mates: readonly NextMate[];
  priors: Record<string, GroupPrior>;
  repeatability: number;
  trials: readonly Trial[];
}

export interface NextAnswer {
  mates: Record<
    string,
    {
      /** What is built: the maker's own number, else what is proposed. */
      model: number;
      /** The number that the tries lead to. */
      proposed: number;
      pRight: number;
      bias: { mean: number; sd: number };
      posterior: MatePosterior;
      reason: string;
    }
  >;
  pAllRight: number;
  reasons: string[];
}

/** A surface that sat right keeps its number unless moving it wins more than this chance. */
const LEAVE_ALONE = 0.02;

/**
 * The model numbers of the next version: each maximises the chance that its mate is right next time.
 * A pure function of the priors and the evidence.
 * @throws RangeError when a mate's group has no prior
 */
export function nextVersion(question: NextQuestion): NextAnswer {
  const { repeatability: s, trials } = question;
  const answer: NextAnswer = { mates: {}, pAllRight: 1, reasons: [] };
  for (const [group, mates] of groupMates(question.mates)) {
    const prior = question.priors[group];
    if (!prior) throw new RangeError(`Got no prior for “${group}”: give a mean and sd.`);
    const posterior = groupPosterior(mates, prior, s, trials);
    const chosen = new Map<string, number>();
    for (const mate of mates) {
      const own = posterior.mates.get(mate.id)!;
      const proposed = bestModel(mate, own, s, trials);
      const model = mate.own ?? proposed;
      chosen.set(mate.id, model);
      const pRight = chanceRight(expectationOf(mate, own, s), mate.scale, model);
      answer.mates[mate.id] = {
        model,
        proposed,
        pRight,
        bias: { mean: own.mean, sd: own.sd },
        posterior: own,
        reason: reasonFor(mate, proposed, own, prior, trials),
      };
    }
    answer.pAllRight *= posterior.chanceAll((mate, beta) => rightAt(mate, chosen.get(mate.id)!, beta, s));
  }
  // In the order of the question, not by group.
  answer.reasons = question.mates.map(mate => answer.mates[mate.id]!.reason);
  return answer;
}

function groupMates(mates: readonly NextMate[]): Map<string, NextMate[]> {
  const groups = new Map<string, NextMate[]>();
  for (const mate of mates) groups.set(mate.group, [...(groups.get(mate.group) ?? []), mate]);
  return groups;
}

const rightAt = (mate: LearnMate, model: number, beta: number, s: number) =>
  chanceWithin(mate.scale.min, mate.scale.max, drawnClearance(mate, model) - beta, s);

/** The possible sizes of a print of a model number, over the belief about β and the scatter of a print. */
export function expectationOf(mate: LearnMate, { beta, weight }: MatePosterior, s: number): Expectation {
  const tables = new WeakMap<object, (clearance: number) => number>();
  return (model, of) => {
    const table = tables.get(of) ?? tabled(clearance => of(clearance, s));
    tables.set(of, table);
    const drawn = drawnClearance(mate, model);
    let sum = 0;
    for (let i = 0; i < beta.length; i++) sum += weight[i]! * table(drawn - beta[i]!);
    return sum;
  };
}

/** Steps of a table of clearances, mm, far under any scatter, and how far it reaches to both sides. */
const TABLE_STEP = 0.001;
const TABLE_REACH = 4;

/** The same function, worked out at each step of clearance once: it is asked for thousands of times. */
function tabled(of: (clearance: number) => number): (clearance: number) => number {
  const half = TABLE_REACH / TABLE_STEP;
  const known = new Float64Array(2 * half + 2).fill(Number.NaN);
  const at = (i: number): number => {
    if (Number.isNaN(known[i]!)) known[i] = of((i - half) * TABLE_STEP);
    return known[i]!;
  };
  return clearance => {
    if (Math.abs(clearance) >= TABLE_REACH) return of(clearance);
    const place = clearance / TABLE_STEP + half;
    const below = Math.floor(place);
    const low = at(below);
    return low + (place - below) * (at(below + 1) - low);
  };
}

/** After “tight” or “loose” the number moves by at least so much, mm: what a hand can feel. Common practice, no source. */
const LEAST_FELT = 0.02;
/** The outer verdicts begin `beyond` outside the window: a number nearer than most of that would not be right either. */
const SHARE_OF_BEYOND = 0.8;
const isOuter = (verdict: Verdict) => verdict === 'wont-go' || verdict === 'drops-off';

/** A step that did not get out of “won’t go”, or of “drops off”, is followed by one so much longer. Practice. */
const LONGER = 1.6;

/**
 * A number no nearer to what failed than a hand can tell, counted as drawn clearance: after “won’t go” or “tight” it
 * is looser, after “loose” or “drops off” tighter. Where verdicts contradict each other, the last one is followed.
 * @param drawn the clearance that would be drawn without them, mm
 */
function awayFromMisses(mate: NextMate, drawn: number, trials: readonly Trial[]): number {
  const misses = trials.flatMap(({ mates }) => {
    const seen = mates[mate.id];
    const verdict = seen?.verdict;
    // A verdict by another want says nothing of this one, and one ring of a ladder is one of many.
    if (!seen || !verdict || verdict === 'right' || seen.rung) return [];
    if (!sameScale(seen.scale ?? mate.scale, mate.scale)) return [];
    return [{ verdict, way: MARK_OF[verdict] === 'tight' ? 1 : -1, at: drawnClearance(mate, seen.model) }];
  });
  const boundOf = ({ verdict, way, at }: (typeof misses)[number]) =>
    at + way * (isOuter(verdict) ? SHARE_OF_BEYOND * mate.scale.beyond : LEAST_FELT);
  let least = Math.max(...misses.filter(m => m.way > 0).map(boundOf));
  let most = Math.min(...misses.filter(m => m.way < 0).map(boundOf));
  const last = misses.at(-1);
  const before = misses.at(-2);
  if (last && least > most)
    return last.way > 0 ? Math.max(boundOf(last), drawn) : Math.min(boundOf(last), drawn);
  if (before && last && last.verdict === before.verdict && isOuter(last.verdict)) {
    const step = Math.abs(last.at - before.at) * LONGER;
    const other = last.way > 0 ? most : least;
    // Not beyond the middle of what is left, where the other side is known.
    const reach = Number.isFinite(other) ? Math.min(step, Math.abs(other - last.at) / 2) : step;
    if (last.way > 0) least = Math.max(least, last.at + reach);
    else most = Math.min(most, last.at - reach);
  }
  return Math.min(most, Math.max(least, drawn));
}

const sameScale = (a: VerdictScale, b: VerdictScale) =>
  Math.abs(a.min - b.min) < 1e-6 && Math.abs(a.max - b.max) < 1e-6;

function bestModel(mate: NextMate, own: MatePosterior, s: number, trials: readonly Trial[]): number {
  const { min, max } = mate.scale;
  const prefer = mate.prefer ?? 'none';
  const expect = expectationOf(mate, own, s);
  const modelOf = (clearance: number) =>
    mate.reading.value + (mate.side === 'inside' ? 1 : -1) * (clearance + (mate.shift ?? 0));
  const middle = (min + max) / 2 + own.mean;
  const reach = max - min + 4 * Math.hypot(own.sd, s);
  const model = bestNumber(expect, mate.scale, prefer, modelOf(middle - reach), modelOf(middle + reach));
  const sat = trials.findLast(t => t.mates[mate.id])?.mates[mate.id];
  const worthy = worthOf(mate.scale, prefer);
  const worth = (number: number) => expect(number, worthy);
  if (!sat?.rung && sat?.verdict === 'right' && worth(sat.model) > worth(model) - LEAVE_ALONE)
    return sat.model;
  return modelOf(awayFromMisses(mate, drawnClearance(mate, model), trials));
}

function reasonFor(
  mate: NextMate,
  model: number,
  own: MatePosterior,
  prior: GroupPrior,
  trials: readonly Trial[],
): string {
  const name = mate.name ?? mate.id;
  if (mate.own !== undefined)
    return `${name}: ${mate.own.toFixed(2)} is a number of your own; the ledger would draw ${model.toFixed(2)}.`;
  const seen = trials.filter(t => t.mates[mate.id]);
  const last = seen.at(-1)?.mates[mate.id];
  const shift = mate.shift ?? 0;
  const tighter = (bias: number) =>
    `${formatPlain(Math.abs(bias + shift))} ${bias + shift < 0 ? 'looser' : 'tighter'} than drawn`;
  if (!last) {
    return `${name}: not tried yet; a print is expected to come out ${tighter(prior.mean)}, give or take ${formatPlain(own.sd)}.`;
  }
  if (last.rung)
    return `${name}: the ladder was tried, so it prints about ${tighter(own.mean)}, give or take ${formatPlain(own.sd)}.`;
  const change = model - last.model;
  const learned = `${tighter(own.mean)}, give or take ${formatPlain(own.sd)}`;
  if (Math.abs(change) < 0.005)
    return `${name}: ${saidOf(last.verdict)}, so its number stays; it prints about ${learned}.`;
  return `${name}: ${saidOf(last.verdict)}, so it prints about ${learned}; the model number changes by ${formatSigned(change)}.`;
}

const saidOf = (verdict?: Verdict) =>
  verdict ? `the last try was “${VERDICT_WORDS[verdict]}”` : 'the print was measured';
