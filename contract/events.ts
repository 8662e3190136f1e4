import { z } from 'zod';

/** What the server tells every open window, as server-sent events. */
export const ServerEvent = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('job'),
    jobId: z.string(),
    revision: z.number(),
    /** The window it came from. */
    tab: z.string().nullable(),
  }),
  z.object({
    kind: z.literal('reading'),
    /** As the instrument sent it. */
    text: z.string(),
    instrumentId: z.string().nullable(),
    /** The dimension, where the sender knows it; otherwise the one in turn. */
    jobId: z.string().nullable(),
    dimensionId: z.string().nullable(),
  }),
  /** Another job is on the bench now. */
  z.object({ kind: z.literal('bench'), jobId: z.string().nullable() }),
  /** A photo came from a phone. */
  z.object({ kind: z.literal('photo'), jobId: z.string(), from: z.string() }),
  /** The list of paired phones has changed. */
  z.object({ kind: z.literal('phones') }),
  /** The current step of a long task that a window asked for. */
  z.object({ kind: z.literal('build'), buildId: z.string(), step: z.string() }),
]);
export type ServerEvent = z.infer<typeof ServerEvent>;
