import type { Side } from './wants';

/**
 * Trying the feel without plastic: the caliper's own jaws stand in for the part. They have no printer's bias, so the
 * maker's answers are about the want alone. Clearances across the whole width, mm.
 */
export type FeelAnswer = 'tighter' | 'right' | 'looser';

/** What is still open after the answers so far: the wanted clearance is between `low` and `high`. */
export interface FeelSearch {
  /** The current setting of the jaws. */
  clearance: number;
  low: number | null;
  high: number | null;
}

/** Jaws cannot be set more finely by hand. Common practice, no source. */
export const FINEST_STEP = 0.02;

export const startFeel = (window: { min: number; max: number }): FeelSearch => ({
  clearance: (window.min + window.max) / 2,
  low: null,
  high: null,
});

/** The number to set on the caliper: jaws stand in for our surface. @param reading the object's size, mm */
export const jawSetting = (side: Side, reading: number, clearance: number): number =>
  side === 'inside' ? reading + clearance : reading - clearance;

/**
 * The next setting: half a window beyond the last one until both sides are known, then half-way between them. @returns
 * null where the two sides are closer than jaws can be set: the last setting is the answer
 */
export function nextFeel(
  search: FeelSearch,
  answer: Exclude<FeelAnswer, 'right'>,
  window: { min: number; max: number },
): FeelSearch | null {
  const step = Math.max(FINEST_STEP, (window.max - window.min) / 2);
  // It felt tighter than wanted: more clearance.
  const low = answer === 'tighter' ? search.clearance : search.low;
  const high = answer === 'looser' ? search.clearance : search.high;
  if (low !== null && high !== null) {
    if (high - low < 2 * FINEST_STEP) return null;
    return { clearance: (low + high) / 2, low, high };
  }
  return { clearance: search.clearance + (answer === 'tighter' ? step : -step), low, high };
}

/** The window moved to what was felt: as wide as before, with its middle where it felt right. */
export function windowFelt(clearance: number, window: { min: number; max: number }) {
  const half = (window.max - window.min) / 2;
  return {
    min: Number((clearance - half).toFixed(3)),
    max: Number((clearance + half).toFixed(3)),
    unit: 'mm' as const,
  };
}
