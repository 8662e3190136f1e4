import { z } from 'zod';
import { REPARTINGS } from '../shape/lines-and-arcs/reparted';
import { MIDDLES, PAPERS } from '../trace/sheet/layout';
import { Id, Label, listOf } from './fields';
import { Refusal } from './scans';

/** The traced pictures of a job's object: how each is read. What they show follows from that. */

/** px */
export const Pixel = z.tuple([z.number().min(-20_000).max(40_000), z.number().min(-20_000).max(40_000)]);
/** The bar as measured on the print, mm: a sheet shrunk to half or enlarged to double is not a print of ours. */
const Bar = z.number().min(70).max(280);
const F35 = z.number().min(5).max(500);
/** True size over size in the file. */
const Stretch = z.number().min(0.5).max(2);
const Dpi = z.number().min(50).max(9600);
const Length = z.number().positive().max(2000);

/** What its scale is taken from. */
export const TraceBy = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('sheet'),
    paper: z.enum(PAPERS),
    middle: z.enum(MIDDLES),
    /** Left out until they were read. */
    bars: z.object({ across: Bar, along: Bar }).optional(),
    /** The 35 mm equivalent focal length; left out where the file does not state it. */
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
    /** One length, or two across each other, each given by its two ends in the picture, mm. */
    lines: z
      .array(z.object({ from: Pixel, to: Pixel, length: Length }))
      .min(1)
      .max(2),
    f35: F35.optional(),
  }),
]);

/** Strokes drawn over the picture where the light defeats the tracing: this is the object, this is not. */
export const Stroke = z.object({
  id: Id,
  object: z.boolean(),
  at: z.array(Pixel).min(1).max(400),
  /** px */
  wide: z.number().positive().max(2000),
});

/** A correction by the maker of a piece of the outline, or of the corner nearest to a place in the picture. */
export const Parting = z.discriminatedUnion('as', [
  z.object({ as: z.enum(REPARTINGS), at: Pixel }),
  /** The height of its edge above the sheet, mm. */
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
  /** The size of the chamfer or rounding on its upper edges, mm. */
  broken: z.number().min(0).max(5),
  /** A pixel of the object, where several things lie in the picture. */
  inside: Pixel.optional(),
  /** How far edge points may scatter about a line, mm. */
  tolerance: z.number().min(0.01).max(1),
  strokes: listOf(Stroke, 60),
  /** The maker's corrections of its lines and arcs, in order: see trace/parting. */
  parting: z.array(Parting).max(60).optional(),
  /** The names of the clean-up suggestions that were taken: see trace/tidy. */
  tidy: z.array(z.string().max(60)).max(60),
  /** True size over traced size from caliper readings, and its standard uncertainty; left out while unchecked. */
  trust: z.object({ factor: z.number().min(0.8).max(1.25), u: z.number().min(0).max(0.1) }).optional(),
  /** Why it is left out: no reading taken from it counts then. */
  refused: Refusal.optional(),
});

/** The feature of a trace that a reading is of. */
export const TracedPlace = z.object({ trace: Id, of: Label });

export type Trace = z.infer<typeof Trace>;
export type TraceBy = z.infer<typeof TraceBy>;
export type Parting = z.infer<typeof Parting>;
export type Stroke = z.infer<typeof Stroke>;
