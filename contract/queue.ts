import { z } from 'zod';
import { Id, MOST_PIECES } from '../core/job/fields';

/** What waits for a printer, over all jobs, and what is arranged together on a bed. Lengths mm. */

const Takes = z.object({
  hours: z.number(),
  from: z.number(),
  to: z.number(),
  grams: z.number(),
  cost: z.number(),
});

/** A version that waits; its print times are fetched one by one, see `QueueTakes`. */
export const QueueItem = z.object({
  jobId: z.string(),
  number: z.number().int(),
  title: z.string(),
  partId: z.string(),
  versionId: z.string(),
  words: z.string(),
  printerId: z.string(),
  materialId: z.string(),
  material: z.string(),
  pieces: z.number().int().positive(),
  /** Its mates that a slice may carry alone. */
  mates: z.array(z.object({ id: z.string(), name: z.string() })),
});
export type QueueItem = z.infer<typeof QueueItem>;

/** A ladder that was not tried yet, or a gauge that was not measured. */
export const QueueAid = z.object({
  kind: z.enum(['ladder', 'gauge']),
  id: z.string(),
  jobId: z.string(),
  number: z.number().int(),
  title: z.string(),
  words: z.string(),
  printerId: z.string(),
  materialId: z.string(),
  material: z.string(),
});
export type QueueAid = z.infer<typeof QueueAid>;

/** A print that is on a printer. */
export const QueueRunning = z.object({
  jobId: z.string(),
  number: z.number().int(),
  title: z.string(),
  partId: z.string(),
  startId: z.string(),
  words: z.string(),
  printerId: z.string(),
  pieces: z.number().int().positive(),
  since: z.string(),
  ready: z.string().nullable(),
});

export const Queue = z.object({
  printers: z.array(z.object({ id: z.string(), name: z.string(), inTurn: z.boolean() })),
  items: z.array(QueueItem),
  aids: z.array(QueueAid),
  running: z.array(QueueRunning),
  /** The number of versions that also wait but are not listed. */
  more: z.number().int(),
});
export type Queue = z.infer<typeof Queue>;

/** Time and plastic of one piece of a version; null where its solid cannot be built. */
export const QueueTakes = z.object({ takes: Takes.nullable() });
export type QueueTakes = z.infer<typeof QueueTakes>;

/** The most pieces on a plate. */
const MOST_ON_PLATE = 40;

/** Which hand of a part: as drawn, mirrored, or the same number of each. */
export const HANDS = ['drawn', 'other', 'both'] as const;
export type Hand = (typeof HANDS)[number];

/**
 * `part:job:version:pieces`, with `:other` or `:both` for its other hand, `slice:job:version:mate`,
 * `ladder:job:ladder` or `gauge:job:gauge`, with commas between.
 */
const Wish = z.string().transform((text, ctx) => {
  const [kind, jobId, id, last, hands = 'drawn'] = text.split(':');
  const hand = HANDS.find(h => h === hands);
  const ids = z.tuple([Id, Id]).safeParse([jobId, id]);
  const pieces = Number(last);
  if (ids.success) {
    const [job, of] = ids.data;
    if (kind === 'ladder' && last === undefined) return { kind, jobId: job, aidId: of } as const;
    if (kind === 'gauge' && last === undefined) return { kind, jobId: job, aidId: of } as const;
    if (kind === 'slice' && Id.safeParse(last).success)
      return { kind, jobId: job, versionId: of, mateId: last! } as const;
    if (kind === 'part' && hand && Number.isInteger(pieces) && pieces >= 1 && pieces <= MOST_PIECES)
      return { kind, jobId: job, versionId: of, pieces, hand } as const;
  }
  ctx.addIssue({ code: 'custom', message: `“${text}” cannot lie on a plate.` });
  return z.NEVER;
});

export const PlateAsked = z.object({
  of: z
    .string()
    .transform(text => text.split(','))
    .pipe(z.array(Wish).min(1).max(MOST_ON_PLATE, `At most ${MOST_ON_PLATE} kinds of pieces.`)),
  /** One after the other: with room for the head beside each. */
  inTurn: z.enum(['yes', 'no']).default('no'),
  /** Gap between neighbours, mm; left out, the usual gap, or what the head needs for parts that are printed in turn. */
  apart: z.coerce
    .number('A length in mm.')
    .min(1, 'At least 1 mm: they would be printed into each other.')
    .max(100, 'At most 100 mm.')
    .optional(),
  bed: z.coerce.number().int().min(0).max(100).default(0),
});
export type PlateAsked = z.infer<typeof PlateAsked>;

export const Plate = z.object({
  bed: z.object({ width: z.number(), depth: z.number() }),
  beds: z.array(
    z.object({
      pieces: z.array(z.object({ name: z.string(), outline: z.array(z.tuple([z.number(), z.number()])) })),
      takes: Takes,
      /** The most expensive of its pieces alone: what is lost when one comes loose and they are printed in turn. */
      lost: z.object({ hours: z.number(), grams: z.number() }),
    }),
  ),
  /** Pieces that fit on no bed, by name. */
  left: z.array(z.object({ name: z.string(), pieces: z.number().int() })),
});
export type Plate = z.infer<typeof Plate>;
