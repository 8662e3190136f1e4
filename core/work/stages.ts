/** The stages of a job, and the next step on the way through them. */
export const STAGES = ['brief', 'measure', 'fit', 'shape', 'print', 'try', 'keep'] as const;
export type Stage = (typeof STAGES)[number];

export interface NextStep {
  stage: Stage;
  /** On the button. */
  action: string;
  /** Why, beside it. */
  reason: string;
  /** The dimension or mate it is about. */
  key?: string;
  /** Whether it is the maker's turn rather than the printer's. */
  waits: boolean;
}
