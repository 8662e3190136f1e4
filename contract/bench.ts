import { z } from 'zod';
import { VERDICTS } from '../core/learn/verdict';

/** What the practice bench answers. */
export const BenchPrint = z.object({ printId: z.string() });
export const BenchVerdicts = z.object({ verdicts: z.record(z.string(), z.enum(VERDICTS)) });
export const BenchLadderVerdicts = z.object({ verdicts: z.array(z.enum(VERDICTS).nullable()) });
export const BenchReadings = z.object({ readings: z.record(z.string(), z.array(z.number())) });
export const BenchSent = z.object({ sent: z.literal(true) });
