import jStat from 'jstat';

/** Beyond so many sd a normal has less than 1e-15 left. */
const FAR = 8;

/** Chance that a normal quantity falls in [min, max]. A spread of 0 gives 0 or 1. */
export function chanceWithin(min: number, max: number, mean: number, sd: number): number {
  if (sd <= 0) return mean >= min && mean <= max ? 1 : 0;
  const [low, high] = [(min - mean) / sd, (max - mean) / sd];
  // Most questions are about what is far off: nothing of a normal lies there.
  if (low > FAR || high < -FAR) return 0;
  return phi(high) - phi(low);
}

/** The standard normal's cumulative chance. */
export const phi = (z: number): number => jStat.normal.cdf(z, 0, 1);
