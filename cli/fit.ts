import { z } from 'zod';
import { proposeFit } from '../core/fit/propose';
import type { Command } from './command';

const Belief = z.object({ mean: z.number(), sd: z.number().min(0) });
const Input = z.object({
  side: z.enum(['inside', 'outside']),
  reading: z.object({ value: z.number().positive('A reading must be above 0.'), u: z.number().min(0) }),
  want: z
    .object({ min: z.number(), max: z.number(), unit: z.enum(['mm', 'strain']).default('mm') })
    .refine(w => w.min < w.max, { message: 'The least must be below the most.', path: ['max'] }),
  soft: z.enum(['none', 'ours', 'theirs']).optional(),
  prefer: z.enum(['none', 'loose', 'tight']).default('none'),
  printer: z.object({
    offset: Belief,
    scale: z.object({ mean: z.number().positive(), sd: z.number().min(0) }).default({ mean: 1, sd: 0 }),
    covariance: z.number().default(0),
    repeatability: z.number().min(0),
  }),
});

export const fitPropose: Command<z.infer<typeof Input>> = {
  name: 'fit propose',
  about: 'The model number most likely to give the wanted fit on this printer.',
  example: {
    side: 'inside',
    reading: { value: 31.7, u: 0.03 },
    want: { min: 0.05, max: 0.2 },
    printer: { offset: { mean: -0.22, sd: 0.14 }, scale: { mean: 1, sd: 0 }, repeatability: 0.04 },
  },
  input: Input,
  run: proposeFit,
};
