import type { QueueItem, QueueLadder } from '../../contract/queue';

/** What was chosen for a plate. */
export type Chosen = Readonly<Record<string, Choice>>;

export interface Choice {
  /** The plate's own words for it, see `PlateAsked`. */
  wish: string;
  printerId: string;
  materialId: string;
  /** What is recorded once it is printed; null for rings, which are judged, not counted. */
  print: { jobId: string; versionId: string; pieces: number; slice: string | null } | null;
}

/** @param slice the mate that a slice carries; null for the whole part */
export function choiceOf(item: QueueItem, pieces: number, slice: string | null): Choice {
  const { jobId, versionId, printerId, materialId } = item;
  const wish = slice ? `slice:${jobId}:${versionId}:${slice}` : `part:${jobId}:${versionId}:${pieces}`;
  return {
    wish,
    printerId,
    materialId,
    print: { jobId, versionId, pieces: slice ? 1 : pieces, slice },
  };
}

export const choiceOfLadder = ({ jobId, ladderId, printerId, materialId }: QueueLadder): Choice => ({
  wish: `ladder:${jobId}:${ladderId}`,
  printerId,
  materialId,
  print: null,
});
