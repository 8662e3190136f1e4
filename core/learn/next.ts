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
import { VERDICT_WORDS, type Verdict } from './verdict';

export interface NextMate extends LearnMate {
  prefer?: Preference;
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
      model: number;
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
      const model = bestModel(mate, own, s, trials);
      chosen.set(mate.id, model);
      const pRight = chanceRight(expectationOf(mate, own, s), mate.scale, model);
      answer.mates[mate.id] = {
        model,
        pRight,
        bias: { mean: own.mean, sd: own.sd },
        posterior: own,
        reason: reasonFor(mate, model, own, prior, trials),
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
export const expectationOf =
  (mate: LearnMate, { beta, weight }: MatePosterior, s: number): Expectation =>
  (model, of) => {
    const drawn = drawnClearance(mate, model);
    let sum = 0;
    for (let i = 0; i < beta.length; i++) if (weight[i]! > 1e-9) sum += weight[i]! * of(drawn - beta[i]!, s);
    return sum;
  };

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
  const worth = (number: number) => worthOf(expect, mate.scale, prefer, number);
  if (!sat?.rung && sat?.verdict === 'right' && worth(sat.model) > worth(model) - LEAVE_ALONE)
    return sat.model;
  return model;
}

function reasonFor(
  mate: NextMate,
  model: number,
  own: MatePosterior,
  prior: GroupPrior,
  trials: readonly Trial[],
): string {
  const name = mate.name ?? mate.id;
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
