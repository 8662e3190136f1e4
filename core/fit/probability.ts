import jStat from 'jstat';

/** Chance that a normal quantity falls in [min, max]. A spread of 0 gives 0 or 1. */
export function chanceWithin(min: number, max: number, mean: number, sd: number): number {
  if (sd <= 0) return mean >= min && mean <= max ? 1 : 0;
  return phi((max - mean) / sd) - phi((min - mean) / sd);
}

/** The standard normal's cumulative chance. */
export const phi = (z: number): number => jStat.normal.cdf(z, 0, 1);
