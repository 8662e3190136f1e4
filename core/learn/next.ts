import { bestNumber, chanceRight, type Expectation, largest, worthOf } from '../fit/best-number';
import { chanceWithin } from '../fit/probability';
import type { Preference } from '../fit/wants';
import { formatPlain, formatSigned } from '../quantity/format';
import { drawnClearance, drawnTo, type LearnMate, modelFor, type Observation } from './likelihood';
import {
  type GroupPosterior,
  type GroupPrior,
  groupPosterior,
  type MatePosterior,
  type Trial,
} from './posterior';
import type { Sense, SignedUnit } from './signed';
import { MARK_OF, VERDICT_WORDS, type Verdict } from './verdict';
import type { VerdictScale } from './verdict-scale';

export interface NextMate extends LearnMate {
  prefer?: Preference;
  /** A number that is built whatever the tries say. */
  own?: number;
  /** Its name in sentences. */
  name?: string;
  /** Judged by an amount rather than a feel: the words for being off to either side, and its unit. */
  signed?: { sense: Sense; unit: SignedUnit };
  /** The name of its number: mates that share a number get the one that is best for all. Its id where left out. */
  number?: string;
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
      /** What is built: the maker's own number, otherwise the proposed one. */
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
  /** The current belief about the part that a group's mates share. */
  shared: Record<string, { mean: number; sd: number }>;
}

/** A surface that sat right keeps its number unless moving it gains more than this chance. */
const LEAVE_ALONE = 0.06;

/**
 * The model numbers of the next version: each maximises the chance that its mate is right next time.
 * A pure function of the priors and the evidence.
 * @throws RangeError when a mate's group has no prior
 */
export function nextVersion(question: NextQuestion): NextAnswer {
  const { repeatability: s, trials } = question;
  const answer: NextAnswer = { mates: {}, pAllRight: 1, reasons: [], shared: {} };
  const groups: { prior: GroupPrior; posterior: GroupPosterior }[] = [];
  const known = new Map<string, Known>();
  for (const [group, mates] of groupMates(question.mates)) {
    const prior = question.priors[group];
    if (!prior) throw new RangeError(`Got no prior for “${group}”: give a mean and sd.`);
    const posterior = groupPosterior(mates, prior, s, trials);
    groups.push({ prior, posterior });
    answer.shared[group] = posterior.shared;
    for (const mate of mates) {
      const own = posterior.mates.get(mate.id)!;
      const scatter = prior.scatter ?? s;
      const alone = bestModel(mate, own, scatter, trials);
      known.set(mate.id, { mate, own, prior, scatter, alone });
    }
  }
  const shared = sharedNumbers([...known.values()]);
  for (const { mate, own, prior, scatter, alone } of known.values()) {
    const common = shared.get(mate.id);
    const proposed = common?.model ?? alone;
    const model = mate.own ?? proposed;
    const pRight = chanceRight(expectationOf(mate, own, scatter), mate.scale, model);
    const reason = reasonFor(mate, proposed, own, prior, trials);
    answer.mates[mate.id] = {
      model,
      proposed,
      pRight,
      bias: { mean: own.mean, sd: own.sd },
      posterior: own,
      reason: common ? `${reason} ${common.words}` : reason,
    };
  }
  for (const { prior, posterior } of groups) {
    answer.pAllRight *= posterior.chanceAll(mate => {
      const { min, max } = mate.scale;
      const right = tabled(clearance => chanceWithin(min, max, clearance, prior.scatter ?? s));
      const drawn = drawnClearance(mate, answer.mates[mate.id]!.model);
      return beta => right(drawn - beta);
    });
  }
  // In the order of the question, not of the groups.
  answer.reasons = question.mates.map(mate => answer.mates[mate.id]!.reason);
  return answer;
}

/** A mate with all that is known about it before its number is chosen. */
interface Known {
  mate: NextMate;
  own: MatePosterior;
  prior: GroupPrior;
  scatter: number;
  /** The best number for this mate alone. */
  alone: number;
}

