import { z } from 'zod';
import { Workshop } from '../core/job/workshop';

export const WorkshopAnswer = z.object({ revision: z.number().int(), workshop: Workshop });
export type WorkshopAnswer = z.infer<typeof WorkshopAnswer>;

/** The spread of readings, learned from all jobs, by instrument. */
export const RepeatabilityAnswer = z.object({
  instruments: z.array(
    z.object({
      instrumentId: z.string(),
      learned: z.object({
        sd: z.number(),
        readings: z.number(),
        things: z.number(),
        degreesOfFreedom: z.number(),
      }),
    }),
  ),
});
