import { z } from 'zod';

/** What an import did, job by job. */
export const ImportAnswer = z.object({
  jobs: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      outcome: z.enum(['added', 'updated', 'same', 'kept-ours']),
      message: z.string(),
    }),
  ),
});
export type ImportAnswer = z.infer<typeof ImportAnswer>;
