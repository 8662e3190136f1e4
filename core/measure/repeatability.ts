import jStat from 'jstat';
import { findOutliers } from './evaluate';

/** The repeatability of one instrument in these hands, learned from readings that were taken anyway. */
export interface Repeatability {
  /** sd, mm. */
  sd: number;
  readings: number;
  /** The number of things that were read more than once. */
  things: number;
  degreesOfFreedom: number;
}

/** The belief before any reading counts as this many degrees of freedom. Common practice, no source. */
const BELIEF_DEGREES = 4;

/**
 * Pooled standard deviation within groups (each one thing, one position, one instrument), shrunk towards the belief: s²
 * = (ν₀s₀² + Σ(nᵢ − 1)sᵢ²) / (ν₀ + Σ(nᵢ − 1)). Groups with an outlier are left out, since a slip says nothing about the
 * hand. No instrument repeats better than its steps allow.
 * @param groups mm @param believed sd, mm
 * @returns null where nothing was read twice
 */
export function learnRepeatability(
  groups: readonly (readonly number[])[],
  believed: number,
  resolution: number,
): Repeatability | null {
  const sound = groups.filter(g => g.length >= 2 && findOutliers(g, resolution).length === 0);
  if (sound.length === 0) return null;
  const degrees = sound.reduce((sum, g) => sum + g.length - 1, 0);
  const squares = sound.reduce((sum, g) => sum + (g.length - 1) * jStat.stdev([...g], true) ** 2, 0);
  const sd = Math.sqrt((BELIEF_DEGREES * believed ** 2 + squares) / (BELIEF_DEGREES + degrees));
  return {
    sd: Math.max(sd, resolution / Math.sqrt(12)),
    readings: sound.reduce((sum, g) => sum + g.length, 0),
    things: sound.length,
    degreesOfFreedom: degrees,
  };
}
