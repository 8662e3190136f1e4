/** How a mate felt when the print was put on, tightest first. */
export const VERDICTS = ['wont-go', 'tight', 'right', 'loose', 'drops-off'] as const;
export type Verdict = (typeof VERDICTS)[number];

export const VERDICT_WORDS: Record<Verdict, string> = {
  'wont-go': 'won’t go',
  tight: 'tight',
  right: 'right',
  loose: 'loose',
  'drops-off': 'drops off',
};

/** The direction of a verdict: which way the number has to go. */
export const MARKS = ['tight', 'right', 'loose'] as const;
export type VerdictMark = (typeof MARKS)[number];

export const MARK_OF: Record<Verdict, VerdictMark> = {
  'wont-go': 'tight',
  tight: 'tight',
  right: 'right',
  loose: 'loose',
  'drops-off': 'loose',
};

/**
 * One mark for several surfaces: tight outranks loose, since a part that will not go on says nothing about the rest.
 */
export const markOf = (marks: readonly VerdictMark[]): VerdictMark | null =>
  (['tight', 'loose', 'right'] as const).find(m => marks.includes(m)) ?? null;
