import { z } from 'zod';
import { HAPPENINGS } from '../../learn/happened';
import { JUDGED_BY } from '../../learn/signed';
import { VERDICTS } from '../../learn/verdict';
import { Id } from '../fields';
import { defineRow, Voidable } from './kind';

/** How far off, signed, and how sure that is; mm or degrees. */
const Off = z.object({
  value: z.number().min(-500, 'Not below −500.').max(500, 'At most 500.'),
  u: z.number().min(0).max(500),
  by: z.enum(JUDGED_BY),
});

const Effort = z.enum(['too-easy', 'good', 'too-hard']);

/** Where along its path a surface binds. */
export const BINDS = ['start', 'middle', 'end', 'one-side', 'all-along'] as const;

export const TryMate = z.object({
  verdict: z.enum(VERDICTS).optional(),
  /** For position, length, angle and flush. */
  off: Off.optional(),
  /**
   * For a taper: how far beyond its place it went in, mm along its axis; negative is short of it. The verdict follows
   * from this.
   */
  depth: Off.optional(),
  /** For stretch and click. */
  effort: z.object({ on: Effort.optional(), off: Effort.optional(), home: Effort.optional() }).optional(),
  /** For a mate judged by feel: how far it missed, besides its verdict, mm of the whole width. */
  about: z
    .object({ amount: z.number().min(0, 'Not below 0.').max(20, 'At most 20 mm.'), by: z.enum(JUDGED_BY) })
    .optional(),
  /** Where it binds, and whether it marks the plastic. */
  binds: z.enum(BINDS).optional(),
  marks: z.boolean().optional(),
  /** The gauge on which it was tried; left out, the object itself. */
  gauge: Id.optional(),
  /** The measured size of the print. */
  printed: z.object({ value: z.number().positive(), u: z.number().min(0) }).optional(),
});
export type TryMate = z.infer<typeof TryMate>;

export const Happening = z.object({
  what: z.enum(HAPPENINGS),
  /** In the maker's words; empty where none were given. */
  where: z.string().trim().max(200).default(''),
  /** For a break: whether the original broke there too. */
  originalToo: z.boolean().nullable().default(null),
});
export type Happening = z.infer<typeof Happening>;

/** A try: putting a print on, with a verdict for each mate that was judged. */
export const Try = z.object({
  ...Voidable,
  printId: Id,
  mates: z.record(Id, TryMate),
  /** What else happened, apart from sizes. */
  happened: z.array(Happening).max(HAPPENINGS.length).default([]),
  /** Photos of the job that were taken at it. */
  photos: z.array(Id).max(10).default([]),
  /** Who judged; empty where not stated. */
  by: z.string().trim().max(60).default(''),
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
