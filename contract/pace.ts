import { z } from 'zod';
import { Id } from '../core/job/fields';
import { Expected } from '../core/job/history/print';

/** Prints whose hours were noted, by printer, the latest first. */
export const PaceAnswer = z.object({
  noted: z.record(
    Id,
    z.array(z.object({ expected: Expected.pick({ times: true, start: true }), took: z.number().positive() })),
  ),
});
export type PaceAnswer = z.infer<typeof PaceAnswer>;
