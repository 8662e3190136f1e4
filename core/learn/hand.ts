import { phi } from '../fit/probability';
import type { Verdict } from './verdict';
import { chanceOfVerdict, type VerdictScale } from './verdict-scale';

/**
 * Whose hand judged: one calls “tight” early, another late. A hand’s edges lie so much beyond the window’s, mm of the
 * whole width: above 0 it wants more clearance for the same word. Learned from tries whose clearance was measured.
 */
export interface HandSeen {
  verdict: Verdict;
  /** Female minus male, both measured, and how sure that is. */
  clearance: { value: number; u: number };
  /** By the window alone. */
  scale: VerdictScale;
}

/** Of a hand that nobody knows. Common practice, no source. */
export const HAND_PRIOR = { mean: 0, sd: 0.05 };

/** Looked for so far, mm: beyond it another thing was judged. */
const REACH = 0.4;
const STEP = 0.005;

/** Nobody’s hand is called so: a lesson’s kind of surface is. */
const HAND = 'hand ';

/** Under which lessons of a hand are kept; two spellings of a name that differ in case and spaces are one. */
export const lessonOfHand = (name: string): string => HAND + name.trim().replace(/\s+/g, ' ').toLowerCase();

/** The hand of a lesson; null for one of a printer. */
export const handOfLesson = (surface: string): string | null =>
  surface.startsWith(HAND) ? surface.slice(HAND.length) : null;

/**
 * What tries say of a hand: from a belief that is so wide that they alone speak, to what is believed after them.
 * @param shared sd of what all of these clearances have in common: the reading’s
 */
export function handAfter(seen: readonly HandSeen[], shared: number) {
  const before = { mean: 0, sd: REACH / 2 };
  let [total, mean, square] = [0, 0, 0];
  for (let h = -REACH; h <= REACH + STEP / 2; h += STEP) {
    const weight = seen.reduce(
      (w, { verdict, clearance, scale }) =>
        w * chanceOfVerdict(verdict, clearance.value - h, clearance.u, scale),
      Math.exp(-0.5 * (h / before.sd) ** 2),
    );
    total += weight;
    mean += weight * h;
    square += weight * h * h;
  }
  mean /= total;
  const sd = Math.hypot(Math.sqrt(Math.max(STEP ** 2, square / total - mean ** 2)), shared);
  return { before, after: { mean, sd: Math.min(sd, before.sd) } };
}

/** A hand is not gone by before it is more likely than this that it is off to that side. */
const SURE = 0.9;
/** Nor for less than this, mm: nobody feels it. */
const LEAST = 0.02;

/** By how much what a hand calls right is looser than the window says; 0 while that is not known. */
export const shiftOf = ({ mean, sd }: { mean: number; sd: number }): number =>
  Math.abs(mean) >= LEAST && phi(Math.abs(mean) / sd) > SURE ? mean : 0;

export const shiftedBy = (scale: VerdictScale, by: number): VerdictScale =>
  by === 0 ? scale : { ...scale, min: scale.min + by, max: scale.max + by };
