import { z } from 'zod';
import { Month } from '../core/work/months';

/** What the workshop made, month by month, oldest first. */
export const WorthAnswer = z.object({ months: z.array(Month) });
export type WorthAnswer = z.infer<typeof WorthAnswer>;
