import jStat from 'jstat';

/** Beyond this many sd a normal distribution has less than 1e-15 left. */
const FAR = 8;

/** Chance that a normal quantity falls in [min, max]. A spread of 0 gives 0 or 1. */
export function chanceWithin(min: number, max: number, mean: number, sd: number): number {
  if (sd <= 0) return mean >= min && mean <= max ? 1 : 0;
  const [low, high] = [(min - mean) / sd, (max - mean) / sd];
  // Most calls are about values far off, where a normal distribution has nothing left.
  if (low > FAR || high < -FAR) return 0;
  return phi(high) - phi(low);
}

/** Cumulative distribution function of the standard normal. */
export const phi = (z: number): number => jStat.normal.cdf(z, 0, 1);