/** Where several mates share a number, the one that is most likely right for all of them. */
function sharedNumbers(all: readonly Known[]): Map<string, { model: number; words: string }> {
  const found = new Map<string, { model: number; words: string }>();
  for (const { mate } of all) {
    const those = all.filter(k => numberOf(k.mate) === numberOf(mate));
    if (those.length < 2 || found.has(mate.id)) continue;
    const worths = those.map(k => ({ ...k, expect: expectationOf(k.mate, k.own, k.scatter) }));
    const together = (model: number) =>
      worths.reduce(
        (chance, k) => chance * k.expect(model, worthOf(k.mate.scale, k.mate.prefer ?? 'none')),
        1,
      );
    const alone = those.map(k => k.alone);
    const model = largest(together, Math.min(...alone), Math.max(...alone));
    for (const k of those) {
      const others = those.filter(o => o !== k).map(o => `“${o.mate.name ?? o.mate.id}”`);
      const apart = those.some(o => Math.abs(o.alone - model) > LEAST_FELT);
      found.set(k.mate.id, {
        model,
        words: `It shares its number with ${others.join(' and ')}${apart ? `; alone it would be ${k.alone.toFixed(2)}` : ''}.`,
      });
    }
  }
  return found;
}

const numberOf = (mate: NextMate) => mate.number ?? mate.id;

function groupMates(mates: readonly NextMate[]): Map<string, NextMate[]> {
  const groups = new Map<string, NextMate[]>();
  for (const mate of mates) groups.set(mate.group, [...(groups.get(mate.group) ?? []), mate]);
  return groups;
}

/** The possible sizes of a print of a model number, given the belief about β and the scatter of a print. */
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

/** Step of a table of clearances, mm, far below any scatter, and its range to both sides. */
const TABLE_STEP = 0.001;
const TABLE_REACH = 4;

/** The same function, tabulated by steps of clearance: it is evaluated thousands of times. */
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

/**
 * After “tight” or “loose” the number moves by at least this, mm: the least that a hand can feel. Common practice, no
 * source.
 */
const LEAST_FELT = 0.02;
/**
 * The outer verdicts begin `beyond` outside the window: a number moved by less than most of that would not be right
 * either.
 */
const SHARE_OF_BEYOND = 0.8;
const isOuter = (verdict: Verdict) => verdict === 'wont-go' || verdict === 'drops-off';

/** At least this share of what was out of tolerance is taken back, whatever the belief about the printer. Practice. */
const SHARE_OF_EXCESS = 0.5;
/**
 * A step that did not get out of “won't go” or “drops off” is followed by one that is longer by this factor. Practice.
 */
const LONGER = 1.6;

/**
 * A number that differs from one that failed by at least what a hand can tell, counted in drawn clearance: after “won't
 * go” or “tight” it is looser, after “loose” or “drops off” tighter. Where verdicts contradict each other, the last one
 * is followed.
 * @param drawn the clearance that would be drawn without these verdicts, mm
 */
function awayFromMisses(mate: NextMate, drawn: number, trials: readonly Trial[]): number {
  const misses = trials.flatMap(({ mates }) => {
    const seen = mates[mate.id];
    return seen ? missOf(seen, mate) : [];
  });
  const boundOf = ({ way, at, by }: Miss) => at + way * by;
  let least = Math.max(...misses.filter(m => m.way > 0).map(boundOf));
  let most = Math.min(...misses.filter(m => m.way < 0).map(boundOf));
  const last = misses.at(-1);
  const before = misses.at(-2);
  if (last && least > most)
    return last.way > 0 ? Math.max(boundOf(last), drawn) : Math.min(boundOf(last), drawn);
  if (before?.outer && last?.outer && last.way === before.way) {
    const step = Math.abs(last.at - before.at) * LONGER;
    const other = last.way > 0 ? most : least;
    // Not beyond the middle of what is left, where the other side is known.
    const reach = Number.isFinite(other) ? Math.min(step, Math.abs(other - last.at) / 2) : step;
    if (last.way > 0) least = Math.max(least, last.at + reach);
    else most = Math.min(most, last.at - reach);
  }
  return Math.min(most, Math.max(least, drawn));
}

/**
 * A print that did not sit right: in which direction the next one has to go, and by how much at least. Drawn clearance,
 * mm.
 */
interface Miss {
  way: 1 | -1;
  at: number;
  by: number;
  outer: boolean;
}

