import { z } from 'zod';
import { JUDGED_BY } from '../../learn/signed';
import { VERDICTS } from '../../learn/verdict';
import { formatPlain } from '../../quantity/format';
import { Id } from '../fields';
import { defineRow, Voidable } from './kind';

/** What is done by hand to a print that misses. */
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
 * Work by hand on one surface of one print. It is kept apart from the try: the try says how the print came off the
 * printer, this says how far that was from right.
 */
export const Rework = z.object({
  ...Voidable,
  printId: Id,
  mateId: Id,
  how: z.enum(REWORKS),
  /** Taken off or put on, across the whole width, mm; null where nobody knows. */
  amount: z
    .number()
    .min(0, 'Not below 0.')
    .max(5, 'At most 5 mm: more than that is another part.')
    .nullable(),
  by: z.enum(JUDGED_BY),
  /** How it sits since. */
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
