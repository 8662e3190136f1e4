import { z } from 'zod';
import { AWAY } from '../core/job/document';
import { MARKS } from '../core/learn/verdict';
import { STAGES } from '../core/work/stages';

/** A job as its tag on the rack shows it. */
export const RackJob = z.object({
  id: z.string(),
  number: z.number().int(),
  title: z.string(),
  object: z.string(),
  updatedAt: z.string(),
  state: z.string(),
  /** The part whose next step it is. */
  partId: z.string(),
  next: z.object({ stage: z.enum(STAGES), action: z.string(), reason: z.string(), waits: z.boolean() }),
  marks: z.array(
    z.object({
      version: z.number(),
      slice: z.boolean().default(false),
      words: z.string(),
      verdict: z.enum(MARKS).nullable(),
    }),
  ),
  inService: z.boolean(),
  /** Off the rack, and how. */
  away: z.enum(AWAY).nullable().default(null),
  /** When to look at it again. */
  lookAt: z.string().nullable().default(null),
  /** Versions that wait for a printer, and the number of pieces of each. */
  toPrint: z
    .array(
      z.object({
        partId: z.string(),
        versionId: z.string(),
        words: z.string(),
        printerId: z.string().nullable(),
        materialId: z.string().nullable(),
        pieces: z.number().int().positive(),
      }),
    )
    .default([]),
  /** What is on a printer now, and when it should be ready. */
  onPrinter: z
    .array(
      z.object({
        partId: z.string(),
        startId: z.string(),
        words: z.string(),
        printerId: z.string().nullable(),
        pieces: z.number().int().positive(),
        since: z.string(),
        ready: z.string().nullable(),
      }),
    )
    .default([]),
  /** Test pieces that also wait. */
  aids: z
    .array(
      z.object({
        kind: z.enum(['ladder', 'gauge']),
        id: z.string(),
        words: z.string(),
        printerId: z.string().nullable(),
        materialId: z.string().nullable(),
      }),
    )
    .default([]),
  /** The section of the part, as paths in mm with their frame. */
  thumbnail: z.object({
    viewBox: z.string(),
    cut: z.array(z.string()),
    mate: z.array(z.string()),
    edge: z.array(z.string()),
  }),
});
/** `workshop` is its name: the rack's first view needs no more of the workshop, nor the code that checks it. */
export const Rack = z.object({
  workshop: z.string(),
  jobs: z.array(RackJob),
  /** Jobs that cannot be read, and why. */
  unreadable: z.array(
    z.object({ id: z.string(), number: z.number().int(), title: z.string(), why: z.string() }),
  ),
});
export type RackJob = z.infer<typeof RackJob>;
export type Rack = z.infer<typeof Rack>;

/** Jobs that contain all the words that were searched. */
export const Found = z.object({ ids: z.array(z.string()) });
export type Found = z.infer<typeof Found>;
