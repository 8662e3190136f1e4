import { z } from 'zod';
import { identifyThread } from '../core/shelf/threads/identify';
import type { Command } from './command';

const Quantity = z.object({ value: z.number().positive('Must be above 0, in mm.'), u: z.number().min(0) });
const Input = z
  .object({
    side: z.enum(['external', 'internal']),
    major: Quantity.optional(),
    minor: Quantity.optional(),
    pitch: Quantity,
    taper: z.boolean().nullable().optional(),
    starts: z.number().int().min(1).max(12).optional(),
  })
  .refine(t => t.major || t.minor, { message: 'Give “major” or “minor”.', path: ['major'] });

export const threadIdentify: Command<z.infer<typeof Input>> = {
  name: 'thread identify',
  about: 'Which standard thread a measured one is, likeliest first.',
  example: { side: 'external', major: { value: 13.08, u: 0.03 }, pitch: { value: 1.337, u: 0.01 } },
  input: Input,
  run(measured) {
    const { candidates, none } = identifyThread(measured);
    return { candidates: candidates.slice(0, 12).map(({ thread: _, ...c }) => c), none };
  },
};
