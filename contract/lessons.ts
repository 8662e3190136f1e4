import { z } from 'zod';
import { Evidence } from '../core/learn/lessons';

/** What all jobs of the workshop taught about its printers and plastics. */
export const LessonsAnswer = z.object({ evidence: z.array(Evidence) });
export type LessonsAnswer = z.infer<typeof LessonsAnswer>;
