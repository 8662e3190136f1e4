/**
 * Mates that are judged by an amount rather than a feel: how long, how far, how open, how proud. How far off it is
 * counts in the direction in which its number grows. Lengths mm, angles degrees.
 */
export const SIGNED_KINDS = ['length', 'position', 'angle', 'flush'] as const;
export type SignedKind = (typeof SIGNED_KINDS)[number];

export type SignedUnit = 'mm' | 'deg';
export const unitOfKind = (kind: SignedKind): SignedUnit => (kind === 'angle' ? 'deg' : 'mm');

/** The words for a print that is off to either side. */
export interface Sense {
  more: string;
  less: string;
}

/** The usual words; the maker may choose others. */
export const USUAL_SENSE: Record<SignedKind, Sense> = {
  length: { more: 'too long', less: 'too short' },
  position: { more: 'too far out', less: 'too far in' },
  angle: { more: 'too open', less: 'too closed' },
  flush: { more: 'proud', less: 'sunk' },
};

/** How an amount was judged, and its uncertainty for that method, sd; the eye is less sure of larger amounts. */
export const JUDGED_BY = ['eye', 'paper', 'feeler', 'tape', 'caliper', 'protractor'] as const;
export type JudgedBy = (typeof JUDGED_BY)[number];

export const JUDGED_WORDS: Record<JudgedBy, string> = {
  eye: 'by eye',
  paper: 'sheets of paper, 0.1 each',
  feeler: 'a feeler gauge',
  tape: 'wraps of known tape',
  caliper: 'a caliper',
  protractor: 'a protractor',
};

/** Share of the amount that an eye misjudges. Common practice, no source. */
const EYE_SHARE = 0.25;
/** sd of an amount, mm and degrees. Common practice, no source. */
const DOUBT: Record<JudgedBy, Record<SignedUnit, number>> = {
  eye: { mm: 0.3, deg: 1.5 },
  // Counted sheets of 0.1.
  paper: { mm: 0.06, deg: 1.5 },
  feeler: { mm: 0.03, deg: 1.5 },
  // Two wraps of a tape whose thickness is known.
  tape: { mm: 0.06, deg: 1.5 },
  caliper: { mm: 0.05, deg: 0.5 },
  protractor: { mm: 0.3, deg: 0.5 },
};

/** Standard uncertainty of an amount that was judged with this method, in its unit. */
export const doubtOf = (by: JudgedBy, amount: number, unit: SignedUnit): number =>
  by === 'eye' ? Math.hypot(DOUBT.eye[unit], EYE_SHARE * amount) : DOUBT[by][unit];

/**
 * How far a print falls short of its number before anything was tried, and how prints of one number differ. Far more
 * often than with a bore the printer is not the cause: one face was taken for another, or a curved way was measured
 * straight. Common practice, no source.
 */
export const SIGNED_PRIOR: Record<SignedUnit, { mean: number; sd: number; scatter: number; wild: number }> = {
  mm: { mean: 0, sd: 0.1, scatter: 0.05, wild: 0.15 },
  deg: { mean: 0, sd: 0.4, scatter: 0.2, wild: 0.15 },
};
