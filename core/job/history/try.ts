import { z } from 'zod';
import { VERDICTS } from '../../learn/verdict';
import { Id } from '../document';
import { defineRow, Voidable } from './kind';

const Effort = z.enum(['too-easy', 'good', 'too-hard']);

export const TryMate = z.object({
  verdict: z.enum(VERDICTS).optional(),
  /** For position, length, angle and flush: signed, mm or degrees. */
  off: z.number().min(-500).max(500).optional(),
  /** For stretch and click. */
  effort: z.object({ on: Effort.optional(), off: Effort.optional(), home: Effort.optional() }).optional(),
  /** The print's own size, measured. */
  printed: z.object({ value: z.number().positive(), u: z.number().min(0) }).optional(),
});
export type TryMate = z.infer<typeof TryMate>;

/** Putting a print on: a verdict for each mate that was judged. */
export const Try = z.object({
  ...Voidable,
  printId: Id,
  mates: z.record(Id, TryMate),
  note: z.string().max(2000),
});
export type Try = z.infer<typeof Try>;

export const tryRow = defineRow({
  kind: 'try',
  list: 'tries',
  schema: Try,
  about: row => ({ list: 'prints', id: row.printId }),
  words: (_, version) => `Tried version ${version}`,
});
