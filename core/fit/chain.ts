/**
 * A stack of sizes: a gap that is the sum of lengths, some positive and some negative. mm. Worst case adds every
 * tolerance; root-sum-square adds standard uncertainties (JCGM 100:2008, 5.1.2).
 */
export interface Link {
  name: string;
  value: number;
  /** Its largest deviation, ±. */
  tolerance: number;
  /** Standard uncertainty. */
  u: number;
  /** +1 where it makes the result larger, −1 smaller. */
  sign: 1 | -1;
}

export interface Chain {
  value: number;
  /** ± at worst. */
  worst: number;
  u: number;
  /** Each link's share of the variance, in the order of the links; all 0 where nothing is uncertain. */
  shares: number[];
}

/** @throws RangeError without links or with a negative tolerance */
export function stack(links: readonly Link[]): Chain {
  if (links.length === 0) throw new RangeError('A chain has at least one link.');
  if (links.some(l => !(l.tolerance >= 0 && l.u >= 0))) throw new RangeError('A tolerance is 0 or more.');
  const variance = links.reduce((sum, l) => sum + l.u ** 2, 0);
  return {
    value: links.reduce((sum, l) => sum + l.sign * l.value, 0),
    worst: links.reduce((sum, l) => sum + l.tolerance, 0),
    u: Math.sqrt(variance),
    shares: links.map(l => (variance === 0 ? 0 : l.u ** 2 / variance)),
  };
}
