import { z } from 'zod';
import { FAILURE_WORDS, FAILURES } from '../../learn/happened';
import { Id, MOST_PIECES } from '../fields';
import { defineRow, Voidable } from './kind';

/** A run of alike layers: how long each moves and how long it must cool, s. */
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

const Moved = z.number().min(-2, 'At most 2 mm.').max(2, 'At most 2 mm.');

/** Settings of the slicing program and the printer that affect how a part fits; left out, not known. */
export const AsSliced = z.object({
  /** mm */
  lineWidth: z.number().min(0.1).max(3).optional(),
  passes: z.number().int().min(1).max(60).optional(),
  /** Of the nozzle, °C. */
  temperature: z.number().min(20).max(500).optional(),
  /**
   * The slicing program's own correction: it makes outsides and holes larger by this, across the whole diameter, mm.
   */
  outsides: Moved.optional(),
  holes: Moved.optional(),
});
export type AsSliced = z.infer<typeof AsSliced>;

/**
 * The drawn size as the printer received it, with the slicing program's own correction. All that is learned from a
 * print is about this number, so that the next print needs no correction. mm
 */
export const modelAsSliced = (
  model: number,
  side: 'inside' | 'outside',
  { sliced }: { sliced?: AsSliced },
): number => model + ((side === 'outside' ? sliced?.outsides : sliced?.holes) ?? 0);

/** “line 0.42, 3 passes, 235 °C, holes +0.1 where it was sliced”; empty where nothing was stated. */
export function asSlicedWords({ lineWidth, passes, temperature, outsides, holes }: AsSliced): string {
  const signed = (x: number) => `${x < 0 ? '−' : '+'}${Math.abs(x)}`;
  return [
    lineWidth && `line ${lineWidth}`,
    passes && `${passes} ${passes === 1 ? 'pass' : 'passes'}`,
    temperature && `${temperature} °C`,
    outsides && `outsides ${signed(outsides)} where it was sliced`,
    holes && `holes ${signed(holes)} where it was sliced`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** The mates that a slice carries; rows written before slices could carry several name one. */
export const SliceOf = z.preprocess(
  said => (typeof said === 'string' ? [said] : said),
  z.array(Id).min(1).max(10).nullable(),
);

/** One print job: one piece of a version, or several alike at once. */
export const Print = z.object({
  ...Voidable,
  versionId: Id,
  number: z.number().int().min(1),
  pieces: z.number().int().min(1).max(MOST_PIECES).default(1),
  /** For all pieces together, as are grams and cost. */
  hours: z.number().min(0, 'Hours cannot be negative.').max(2000).nullable(),
  grams: z.number().min(0, 'Grams cannot be negative.').max(100_000).nullable(),
  cost: z.number().min(0).max(1e6).nullable(),
  /** As drawn, or its other hand, with left and right swapped. */
  hand: z.enum(['drawn', 'other']).default('drawn'),
  /** The mates carried where only a slice was printed; null for the whole part. */
  slice: SliceOf.default(null),
  /** When it came off the printer; null where only the time of recording is known. */
  finished: z.iso.datetime().nullable().default(null),
  /** The hours were measured, not estimated. */
  noted: z.boolean().default(false),
  /** The estimate for one piece at the usual pace, by layers; null where its solid could not be built. */
  expected: Expected.nullable().default(null),
  note: z.string().max(2000),
  /** Which spool, in the maker's words. */
  spool: z.string().max(60).default(''),
  sliced: AsSliced.default({}),
  photos: z.array(Id).max(10).default([]),
  /** Why it failed; null for a print that came out. */
  failed: z.enum(FAILURES).nullable().default(null),
  /** Made on the practice bench. */
  practice: z.boolean(),
  /** By mate, the size in the file that the practice printer was given, mm; left out, the version's size. */
  asFiled: z.record(Id, z.number()).optional(),
  /** The row of when it was started; left out where that was not recorded. */
  start: Id.optional(),
  /** Hashes of the files as printed, by file name. */
  files: z.record(z.string(), z.string()),
});
export type Print = z.infer<typeof Print>;

/** Which form of the version was printed: “the other hand of ”; empty for the part as drawn. */
export const pieceWords = ({ slice, hand }: Pick<Print, 'slice' | 'hand'>): string =>
  slice ? 'a slice of ' : hand === 'other' ? 'the other hand of ' : '';

/** When a print ran, as ISO times; null where not recorded. Pieces printed at once ran together. */
export function ranAt({
  finished,
  hours,
}: Pick<Print, 'finished' | 'hours'>): { from: string; to: string } | null {
  if (finished === null || hours === null) return null;
  return { from: new Date(Date.parse(finished) - 3600e3 * hours).toISOString(), to: finished };
}

export const print = defineRow({
  kind: 'print',
  list: 'prints',
  schema: Print,
  about: row => ({ list: 'versions', id: row.versionId }),
  words: (row, version) =>
    row.failed
      ? `A print of version ${version} failed: ${FAILURE_WORDS[row.failed]}`
      : `Printed ${pieceWords(row)}version ${version}${row.spool ? `, spool “${row.spool}”` : ''}`,
});
