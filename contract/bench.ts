import { z } from 'zod';
import { FAILURES } from '../core/learn/happened';
import { VERDICTS } from '../core/learn/verdict';

/** Answers of the practice bench. */
export const BenchPrint = z.object({
  printId: z.string(),
  /** In the practice printer's own time; null where its solid could not be built. */
  hours: z.number().nullable(),
  failed: z.enum(FAILURES).nullable(),
  /** For the file that it was given; null where it printed the version itself. */
  filed: z.object({ scale: z.number(), mirrored: z.boolean() }).nullable(),
});
export const BenchVerdicts = z.object({ verdicts: z.record(z.string(), z.enum(VERDICTS)) });
export const BenchLadderVerdicts = z.object({ verdicts: z.array(z.enum(VERDICTS).nullable()) });
export const BenchReadings = z.object({ readings: z.record(z.string(), z.array(z.number())) });
export const BenchSent = z.object({ sent: z.literal(true) });
