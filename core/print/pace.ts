import type { Estimate } from './time';
import { secondsAt } from './time';

/**
 * How much slower a printer is than it was taken to be, learned from prints whose hours were noted. The factor belongs
 * to moving, not to the whole: what waits for layers to cool takes as long on any printer, and so teaches little.
 */

export interface NotedPrint {
  /** What was expected of it at pace 1. */
  expected: Pick<Estimate, 'times' | 'start'>;
  /** What it took, s, heating included. */
  took: number;
}

/** What is believed of a printer's pace, on a grid of its logarithm. */
export interface Pace {
  chances: readonly { pace: number; chance: number }[];
  /** How many prints it was learned from. */
  noted: number;
}

const [REACH, STEPS] = [2, 241];
/** Doubt about a pace that nobody noted, sd of its logarithm; less where the machine's own speeds are known. */
const DOUBT = { unknown: 0.5, described: 0.15 };
/** Scatter of one noted time about its expectation: of its logarithm, with the wide tails of Student's t. */
const [SCATTER, FREEDOM] = [0.08, 4];

export function paceOf(noted: readonly NotedPrint[], machine: keyof typeof DOUBT = 'unknown'): Pace {
  const doubt = DOUBT[machine];
  const grid = Array.from({ length: STEPS }, (_, i) => -REACH + (2 * REACH * i) / (STEPS - 1));
  const logs = grid.map(l => {
    let sum = -(l * l) / (2 * doubt * doubt);
    for (const { expected, took } of noted) {
      const off = Math.log(took / secondsAt(expected, Math.exp(l))) / SCATTER;
      sum -= ((FREEDOM + 1) / 2) * Math.log(1 + (off * off) / FREEDOM);
    }
    return sum;
  });
  const most = Math.max(...logs);
  const weights = logs.map(l => Math.exp(l - most));
  const total = weights.reduce((a, b) => a + b, 0);
  return {
    chances: grid.map((l, i) => ({ pace: Math.exp(l), chance: weights[i]! / total })),
    noted: noted.length,
  };
}

export interface TimeBelief {
  /** Middle, and where nine of ten lie, s. */
  seconds: number;
  low: number;
  high: number;
  /** sd about the middle, s. */
  u: number;
}

/** What the estimate itself leaves open, sd of its logarithm. Measured on toolpaths of the tests' own. */
const OWN = 0.05;

/** How long a print takes with what is believed of the printer's pace. */
export function timeOf(estimate: Pick<Estimate, 'times' | 'start'>, { chances }: Pace): TimeBelief {
  const at = chances.map(({ pace, chance }) => ({ seconds: secondsAt(estimate, pace), chance }));
  const mean = at.reduce((sum, a) => sum + a.chance * Math.log(a.seconds), 0);
  const spread = at.reduce((sum, a) => sum + a.chance * (Math.log(a.seconds) - mean) ** 2, 0);
  const sd = Math.sqrt(spread + OWN ** 2);
  const middle = Math.exp(mean);
  return {
    seconds: middle,
    low: middle * Math.exp(-1.645 * sd),
    high: middle * Math.exp(1.645 * sd),
    u: middle * sd,
  };
}
