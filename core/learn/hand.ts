import { phi } from '../fit/probability';
import type { Verdict } from './verdict';
import { chanceOfVerdict, type VerdictScale } from './verdict-scale';

/**
 * The hand that judges: one calls “tight” early, another late. A hand's edges lie this far beyond the window's, mm of
 * the whole width: above 0 it wants more clearance for the same word. Learned from tries with a measured clearance.
 */
export interface HandSeen {
  verdict: Verdict;
  /** Clearance, female minus male, both measured, and its uncertainty. */
  clearance: { value: number; u: number };
  /** Judged by the window alone. */
  scale: VerdictScale;
}

/** For an unknown hand. Common practice, no source. */
export const HAND_PRIOR = { mean: 0, sd: 0.05 };

/** The range of the search, mm: beyond it something else was judged. */
const REACH = 0.4;
const STEP = 0.005;

/** No hand has this name: it is a lesson's kind of surface. */
const HAND = 'hand ';

/** The key of a hand's lessons; spellings of a name that differ in case and spaces are one. */
export const lessonOfHand = (name: string): string => HAND + name.trim().replace(/\s+/g, ' ').toLowerCase();

/** The hand of a lesson; null for one of a printer. */
export const handOfLesson = (surface: string): string | null =>
  surface.startsWith(HAND) ? surface.slice(HAND.length) : null;

/**
 * What tries say about a hand: a belief so wide that the tries alone decide, and the belief after them.
 * @param shared sd of the error that all of these clearances have in common: that of the reading
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

/** A hand's offset is used only when it is more likely than this to be on that side. */
const SURE = 0.9;
/** And only from this size, mm: nobody feels a smaller one. */
const LEAST = 0.02;

/** How much looser than the window says this hand wants it; 0 while unknown. */
export const shiftOf = ({ mean, sd }: { mean: number; sd: number }): number =>
  Math.abs(mean) >= LEAST && phi(Math.abs(mean) / sd) > SURE ? mean : 0;

export const shiftedBy = (scale: VerdictScale, by: number): VerdictScale =>
  by === 0 ? scale : { ...scale, min: scale.min + by, max: scale.max + by };
