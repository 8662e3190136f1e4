import { gauss } from '../core/bench/random';
import { drawnClearance } from '../core/learn/likelihood';
import { type NextMate, nextVersion } from '../core/learn/next';
import type { Trial } from '../core/learn/posterior';
import { USUAL_SENSE } from '../core/learn/signed';
import { signedNext } from '../core/learn/signed-mate';
import { VERDICTS } from '../core/learn/verdict';
import { verdictFor, verdictScale } from '../core/learn/verdict-scale';

/** A simulated job with known truth, to count prints until everything sits right. Lengths mm. */
export interface SimulatedWorld {
  mates: NextMate[];
  /** True β by mate. */
  beta: Record<string, number>;
  repeatability: number;
  /** How much tighter than others this hand calls a clearance. */
  hand: number;
  /** Share of verdicts about something else. */
  slips: number;
}

/** The belief about printers; how often it is completely wrong is up to the engine. */
type Shared = Record<'inside' | 'outside' | 'signed', { mean: number; sd: number; wild?: number }>;
export interface SimulationPrior extends Omit<Shared, 'signed'> {
  /** For lengths; as for outsides where left out. */
  signed?: Shared['signed'];
  repeatability: number;
}

/** The world beyond its printer; all as usual where left out. */
export interface Oddities {
  /** Share of mates that are lengths judged by an amount. */
  signed?: number;
  /** Readings are worse than they claim by this factor. */
  readings?: number;
  hand?: number;
  slips?: number;
}

export const signedOf = (prior: SimulationPrior) => prior.signed ?? prior.outside;
const groupIn = (mate: NextMate): keyof Shared => (mate.signed ? 'signed' : mate.side);

/** Draws a world whose hyperparameters are `truth`; readings carry their own error. */
export function drawSimulation(
  random: () => number,
  truth: SimulationPrior,
  mateCount: number,
  window: number,
  readingU: number,
  { signed = 0, readings = 1, hand = 0, slips = 0 }: Oddities = {},
): SimulatedWorld {
  const shared = {
    inside: gauss(random, truth.inside.mean, truth.inside.sd),
    outside: gauss(random, truth.outside.mean, truth.outside.sd),
    signed: gauss(random, signedOf(truth).mean, signedOf(truth).sd),
  };
  const beta: Record<string, number> = {};
  const mates = Array.from({ length: mateCount }, (_, i): NextMate => {
    const id = `m${i}`;
    const isSigned = random() < signed;
    const mate = isSigned
      ? signedNext({
          id,
          kind: 'length',
          group: 'signed',
          target: { value: 10 + 20 * random(), u: readingU },
          tolerance: { min: -window / 2, max: window / 2 },
          sense: USUAL_SENSE.length,
          rate: 1,
        })
      : fitMate(id, random, window, readingU);
    beta[id] = shared[groupIn(mate)] + gauss(random, 0, readings * readingU);
    return mate;
  });
  return { mates, beta, repeatability: truth.repeatability, hand, slips };
}

function fitMate(id: string, random: () => number, window: number, u: number): NextMate {
  const side = random() < 0.5 ? 'inside' : 'outside';
  return {
    id,
    side,
    group: side,
    reading: { value: 20 + 20 * random(), u },
    scale: verdictScale({ min: 0.05, max: 0.05 + window }, 'mm'),
  };
}

export type Choose = (mates: readonly NextMate[], trials: readonly Trial[]) => Record<string, number>;

/** Uncertainty of an amount that was found with sheets of paper, sd. */
const OFF_U = 0.06;

/** Receives the announced chance of a print, and whether it was right. */
export type Heard = (print: { number: number; allRight: boolean }) => void;

/** Prints until every mate is right; `most` when it never is. `random` provides the scatter. */
export function printsToFit(
  world: SimulatedWorld,
  choose: Choose,
  random: () => number,
  most = 15,
  heard: Heard = () => {},
): number {
  const trials: Trial[] = [];
  for (let print = 1; print <= most; print++) {
    const models = choose(world.mates, trials);
    const mates: Trial['mates'] = {};
    let allRight = true;
    let saidRight = true;
    for (const mate of world.mates) {
      const model = models[mate.id]!;
      const clearance =
        drawnClearance(mate, model) - world.beta[mate.id]! - gauss(random, 0, world.repeatability);
      const seen = mate.signed
        ? seenOff(mate, model, clearance, random)
        : felt(mate, model, clearance, world, random);
      mates[mate.id] = seen.said;
      allRight &&= seen.isRight;
      saidRight &&= seen.saidRight;
    }
    heard({ number: print, allRight });
    trials.push({ mates });
    if (saidRight) return print;
  }
  return most;
}

function seenOff(mate: NextMate, model: number, off: number, random: () => number) {
  const { min, max } = mate.scale;
  const value = gauss(random, off, OFF_U);
  return {
    said: { model, off: { value, u: OFF_U } },
    isRight: off >= min && off <= max,
    saidRight: value >= min && value <= max,
  };
}

function felt(mate: NextMate, model: number, clearance: number, world: SimulatedWorld, random: () => number) {
  const perceived = clearance - world.hand;
  const true_ = verdictFor(perceived, mate.scale);
  const verdict =
    random() < world.slips
      ? VERDICTS[Math.floor(random() * VERDICTS.length)]!
      : verdictFor(gauss(random, perceived, 0.02), mate.scale);
  return { said: { model, verdict }, isRight: true_ === 'right', saidRight: verdict === 'right' };
}

