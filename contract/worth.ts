import { z } from 'zod';

const Amount = z.number().min(0);
/** What the workshop made, month by month, oldest first: see core/work/months.ts. */
export const WorthAnswer = z.object({
  months: z.array(
    z.object({
      month: z.string().regex(/^\d{4}-\d{2}$/),
      pieces: Amount,
      failed: Amount,
      printHours: Amount,
      grams: Amount,
      cost: Amount,
      ownHours: Amount,
      jobs: Amount,
      bought: Amount,
    }),
  ),
});
export type WorthAnswer = z.infer<typeof WorthAnswer>;
