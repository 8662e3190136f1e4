import { z } from 'zod';
import { VERDICTS } from '../../learn/verdict';
import { Want } from '../document';
import { Id } from '../fields';
import { defineRow, Voidable } from './kind';

/** A row of rings in steps of one mate's size, printed at once. */
export const Ladder = z.object({
  ...Voidable,
  mateId: Id,
  partId: Id,
  printerId: Id.nullable(),
  materialId: Id.nullable(),
  want: Want,
  /** What was drawn, rung by rung. */
  sizes: z.array(z.number().positive().max(5000)).min(2).max(12),
});
export type Ladder = z.infer<typeof Ladder>;

/** How each ring felt on the object; null for a ring that was not tried. */
export const LadderTry = z.object({
  ...Voidable,
  ladderId: Id,
  verdicts: z.array(z.enum(VERDICTS).nullable()).min(1).max(12),
});
export type LadderTry = z.infer<typeof LadderTry>;

export const ladder = defineRow({
  kind: 'ladder',
  list: 'ladders',
  schema: Ladder,
  about: null,
  words: row => `Made a ladder of ${row.sizes.length} rings`,
});

export const ladderTry = defineRow({
  kind: 'ladder-try',
  list: 'ladderTries',
  schema: LadderTry,
  about: row => ({ list: 'ladders', id: row.ladderId }),
  words: () => 'Tried a ladder',
});
