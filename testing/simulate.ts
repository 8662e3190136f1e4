import { gauss } from '../core/bench/random';
import { type NextMate, nextVersion } from '../core/learn/next';
import { drawnClearance, type Trial } from '../core/learn/posterior';
import { verdictFor, verdictScale } from '../core/learn/verdict-scale';

/** A made-up job with known truth, to count prints until everything sits right. Lengths mm. */
export interface SimulatedWorld {
  mates: NextMate[];
  /** True β by mate. */
  beta: Record<string, number>;
  repeatability: number;
}

export interface SimulationPrior {
  inside: { mean: number; sd: number };
  outside: { mean: number; sd: number };
  repeatability: number;
}

/** Draws a world whose hyperparameters are `truth`; readings carry their own error. */
export function drawSimulation(
  random: () => number,
  truth: SimulationPrior,
  mateCount: number,
  window: number,
  readingU: number,
): SimulatedWorld {
  const shared = {
    inside: gauss(random, truth.inside.mean, truth.inside.sd),
    outside: gauss(random, truth.outside.mean, truth.outside.sd),
  };
  const beta: Record<string, number> = {};
  const mates = Array.from({ length: mateCount }, (_, i): NextMate => {
    const side = random() < 0.5 ? 'inside' : 'outside';
    const id = `m${i}`;
    beta[id] = shared[side] + gauss(random, 0, readingU);
    return {
      id,
      side,
      group: side,
      reading: { value: 20 + 20 * random(), u: readingU },
      scale: verdictScale({ min: 0.05, max: 0.05 + window }, 'mm'),
    };
  });
  return { mates, beta, repeatability: truth.repeatability };
}

export type Choose = (mates: readonly NextMate[], trials: readonly Trial[]) => Record<string, number>;

/** Prints until every mate is right; `most` when it never is. The scatter comes from `random`. */
export function printsToFit(world: SimulatedWorld, choose: Choose, random: () => number, most = 15): number {
  const trials: Trial[] = [];
  for (let print = 1; print <= most; print++) {
    const models = choose(world.mates, trials);
    const mates: Trial['mates'] = {};
    for (const mate of world.mates) {
      const clearance =
        drawnClearance(mate, models[mate.id]!) - world.beta[mate.id]! - gauss(random, 0, world.repeatability);
      mates[mate.id] = {
        model: models[mate.id]!,
        verdict: verdictFor(gauss(random, clearance, 0.02), mate.scale),
      };
    }
    trials.push({ mates });
    if (Object.values(mates).every(m => m.verdict === 'right')) return print;
  }
  return most;
}

/** The engine as the maker meets it. */
export const engine =
  (prior: SimulationPrior): Choose =>
  (mates, trials) => {
    const next = nextVersion({
      mates,
      priors: { inside: prior.inside, outside: prior.outside },
      repeatability: prior.repeatability,
      trials,
    });
    return Object.fromEntries(Object.entries(next.mates).map(([id, m]) => [id, m.model]));
  };

/** What makers do without it: nominal with the window's middle, then steps of 0.3 by feel. */
export const stepper: Choose = (mates, trials) =>
  Object.fromEntries(
    mates.map(mate => {
      const grow = mate.side === 'inside' ? 1 : -1;
      let model = mate.reading.value + (grow * (mate.scale.min + mate.scale.max)) / 2;
      for (const trial of trials) {
        const verdict = trial.mates[mate.id]?.verdict;
        if (verdict === 'tight' || verdict === 'wont-go') model += 0.3 * grow;
        if (verdict === 'loose' || verdict === 'drops-off') model -= 0.15 * grow;
      }
      return [mate.id, model];
    }),
  );

/**
 * An ideal reasoner by another road: particles drawn from the world's true hyperparameters, weighed by
 * exact verdict chances; it picks, mate by mate, the model number most often right.
 */
export function particleReasoner(truth: SimulationPrior, random: () => number, particles: number): Choose {
  const shared = Array.from({ length: particles }, () => ({
    inside: gauss(random, truth.inside.mean, truth.inside.sd),
    outside: gauss(random, truth.outside.mean, truth.outside.sd),
  }));
  const ownZ = Array.from({ length: particles }, () => Array.from({ length: 8 }, () => gauss(random, 0, 1)));
  return (mates, trials) => {
    const weights = shared.map((b, k) =>
      trials.reduce(
        (weight, trial) =>
          mates.reduce((w, mate, i) => {
            const seen = trial.mates[mate.id];
            if (!seen?.verdict) return w;
            const mean = drawnClearance(mate, seen.model) - b[mate.side] - ownZ[k]![i]! * mate.reading.u;
            return (
              w * verdictLikelihood(seen.verdict, mean, Math.hypot(truth.repeatability, 0.02), mate.scale)
            );
          }, weight),
        1,
      ),
    );
    return Object.fromEntries(
      mates.map((mate, i) => {
        const beta = shared.map((b, k) => b[mate.side] + ownZ[k]![i]! * mate.reading.u);
        const width = mate.scale.max - mate.scale.min;
        let best = { chance: -1, clearance: 0 };
        const low = Math.min(...beta) + mate.scale.min;
        const high = Math.max(...beta) + mate.scale.max;
        for (let c = low; c <= high; c += width / 12) {
          let chance = 0;
          for (let k = 0; k < beta.length; k++) {
            if (weights[k]! < 1e-12) continue;
            const z = (c - beta[k]! - (mate.scale.min + mate.scale.max) / 2) / truth.repeatability;
            const half = width / 2 / truth.repeatability;
            chance += weights[k]! * (logistic(half - z) - logistic(-half - z));
          }
          if (chance > best.chance) best = { chance, clearance: c };
        }
        return [mate.id, mate.reading.value + (mate.side === 'inside' ? best.clearance : -best.clearance)];
      }),
    );
  };
}

/** Φ within 0.0002, Bowling et al. (2009): cheap, and not the engine's own. */
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
