/**
 * Mates that are judged by an amount, not by a feel: how long, how far, how open, how proud. What is off is counted in
 * the sense in which its number grows. Lengths mm, angles degrees.
 */
export const SIGNED_KINDS = ['length', 'position', 'angle', 'flush'] as const;
export type SignedKind = (typeof SIGNED_KINDS)[number];

export type SignedUnit = 'mm' | 'deg';
export const unitOfKind = (kind: SignedKind): SignedUnit => (kind === 'angle' ? 'deg' : 'mm');

/** What the bench calls a print that is off to either side. */
export interface Sense {
  more: string;
  less: string;
}

/** Usual words; the maker may have others. */
export const USUAL_SENSE: Record<SignedKind, Sense> = {
  length: { more: 'too long', less: 'too short' },
  position: { more: 'too far out', less: 'too far in' },
  angle: { more: 'too open', less: 'too closed' },
  flush: { more: 'proud', less: 'sunk' },
};

/** How an amount was found, and how far it may be off then, sd; the eye is off by more where there is more to see. */
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
  // Sheets of 0.1, counted.
  paper: { mm: 0.06, deg: 1.5 },
  feeler: { mm: 0.03, deg: 1.5 },
  // Two wraps of a tape whose thickness is known.
  tape: { mm: 0.06, deg: 1.5 },
  caliper: { mm: 0.05, deg: 0.5 },
  protractor: { mm: 0.3, deg: 0.5 },
};

/** Standard uncertainty of an amount that was judged this way, in its unit. */
export const doubtOf = (by: JudgedBy, amount: number, unit: SignedUnit): number =>
  by === 'eye' ? Math.hypot(DOUBT.eye[unit], EYE_SHARE * amount) : DOUBT[by][unit];

/**
 * How much less than its number a print comes to, before anything was tried, and how prints of one number differ. Far
 * more often than with a bore it was not the printer: a face was taken for another, or a way round was read as straight.
 * Common practice, no source.
 */
export const SIGNED_PRIOR: Record<SignedUnit, { mean: number; sd: number; scatter: number; wild: number }> = {
  mm: { mean: 0, sd: 0.1, scatter: 0.05, wild: 0.15 },
  deg: { mean: 0, sd: 0.4, scatter: 0.2, wild: 0.15 },
};
