import type { Estimate } from './time';
import { secondsAt } from './time';

/**
 * How much slower a printer is than assumed, learned from prints whose hours were noted. The factor applies to moving,
 * not to the whole time: waiting for layers to cool takes as long on any printer, and so teaches little.
 */

export interface NotedPrint {
  /** The expected time at pace 1. */
  expected: Pick<Estimate, 'times' | 'start'>;
  /** The actual time, s, heating included. */
  took: number;
}

/** The belief about a printer's pace, on a grid of its logarithm. */
export interface Pace {
  chances: readonly { pace: number; chance: number }[];
  /** How many prints it was learned from. */
  noted: number;
}

const [REACH, STEPS] = [2, 241];
/** Uncertainty of a pace before any noted time, sd of its logarithm; less where the machine's own speeds are known. */
const DOUBT = { unknown: 0.5, described: 0.15 };
/** Scatter of a noted time about the expected one: of its logarithm, with the wide tails of Student's t. */
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
  /** The middle, and the range that holds nine of ten, s. */
  seconds: number;
  low: number;
  high: number;
  /** sd about the middle, s. */
  u: number;
}

/** The uncertainty of the estimate itself, sd of its logarithm. Measured on toolpaths made by the tests. */
const OWN = 0.05;

/** The time of a print, given the belief about the printer's pace. */
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
