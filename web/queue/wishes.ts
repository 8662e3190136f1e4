import type { Hand, QueueAid, QueueItem } from '../../contract/queue';

/** A choice for a plate. */
export type Chosen = Readonly<Record<string, Choice>>;

export interface Choice {
  /** The plate's own notation for it, see `PlateAsked`. */
  wish: string;
  printerId: string;
  materialId: string;
  /** What is recorded once it is printed, by hand; nothing for rings and gauges, which are judged, not counted. */
  prints: {
    jobId: string;
    versionId: string;
    pieces: number;
    slice: string[] | null;
    hand: 'drawn' | 'other';
  }[];
}

/** What is printed of a version: the whole part in one hand, or a slice that carries a mate. */
export type Of = { hand: Hand } | { slice: string };

const HANDS_OF = { drawn: ['drawn'], other: ['other'], both: ['drawn', 'other'] } as const;

export function choiceOf(item: QueueItem, pieces: number, what: Of): Choice {
  const { jobId, versionId, printerId, materialId } = item;
  const slice = 'slice' in what ? what.slice : null;
  const hand = 'hand' in what ? what.hand : 'drawn';
  return {
    wish: slice ? `slice:${jobId}:${versionId}:${slice}` : `part:${jobId}:${versionId}:${pieces}:${hand}`,
    printerId,
    materialId,
    prints: HANDS_OF[hand].map(hand => ({
      jobId,
      versionId,
      pieces: slice ? 1 : pieces,
      slice: slice === null ? null : [slice],
      hand,
    })),
  };
}

export const choiceOfAid = ({ kind, jobId, id, printerId, materialId }: QueueAid): Choice => ({
  wish: `${kind}:${jobId}:${id}`,
  printerId,
  materialId,
  prints: [],
});
