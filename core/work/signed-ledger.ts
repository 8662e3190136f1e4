import { chanceRight } from '../fit/best-number';
import { growthOf } from '../fit/print-bias';
import type { LedgerStep } from '../fit/propose';
import type { SignedMate } from '../job/document';
import { counting } from '../job/history';
import { expectationOf, type NextAnswer, type NextMate } from '../learn/next';
import type { GroupPrior, MatePosterior, Trial } from '../learn/posterior';
import { SIGNED_PRIOR, type SignedUnit, unitOfKind } from '../learn/signed';
import { signedNext } from '../learn/signed-mate';
import type { DimensionState } from './dimension';
import type { LedgerInput } from './ledger-input';
import { asDrawn, LEAST_CHANCE } from './model-number';
import { outcomeOf } from './outcome';

/** The chain of a mate that is judged by an amount: from its target to its model number. mm or degrees. */
export interface SignedLedger {
  mate: SignedMate;
  unit: SignedUnit;
  dimension: DimensionState['dimension'];
  target: { value: number; u: number };
  /** The number that is built. */
  model: number;
  /** The number that the chain leads to. */
  proposed: number;
  /** How far off the print is expected to be. */
  off: number;
  pRight: number;
  /** Amounts add up to `model`. */
  steps: LedgerStep[];
  prior: { mean: number; sd: number };
  bias: { mean: number; sd: number };
  /** Print-to-print scatter, sd. */
  scatter: number;
  /** How much of the prior and the bias belongs to this size only. */
  shift: number;
  reason: string;
  tries: number;
  posterior: MatePosterior;
}

export interface SignedQuestion {
  mate: SignedMate;
  next: NextMate;
  state: DimensionState;
  prior: GroupPrior;
  tries: number;
}

/** The question for the learning engine about a part's signed mates. */
export interface SignedQuestions {
  questions: SignedQuestion[];
  unread: SignedMate[];
  priors: Record<string, GroupPrior>;
  trials: Trial[];
}

export function signedQuestions(input: LedgerInput): SignedQuestions {
  const { part, printers, dimensions } = input;
  const unread: SignedMate[] = [];
  const questions: SignedQuestion[] = [];
  const priors: Record<string, GroupPrior> = {};
  for (const mate of input.signed) {
    const state = dimensions.get(mate.other.dimension);
    if (!state?.evaluation) {
      unread.push(mate);
      continue;
    }
    const unit = unitOfKind(mate.kind);
    const group = groupOf(unit, part);
    const { value, standardUncertainty: u } = state.evaluation;
    const prior = SIGNED_PRIOR[unit];
    priors[group] = prior;
    // A length shrinks in proportion to its size; a position may be measured from anywhere.
    const grown = mate.kind === 'length' ? growthOf(Math.abs(value), printers.shrinkage(part)) : null;
    const next: NextMate = {
      ...signedNext({
        ...mate,
        group,
        target: { value, u },
        own: input.own?.get(mate.id),
      }),
      shift: grown?.smaller ?? 0,
      growth: grown?.sd ?? 0,
    };
    questions.push({ mate, next, state, prior, tries: 0 });
  }
  const trials = trialsOf(questions, input);
  const counted = questions.map(q => ({ ...q, tries: trials.filter(t => t.mates[q.mate.id]).length }));
  return { questions: counted, unread, priors, trials };
}

const groupOf = (unit: SignedUnit, made: { printerId: string | null; materialId: string | null }) =>
  ['signed', unit, made.printerId, made.materialId].join('/');

/** The verdicts on each print. How far off it is belongs to the number, whatever plastic it was printed in. */
function trialsOf(questions: readonly SignedQuestion[], { history }: Pick<LedgerInput, 'history'>): Trial[] {
  const { versions, prints, ...judged } = counting(history);
  return prints.flatMap(print => {
    const version = versions.find(v => v.id === print.versionId)!;
    const said = outcomeOf(print, version, judged)?.said ?? {};
    const mates: Trial['mates'] = {};
    for (const { mate } of questions) {
      const off = said[mate.id]?.off;
      const drawn = version.signed.find(m => m.mateId === mate.id);
      // Another number was drawn then: its verdict says nothing about this one.
      if (!off || !drawn || drawn.number !== mate.number) continue;
      mates[mate.id] = { model: drawn.model, off: { value: off.value, u: off.u } };
    }
    return Object.keys(mates).length > 0 ? [{ mates }] : [];
  });
}

export function signedChain(q: SignedQuestion, next: NextAnswer['mates'][string]): SignedLedger {
  const { mate, state, prior } = q;
  const target = q.next.reading;
  const { rate = 1, shift = 0 } = q.next;
  const scatter = prior.scatter ?? 0;
  const proposed = asDrawn(next.proposed);
  const model = q.next.own ?? proposed;
  const compensation = (prior.mean + shift) / rate;
  const lesson = (next.bias.mean - prior.mean) / rate;
  const expect = expectationOf(q.next, next.posterior, scatter);
  return {
    mate,
    unit: unitOfKind(mate.kind),
    dimension: state.dimension,
    target,
    model,
    proposed,
    off: rate * (model - target.value) - shift - next.bias.mean,
    pRight: Math.max(LEAST_CHANCE, chanceRight(expect, mate.tolerance, model)),
    steps: [
      { step: 'reading', amount: target.value, u: target.u },
      { step: 'allowance', amount: proposed - target.value - compensation - lesson, u: 0 },
      { step: 'compensation', amount: compensation, u: Math.hypot(prior.sd, q.next.growth ?? 0) },
      { step: 'lesson', amount: lesson, u: 0 },
      ...(q.next.own === undefined ? [] : [{ step: 'own' as const, amount: model - proposed, u: 0 }]),
    ],
    prior: { mean: prior.mean + shift, sd: Math.hypot(prior.sd, q.next.growth ?? 0) },
    bias: { mean: next.bias.mean + shift, sd: next.bias.sd },
    scatter,
    shift,
    reason: next.reason,
    tries: q.tries,
    posterior: next.posterior,
  };
}

/** Chance that the next print is right with another drawn number. */
export function chanceIfDrawn(ledger: SignedLedger, model: number): number {
  const { mate, target, posterior, scatter, shift } = ledger;
  const next = { ...signedNext({ ...mate, group: '', target }), shift };
  return chanceRight(expectationOf(next, posterior, scatter), mate.tolerance, model);
}
