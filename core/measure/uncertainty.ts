import jStat from 'jstat';

/** One component of an uncertainty: its standard uncertainty and how well that is known. */
export interface Doubt {
  name: string;
  /** Standard uncertainty, in the result's unit (sensitivity already applied). */
  u: number;
  /** Degrees of freedom; Infinity where the figure was not estimated from readings. */
  degreesOfFreedom: number;
}

/** Root sum of squares. JCGM 100:2008, 5.1.2, for uncorrelated inputs. */
export const combine = (doubts: readonly Doubt[]): number => Math.hypot(...doubts.map(d => d.u));

/** Welch-Satterthwaite, JCGM 100:2008, G.4.1 (G.2b). Infinite when no finite part contributes. */
export function effectiveDegreesOfFreedom(doubts: readonly Doubt[]): number {
  const total = combine(doubts) ** 4;
  const parts = doubts.reduce((sum, d) => sum + d.u ** 4 / d.degreesOfFreedom, 0);
  return parts === 0 ? Infinity : total / parts;
}

/**
 * Coverage factor of Student's t for a two-sided level, JCGM 100:2008, G.3.2 and table G.2.
 * Degrees of freedom are truncated to the next lower whole number, as G.4.1 note 1 asks.
 */
export function coverageFactor(level: number, degreesOfFreedom: number): number {
  const whole = Math.max(1, Math.floor(degreesOfFreedom));
  // Beyond a million degrees of freedom the t distribution is normal to more digits than anybody reads.
  return jStat.studentt.inv((1 + level) / 2, Math.min(whole, 1e6));
}