function missOf(seen: Observation, mate: NextMate): Miss[] {
  const at = drawnTo(mate, seen);
  if (seen.off) {
    const { min, max } = mate.scale;
    const excess = Math.max(seen.off.value - max, min - seen.off.value);
    if (excess <= 0) return [];
    return [
      {
        way: seen.off.value > max ? -1 : 1,
        at,
        by: Math.max(LEAST_FELT, SHARE_OF_EXCESS * excess),
        outer: false,
      },
    ];
  }
  const { verdict } = seen;
  // A verdict by another want says nothing about this one, and one ring of a ladder is one of many.
  if (!verdict || verdict === 'right' || seen.rung) return [];
  if (!sameScale(seen.scale ?? mate.scale, mate.scale)) return [];
  const outer = isOuter(verdict);
  return [
    {
      way: MARK_OF[verdict] === 'tight' ? 1 : -1,
      at,
      by: outer ? SHARE_OF_BEYOND * mate.scale.beyond : LEAST_FELT,
      outer,
    },
  ];
}

const sameScale = (a: VerdictScale, b: VerdictScale) =>
  Math.abs(a.min - b.min) < 1e-6 && Math.abs(a.max - b.max) < 1e-6;

function bestModel(mate: NextMate, own: MatePosterior, s: number, trials: readonly Trial[]): number {
  const { min, max } = mate.scale;
  const prefer = mate.prefer ?? 'none';
  const expect = expectationOf(mate, own, s);
  const modelOf = (clearance: number) => modelFor(mate, clearance);
  const middle = (min + max) / 2 + own.mean;
  const reach = max - min + 4 * Math.hypot(own.sd, s);
  const model = bestNumber(expect, mate.scale, prefer, modelOf(middle - reach), modelOf(middle + reach));
  const sat = trials.findLast(t => t.mates[mate.id])?.mates[mate.id];
  const worthy = worthOf(mate.scale, prefer);
  const worth = (number: number) => expect(number, worthy);
  if (sat && !sat.rung && satRight(sat, mate)) {
    // What sat right on a gauge is drawn at the same distance from the object.
    const same = sat.gauge ? modelOf(drawnTo(mate, sat)) : sat.model;
    if (worth(same) > worth(model) - LEAVE_ALONE) return same;
  }
  return modelOf(awayFromMisses(mate, drawnClearance(mate, model), trials));
}

const satRight = ({ verdict, off }: Observation, { scale }: NextMate): boolean =>
  off ? off.value >= scale.min && off.value <= scale.max : verdict === 'right';

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
  if (mate.signed) return signedReason(name, model, mate, mate.signed, own, last);
  const shift = mate.shift ?? 0;
  const tighter = (bias: number) =>
    `${formatPlain(Math.abs(bias + shift))} ${bias + shift < 0 ? 'looser' : 'tighter'} than drawn`;
  if (!last && mate.elsewhere?.length) {
    const words = [...new Set(mate.elsewhere.flatMap(e => e.words ?? []))].join(' and ');
    const off = own.mean - prior.mean;
    return `${name}: not tried this way yet. What ${words || 'other prints'} taught of the object carries over: ${Math.abs(off) < 0.005 ? 'its reading holds' : `it is ${formatPlain(Math.abs(off))} ${off > 0 ? 'tighter' : 'looser'} than its reading says`}; a print is expected to come out ${tighter(own.mean)}, give or take ${formatPlain(own.sd)}.`;
  }
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

const UNIT: Record<SignedUnit, string> = { mm: ' mm', deg: '°' };

/** “0.40 mm too long”; “just right” within half a hundredth. */
export const offWords = (off: number, { sense, unit }: NonNullable<NextMate['signed']>): string =>
  Math.abs(off) < 0.005
    ? 'just right'
    : `${formatPlain(Math.abs(off))}${UNIT[unit]} ${off > 0 ? sense.more : sense.less}`;

function signedReason(
  name: string,
  model: number,
  mate: NextMate,
  signed: NonNullable<NextMate['signed']>,
  own: MatePosterior,
  last: Observation | undefined,
): string {
  const doubt = `give or take ${formatPlain(own.sd)}${UNIT[signed.unit]}`;
  if (!last?.off) return `${name}: not tried yet, ${doubt}.`;
  const change = model - last.model;
  const said = `the last try was ${offWords(last.off.value, signed)}`;
  if (Math.abs(change) < 0.005) return `${name}: ${said}, so its number stays, ${doubt}.`;
  const rate = mate.rate ?? 1;
  const goes = Math.abs(rate - 1) > 0.01 ? `, which moves it by ${formatSigned(rate * change)}` : '';
  return `${name}: ${said}, ${doubt}; the model number changes by ${formatSigned(change)}${goes}.`;
}

const saidOf = (verdict?: Verdict) =>
  verdict ? `the last try was “${VERDICT_WORDS[verdict]}”` : 'the print was measured';
