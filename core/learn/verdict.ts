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

/** What counts of a verdict at a glance: which way the number has to go. */
export const MARKS = ['tight', 'right', 'loose'] as const;
export type VerdictMark = (typeof MARKS)[number];

export const MARK_OF: Record<Verdict, VerdictMark> = {
  'wont-go': 'tight',
  tight: 'tight',
  right: 'right',
  loose: 'loose',
  'drops-off': 'loose',
};

/** One mark for several surfaces: tight outranks loose, since what will not go on tells nothing of the rest. */
export const markOf = (marks: readonly VerdictMark[]): VerdictMark | null =>
  (['tight', 'loose', 'right'] as const).find(m => marks.includes(m)) ?? null;
