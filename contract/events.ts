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
    /** For which dimension, where the sender knows; else the one in turn. */
    jobId: z.string().nullable(),
    dimensionId: z.string().nullable(),
  }),
  /** Another job was laid on the bench. */
  z.object({ kind: z.literal('bench'), jobId: z.string().nullable() }),
  /** A photo came from a phone. */
  z.object({ kind: z.literal('photo'), jobId: z.string(), from: z.string() }),
  /** The phones that are let in are not the same any more. */
  z.object({ kind: z.literal('phones') }),
  /** What is being done of a long piece of work that some window asked for. */
  z.object({ kind: z.literal('build'), buildId: z.string(), step: z.string() }),
]);
export type ServerEvent = z.infer<typeof ServerEvent>;
