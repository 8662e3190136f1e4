/** The stages of a job, and the next step on the way through them. */
export const STAGES = ['brief', 'measure', 'fit', 'shape', 'print', 'try', 'keep'] as const;
export type Stage = (typeof STAGES)[number];

export interface NextStep {
  stage: Stage;
  /** On the button. */
  action: string;
  /** Why, beside it. */
  reason: string;
  /** The dimension or mate concerned. */
  key?: string;
  /** Whether the next step is the maker's rather than the printer's. */
  waits: boolean;
}
