/** What the server tells every open window, as server-sent events. */
export type ServerEvent =
  | { kind: 'job'; jobId: string; revision: number /** The window it came from. */; tab: string | null }
  | {
      kind: 'reading';
      /** As the instrument sent it. */
      text: string;
      instrumentId: string | null;
      /** For which dimension, where the sender knows; else the one in turn. */
      jobId: string | null;
      dimensionId: string | null;
    };
