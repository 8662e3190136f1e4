import { z } from 'zod';

/** What an import did, job by job. */
export const ImportAnswer = z.object({
  jobs: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      outcome: z.enum(['added', 'updated', 'same', 'kept-ours', 'kept-both']),
      message: z.string(),
    }),
  ),
  /** Files that the bundle left out, since they were missing where it was made. */
  missing: z.number().int().default(0),
});
export type ImportAnswer = z.infer<typeof ImportAnswer>;
