import { z } from 'zod';
import { JUDGED_BY } from '../../learn/signed';
import { VERDICTS } from '../../learn/verdict';
import { formatPlain } from '../../quantity/format';
import { Id } from '../fields';
import { defineRow, Voidable } from './kind';

/** Handwork on a print that misses. */
export const REWORKS = ['sand', 'ream', 'wrap', 'shim', 'warm'] as const;
export type ReworkKind = (typeof REWORKS)[number];

const DONE: Record<ReworkKind, string> = {
  sand: 'sanded or filed',
  ream: 'reamed or scraped',
  wrap: 'wrapped with tape',
  shim: 'shimmed',
  warm: 'warmed and pushed home',
};

/**
 * Handwork on one surface of one print. It is kept apart from the try: the try says how the print came off the printer,
 * the rework says how far that was from right.
 */
export const Rework = z.object({
  ...Voidable,
  printId: Id,
  mateId: Id,
  how: z.enum(REWORKS),
  /** How much was removed or added, across the whole width, mm; null where not known. */
  amount: z
    .number()
    .min(0, 'Not below 0.')
    .max(5, 'At most 5 mm: more than that is another part.')
    .nullable(),
  by: z.enum(JUDGED_BY),
  /** How it sits after the rework. */
  after: z.enum(VERDICTS),
  note: z.string().trim().max(600, 'At most 600 characters.').default(''),
});
export type Rework = z.infer<typeof Rework>;

export const reworkWords = ({ how, amount, note }: Pick<Rework, 'how' | 'amount' | 'note'>): string =>
  `${DONE[how]}${amount === null ? '' : ` by ${formatPlain(amount, 2)} mm across`}${note ? `, ${note}` : ''}`;

export const rework = defineRow({
  kind: 'rework',
  list: 'reworks',
  schema: Rework,
  about: row => ({ list: 'prints', id: row.printId }),
  words: (row, version) => `Worked on a print of version ${version}: ${reworkWords(row)}`,
});
