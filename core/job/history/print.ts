import { z } from 'zod';
import { FAILURE_WORDS, FAILURES } from '../../learn/happened';
import { Id, MOST_PIECES } from '../fields';
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

const Moved = z.number().min(-2, 'At most 2 mm.').max(2, 'At most 2 mm.');

/** What the slicing program and the printer were told, as far as it changes how a part fits; left out, not known. */
export const AsSliced = z.object({
  /** mm */
  lineWidth: z.number().min(0.1).max(3).optional(),
  passes: z.number().int().min(1).max(60).optional(),
  /** Of the nozzle, °C. */
  temperature: z.number().min(20).max(500).optional(),
  /** A correction of its own: it makes outsides and holes larger by so much, across the whole diameter, mm. */
  outsides: Moved.optional(),
  holes: Moved.optional(),
});
export type AsSliced = z.infer<typeof AsSliced>;

/**
 * What was drawn, as the printer got it: a slicing program's own correction is in it. All that is learned from a print
 * is about this number, so that the next one needs no correction. mm
 */
export const modelAsSliced = (
  model: number,
  side: 'inside' | 'outside',
  { sliced }: { sliced?: AsSliced },
): number => model + ((side === 'outside' ? sliced?.outsides : sliced?.holes) ?? 0);

/** “line 0.42, 3 passes, 235 °C, holes +0.1 where it was sliced”; empty where nothing was said. */
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

/** Mates that a slice carries; rows from before slices carried several name one. */
export const SliceOf = z.preprocess(
  said => (typeof said === 'string' ? [said] : said),
  z.array(Id).min(1).max(10).nullable(),
);

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
  /** As drawn, or its other hand, left and right changed. */
  hand: z.enum(['drawn', 'other']).default('drawn'),
  /** Only a slice of it was printed, that carries these mates; null for the whole part. */
  slice: SliceOf.default(null),
  /** When it came off the printer; null where only its recording is known. */
  finished: z.iso.datetime().nullable().default(null),
  /** The hours are what it took, not what was expected. */
  noted: z.boolean().default(false),
  /** What was expected of one piece at a usual pace, by layers; null where its solid could not be built. */
  expected: Expected.nullable().default(null),
  note: z.string().max(2000),
  /** Which spool, in the maker's words. */
  spool: z.string().max(60).default(''),
  sliced: AsSliced.default({}),
  photos: z.array(Id).max(10).default([]),
  /** Why it came to nothing; null for a print that came out. */
  failed: z.enum(FAILURES).nullable().default(null),
  /** Made on the practice bench. */
  practice: z.boolean(),
  /** By mate, what the file had that the practice printer was given, mm; left out, what the version has. */
  asFiled: z.record(Id, z.number()).optional(),
  /** The row of when it went onto the printer; left out, nobody said. */
  start: Id.optional(),
  /** Hashes of the files as they were when printed, by file name. */
  files: z.record(z.string(), z.string()),
});
export type Print = z.infer<typeof Print>;

/** What of its version a print is: “the other hand of ”; nothing for the part as drawn. */
export const pieceWords = ({ slice, hand }: Pick<Print, 'slice' | 'hand'>): string =>
  slice ? 'a slice of ' : hand === 'other' ? 'the other hand of ' : '';

/** When a print ran, as ISO times; null where that was not said. Several at once ran together. */
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
