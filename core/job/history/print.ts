import { z } from 'zod';
import { FAILURE_WORDS, FAILURES } from '../../learn/happened';
import { Id, MOST_PIECES } from '../document';
import { defineRow, Voidable } from './kind';

/** Layers that are alike, how long each moves and how long it must cool, s. */
export const Expected = z.object({
  printerId: Id,
  times: z
    .array(
      z.object({
        count: z.number().int().min(1),
        motion: z.number().min(0).max(1e6),
        cooling: z.number().min(0).max(1e4),
      }),
    )
    .max(60),
  start: z.number().min(0).max(36_000),
});

/** One piece made from a version, or several alike in one go. */
export const Print = z.object({
  ...Voidable,
  versionId: Id,
  number: z.number().int().min(1),
  pieces: z.number().int().min(1).max(MOST_PIECES).default(1),
  /** Of all pieces together, as are grams and cost. */
  hours: z.number().min(0, 'Hours cannot be negative.').max(2000).nullable(),
  grams: z.number().min(0, 'Grams cannot be negative.').max(100_000).nullable(),
  cost: z.number().min(0).max(1e6).nullable(),
  /** Only a slice of it was printed, that carries this mate; null for the whole part. */
  slice: Id.nullable().default(null),
  /** The hours are what it took, not what was expected. */
  noted: z.boolean().default(false),
  /** What was expected of one piece at a usual pace, by layers; null where its solid could not be built. */
  expected: Expected.nullable().default(null),
  note: z.string().max(2000),
  /** Why it came to nothing; null for a print that came out. */
  failed: z.enum(FAILURES).nullable().default(null),
  /** Made on the practice bench. */
  practice: z.boolean(),
  /** Hashes of the files as they were when printed, by file name. */
  files: z.record(z.string(), z.string()),
});
export type Print = z.infer<typeof Print>;

export const print = defineRow({
  kind: 'print',
  list: 'prints',
  schema: Print,
  about: row => ({ list: 'versions', id: row.versionId }),
  words: (row, version) =>
    row.failed
      ? `A print of version ${version} failed: ${FAILURE_WORDS[row.failed]}`
      : `Printed ${row.slice ? 'a slice of ' : ''}version ${version}`,
});
