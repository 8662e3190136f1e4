import { z } from 'zod';
import { REPARTINGS } from '../shape/reparted';
import { MIDDLES, PAPERS } from '../trace/sheet/layout';
import { Id, Label, listOf } from './fields';
import { Refusal } from './scans';

/** The pictures of a job's object that are traced: how each is to be read. What it shows follows from that. */

/** px */
export const Pixel = z.tuple([z.number().min(-20_000).max(40_000), z.number().min(-20_000).max(40_000)]);
/** As read off the print, mm: a sheet shrunk to half, or blown up to twice, was not printed from ours. */
const Bar = z.number().min(70).max(280);
const F35 = z.number().min(5).max(500);
/** True size over size in the file. */
const Stretch = z.number().min(0.5).max(2);
const Dpi = z.number().min(50).max(9600);
const Length = z.number().positive().max(2000);

/** What its sizes are taken by. */
export const TraceBy = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('sheet'),
    paper: z.enum(PAPERS),
    middle: z.enum(MIDDLES),
    /** Left out while nobody read them. */
    bars: z.object({ across: Bar, along: Bar }).optional(),
    /** In terms of 35 mm film; left out where the file does not say. */
    f35: F35.optional(),
  }),
  z.object({
    kind: z.literal('flatbed'),
    dpi: z.object({ x: Dpi, y: Dpi }),
    known: z.object({ x: Stretch, y: Stretch }).optional(),
    /** From above, or the face that lay on the glass. */
    from: z.enum(['above', 'glass']),
  }),
  z.object({
    kind: z.literal('rectangle'),
    corners: z.tuple([Pixel, Pixel, Pixel, Pixel]),
    width: Length,
    height: Length,
    f35: F35.optional(),
  }),
  z.object({
    kind: z.literal('dimensions'),
    /** One, or two across each other, each by its two ends in the picture, mm. */
    lines: z
      .array(z.object({ from: Pixel, to: Pixel, length: Length }))
      .min(1)
      .max(2),
    f35: F35.optional(),
  }),
]);

/** Drawn over the picture where light defeats the tracing: this is the object, this is not. */
export const Stroke = z.object({
  id: Id,
  object: z.boolean(),
  at: z.array(Pixel).min(1).max(400),
  /** px */
  wide: z.number().positive().max(2000),
});

/** A piece of the outline, or the corner nearest to a place in the picture, as the maker says that it is. */
export const Parting = z.discriminatedUnion('as', [
  z.object({ as: z.enum(REPARTINGS), at: Pixel }),
  /** Its edge stands so high above the sheet, mm. */
  z.object({ as: z.literal('height'), at: Pixel, height: z.number().min(0).max(60) }),
]);

export const Trace = z.object({
  id: Id,
  /** One of the job's. */
  photo: Id,
  label: Label,
  by: TraceBy,
  /** How far the object stands up from the sheet, mm. */
  thickness: z.number().min(0).max(60),
  /** How much its upper edges are broken, mm. */
  broken: z.number().min(0).max(5),
  /** A pixel of the object, where several things lie there. */
  inside: Pixel.optional(),
  /** How far edges may scatter about a line, mm. */
  tolerance: z.number().min(0.01).max(1),
  strokes: listOf(Stroke, 60),
  /** What the maker says of its lines and arcs, one after the other: see trace/parting. */
  parting: z.array(Parting).max(60).optional(),
  /** What was taken of the clean-up that is offered, by name: see trace/tidy. */
  tidy: z.array(z.string().max(60)).max(60),
  /** True size over traced size as caliper readings gave it, and its standard uncertainty; left out while unchecked. */
  trust: z.object({ factor: z.number().min(0.8).max(1.25), u: z.number().min(0).max(0.1) }).optional(),
  /** Why it is not gone by: nothing that was read off it counts then. */
  refused: Refusal.optional(),
});

/** What a reading is of, on a trace. */
export const TracedPlace = z.object({ trace: Id, of: Label });

export type Trace = z.infer<typeof Trace>;
export type TraceBy = z.infer<typeof TraceBy>;
export type Parting = z.infer<typeof Parting>;
export type Stroke = z.infer<typeof Stroke>;