/** The engine as the maker meets it. */
export const engine =
  (prior: SimulationPrior, announced: (pAllRight: number) => void = () => {}): Choose =>
  (mates, trials) => {
    const next = nextVersion({
      mates,
      priors: { inside: prior.inside, outside: prior.outside, signed: signedOf(prior) },
      repeatability: prior.repeatability,
      trials,
    });
    announced(next.pAllRight);
    return Object.fromEntries(Object.entries(next.mates).map(([id, m]) => [id, m.model]));
  };

/** What makers do without it: nominal with the window's middle, then steps of 0.3 by feel. */
export const stepper: Choose = (mates, trials) =>
  Object.fromEntries(
    mates.map(mate => {
      const grow = mate.side === 'inside' ? 1 : -1;
      let model = mate.reading.value + (grow * (mate.scale.min + mate.scale.max)) / 2;
      for (const trial of trials) {
        // What stands proud by an amount is reduced by that amount, as a maker does.
        const off = trial.mates[mate.id]?.off?.value;
        if (off !== undefined) model -= grow * (off - (mate.scale.min + mate.scale.max) / 2);
        const verdict = trial.mates[mate.id]?.verdict;
        if (verdict === 'tight' || verdict === 'wont-go') model += 0.3 * grow;
        if (verdict === 'loose' || verdict === 'drops-off') model -= 0.15 * grow;
      }
      return [mate.id, model];
    }),
  );

/** What the ideal reasoner knows about the world beyond its printer. */
export interface Known {
  /** Readings are worse than they claim by this factor. */
  readings?: number;
  hand?: number;
}

/**
 * An ideal reasoner by another method: particles drawn from the world's true hyperparameters, weighted by exact verdict
 * chances; mate by mate, it picks the model number that is right most often.
 */
export function particleReasoner(
  truth: SimulationPrior,
  random: () => number,
  particles: number,
  { readings = 1, hand = 0 }: Known = {},
): Choose {
  const shared = Array.from({ length: particles }, () => ({
    inside: gauss(random, truth.inside.mean, truth.inside.sd),
    outside: gauss(random, truth.outside.mean, truth.outside.sd),
    signed: gauss(random, signedOf(truth).mean, signedOf(truth).sd),
  }));
  const ownZ = Array.from({ length: particles }, () => Array.from({ length: 8 }, () => gauss(random, 0, 1)));
  const s = truth.repeatability;
  return (mates, trials) => {
    const betaOf = (mate: NextMate, i: number, k: number) =>
      shared[k]![groupIn(mate)] + ownZ[k]![i]! * readings * mate.reading.u + (mate.signed ? 0 : hand);
    const weights = shared.map((_, k) =>
      trials.reduce(
        (weight, trial) =>
          mates.reduce((w, mate, i) => {
            const seen = trial.mates[mate.id];
            if (!seen) return w;
            const mean = drawnClearance(mate, seen.model) - betaOf(mate, i, k);
            if (seen.off) return w * bell(seen.off.value - mean, Math.hypot(s, seen.off.u));
            return seen.verdict
              ? w * verdictLikelihood(seen.verdict, mean, Math.hypot(s, 0.02), mate.scale)
              : w;
          }, weight),
        1,
      ),
    );
    return Object.fromEntries(
      mates.map((mate, i) => {
        const beta = shared.map((_, k) => betaOf(mate, i, k));
        const width = mate.scale.max - mate.scale.min;
        let best = { chance: -1, clearance: 0 };
        const low = Math.min(...beta) + mate.scale.min;
        const high = Math.max(...beta) + mate.scale.max;
        for (let c = low; c <= high; c += width / 12) {
          let chance = 0;
          for (let k = 0; k < beta.length; k++) {
            if (weights[k]! < 1e-12) continue;
            const z = (c - beta[k]! - (mate.scale.min + mate.scale.max) / 2) / s;
            const half = width / 2 / s;
            chance += weights[k]! * (logistic(half - z) - logistic(-half - z));
          }
          if (chance > best.chance) best = { chance, clearance: c };
        }
        return [mate.id, mate.reading.value + (mate.side === 'inside' ? best.clearance : -best.clearance)];
      }),
    );
  };
}

const bell = (x: number, sd: number) => Math.exp(-0.5 * (x / sd) ** 2) / sd;

/** Φ within 0.0002, Bowling et al. (2009): cheap, and different from the engine's own. */
const logistic = (z: number) => 1 / (1 + Math.exp(-0.07056 * z ** 3 - 1.5976 * z));

function verdictLikelihood(verdict: string, mean: number, sd: number, scale: NextMate['scale']): number {
  const edges = [
    -Infinity,
    scale.min - scale.beyond,
    scale.min,
    scale.max,
    scale.max + scale.beyond,
    Infinity,
  ];
  const index = ['wont-go', 'tight', 'right', 'loose', 'drops-off'].indexOf(verdict);
  const at = (x: number) => (x === -Infinity ? 0 : x === Infinity ? 1 : logistic((x - mean) / sd));
  return Math.max(1e-9, at(edges[index + 1]!) - at(edges[index]!));
}
