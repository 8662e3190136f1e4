import { z } from 'zod';
import { SURFACE_FORMS } from '../fit/print-bias';
import { WANT_NAMES } from '../fit/wants';
import { SIGNED_KINDS } from '../learn/signed';
import { Pose } from '../print/pose';
import { Quality } from '../print/settings';
import { Additions } from '../shape/additions/addition';
import { SIDES_DOWN, type SideDown } from '../shape/model';
import { AXIS_OF, SIDES } from '../shape/sides';
import {
  DimensionName,
  Expression,
  Id,
  LARGEST_READING,
  Label,
  listOf,
  MOST_PIECES,
  Note,
  ParameterText,
  Title,
  Unit,
} from './fields';
import { Scan, ScannedPlace } from './scans';
import { Trace, TracedPlace } from './traces';

/**
 * A job: one object and the part or parts made for it, as one document. Versions, prints and tries are
 * append-only and live beside it (history.ts). Lengths mm, angles degrees, forces N, temperatures °C.
 */
export const JOB_SCHEMA_VERSION = 6;

export const Reading = z.object({
  id: Id,
  /** mm or degrees. */
  value: z.number().min(-LARGEST_READING).max(LARGEST_READING),
  /** As it was typed, or sent by the instrument. */
  text: z.string().max(60),
  unit: Unit,
  at: z.iso.datetime(),
  instrumentId: Id.nullable(),
  /**
   * What was measured: the counterpart itself, the old part (which includes its maker's clearance and wear), a scan, a
   * photo, or a label or data sheet.
   */
  source: z.enum(['seat', 'old-part', 'scan', 'photo', 'said']),
  via: z.enum(['typed', 'stream', 'import']),
  /** Why it does not count; null while it counts. */
  struck: z.string().max(300).nullable(),
  /** How far the object had been turned since the first reading, degrees; left out when not noted. */
  turn: z.number().min(0).max(360).optional(),
  /** The instrument's zero error, which is taken off the value, mm. */
  zero: z.number().min(-5).max(5).optional(),
  /** Standard uncertainty of a value that was stated, scanned or traced, mm; left out where it is not known. */
  u: z.number().min(0).max(50).optional(),
  /** The place on a scan where it was found; the value is the scan's own, before its scale is corrected. */
  scanned: ScannedPlace.optional(),
  /** The piece of a traced picture that it is; the value is the trace's own, before its scale is corrected. */
  traced: TracedPlace.optional(),
});

/** Where a dimension is marked, on a photo (as shares of its width and height) or on the drawing (mm). */
export const Mark = z.object({
  on: z.union([z.literal('drawing'), Id]),
  from: z.tuple([z.number().min(-5000).max(5000), z.number().min(-5000).max(5000)]),
  to: z.tuple([z.number().min(-5000).max(5000), z.number().min(-5000).max(5000)]),
});

/** How a dimension that cannot be measured is derived from others. */
export const Derived = z.discriminatedUnion('by', [
  z.object({
    by: z.literal('formula'),
    kind: z.string().max(40),
    inputs: z.record(
      z.string().max(20),
      z.discriminatedUnion('of', [
        z.object({ of: z.literal('dimension'), id: Id }),
        z.object({
          of: z.literal('number'),
          value: z.number().min(-LARGEST_READING).max(LARGEST_READING),
          u: z.number().min(0).max(100),
        }),
      ]),
    ),
    counts: z.record(z.string().max(20), z.number().min(0).max(1000)),
  }),
  z.object({ by: z.literal('expression'), expression: Expression }),
]);

export const Dimension = z.object({
  id: Id,
  name: DimensionName,
  label: Label,
  kind: z.enum(['outside', 'inside', 'depth', 'step', 'length', 'angle']),
  critical: z.boolean(),
  /** The recipe's guide step that it answers; null for a dimension of the maker's own. */
  guide: z.string().max(40).nullable(),
  note: Note,
  readings: listOf(Reading, 200),
  mark: Mark.optional(),
  derived: Derived.optional(),
  /** Inside jaws read a small bore short: corrected where the maker asked for it. */
  correctJaws: z.boolean().optional(),
});

export const Photo = z.object({
  id: Id,
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  type: z.enum(['image/jpeg', 'image/png', 'image/webp']),
  width: z.number().int().min(1).max(20_000),
  height: z.number().int().min(1).max(20_000),
  label: Label,
});

/** A body from a file: a neighbour, a plug, a board. Its triangles are stored as a blob. */
export const Model = z.object({
  id: Id,
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  label: Label,
  /** How many mm one unit of its file is. */
  factor: z.union([z.literal(1), z.literal(10), z.literal(25.4), z.literal(1000)]),
  /** Its bounding box, to the right, to the back and up, in the file's unit. */
  size: z.tuple([z.number().min(0), z.number().min(0), z.number().min(0)]),
  triangles: z.number().int().min(1),
  /** Its file was not closed, so its convex hull is used instead. */
  hull: z.boolean(),
  /** Kept as scanned, holes and all, for parts that follow it. */
  surface: z.literal(true).optional(),
  /** The job's scan that it was made from, and how that scan was prepared at the time. */
  from: z.object({ scan: Id, prepared: z.string().max(2000) }).optional(),
});

/** A thread on the object: its features, and the dimensions that hold its numbers. */
export const MeasuredThread = z.object({
  id: Id,
  label: Label,
  side: z.enum(['external', 'internal']),
  /** The diameter that could be measured: see `measured`. */
  diameter: Id,
  /** Over the ridges or between them; left out means an external thread's outside or an internal thread's hole. */
  measured: z.enum(['major', 'minor']).optional(),
  span: Id,
  /** Number of turns between the two ridges of the span. */
  turns: z.number().min(0.5).max(200),
  ridgeHeight: Id.nullable(),
  ridgeWidth: Id.nullable(),
  hand: z.enum(['right', 'left']).nullable(),
  taper: z.boolean().nullable(),
  /** Number of starts: ridges that begin at the end face. */
  starts: z.number().int().min(1).max(12),
  crest: z.enum(['sharp', 'flat', 'round']).nullable(),
  /** The standard thread that the maker chose; 'odd' where none fits. */
  standard: z.string().max(40).nullable(),
});

export const Window = z
  .object({
    min: z.number().min(-50).max(50),
    max: z.number().min(-50).max(50),
    unit: z.enum(['mm', 'strain']),
  })
  .refine(w => w.min < w.max, { message: 'The least must be below the most.', path: ['max'] });

export const Want = z.object({
  name: z.enum(WANT_NAMES),
  window: Window,
  prefer: z.enum(['none', 'loose', 'tight']),
  /** How much an old part has worn, whole width, mm; the copy gets that back. */
  wear: z.number().min(0).max(10).optional(),
});

/** One side of a mate: the object (by one of its dimensions) or one of our parts (by a recipe's mate). */
export const MateSide = z.discriminatedUnion('of', [
  z.object({ of: z.literal('object'), dimension: Id }),
  z.object({ of: z.literal('part'), part: Id, surface: z.string().max(40) }),
]);

/** Our side of a mate: a surface of a part, from its recipe or named by the maker. */
const Ours = z.object({ of: z.literal('part'), part: Id, surface: z.string().max(40) });

/** A surface named by the maker, given by the number of the part that is its size. */
export const OwnNumber = z.object({
  number: z.string().min(1).max(40),
  form: z.enum(SURFACE_FORMS),
  /** Its cross-section is built up of layers as drawn. */
  lying: z.boolean(),
});

const Coordinate = z.number().min(-5000).max(5000);
const Coordinates = z.tuple([Coordinate, Coordinate, Coordinate]);

/** A place that was pressed on the solid, in the part's own coordinates, mm. */
export const PressedPlace = z.object({ point: Coordinates, normal: Coordinates });

/** Two faces, or one hole or boss, that were pressed on the solid. */
const Pressed = z.object({
  places: z.array(PressedPlace).min(1).max(2),
  /** The size measured there: mm, degrees for an angle. */
  size: z.number().min(0).max(5000),
  /** The number that moves it, as it was at the time. */
  number: z.number().min(-5000).max(5000),
});

/** A surface that goes over or into something, and how that should feel. */
export const FitMate = z.object({
  id: Id,
  name: Label,
  kind: z.literal('fit'),
  ours: Ours,
  other: MateSide,
  /** Which of the two our surface is. */
  side: z.enum(['inside', 'outside']),
  soft: z.enum(['none', 'ours', 'theirs']),
  want: Want,
  /** Left out where a recipe or an addition proposed it. */
  own: OwnNumber.optional(),
  pressed: Pressed.optional(),
});

const Amount = z.number().min(-500, 'Not below −500.').max(500, 'At most 500.');

/** How much off is still right, in the direction in which the amount grows; mm or degrees. */
export const Tolerance = z
  .object({ min: Amount, max: Amount })
  .refine(t => t.min < t.max, { message: 'The least must be below the most.', path: ['max'] });

/** A length, position, angle or edge that must be right, judged by how far off it is. */
export const SignedMate = z.object({
  id: Id,
  name: Label,
  kind: z.enum(SIGNED_KINDS),
  ours: Ours,
  /** The dimension that gives its target. */
  other: z.object({ of: z.literal('object'), dimension: Id }),
  /** The part's number that moves it. */
  number: z.string().min(1).max(40),
  /** How far it moves per mm or degree of its number. */
  rate: z
    .number()
    .min(-100)
    .max(100)
    .refine(r => Math.abs(r) >= 0.01, 'A number that moves nothing decides nothing.'),
  tolerance: Tolerance,
  /** The words for being off to either side. */
  sense: z.object({ more: Label, less: Label }),
  pressed: Pressed.optional(),
});

export const Mate = z.discriminatedUnion('kind', [FitMate, SignedMate]);

/** One of the six directions of a part as it is drawn, standing on the bed. */
export const Direction = z.enum(SIDES);

/** Numbers that were written as expressions over dimensions; all others are plain. */
const written = <const K extends string>(...keys: readonly K[]) =>
  z.partialRecord(z.enum(keys), Expression).optional();

/** A load that the part has to bear. */
export const PartLoad = z.object({
  id: Id,
  words: Label,
  /** A push or pull in newtons, or a torque in newton metres. */
  kind: z.enum(['force', 'turn']),
  amount: z.number().min(0, 'Not below 0.').max(100_000, 'At most 100 000.'),
  /** Its direction; a torque acts about it. */
  towards: Direction,
  /** Where it acts and where the part is held: a face in words, or a mate as “mate ID”. */
  at: z.string().max(120),
  held: z.string().max(120),
});

/** A neighbour at the part's place, in the part's own coordinates as it stands on the bed, mm. */
export const Neighbour = z.object({
  id: Id,
  name: Label,
  form: z.enum(['box', 'round', 'model']),
  /** The body from a file, and how it is laid and turned; only for a model. */
  model: Id.optional(),
  lies: z.enum(Object.keys(SIDES_DOWN) as [SideDown, ...SideDown[]]).optional(),
  turn: z.number().min(-360).max(360).optional(),
  /** To the right and to the back; for a round one both are its diameter. */
  width: z.number().min(0.1, 'At least 0.1 mm.').max(2000),
  depth: z.number().min(0.1, 'At least 0.1 mm.').max(2000),
  height: z.number().min(0.1, 'At least 0.1 mm.').max(2000),
  /** The centre of its underside. */
  x: z.number().min(-2000).max(2000),
  y: z.number().min(-2000).max(2000),
  z: z.number().min(-2000).max(2000),
  /** Clearance to keep around it, on each side. */
  room: z.number().min(0).max(200),
  texts: written('width', 'depth', 'height', 'x', 'y', 'z', 'room'),
});

/** A stretch of the part's edge that must stay open: the way to a button, a plug or a screw. mm */
export const OpenZone = z
  .object({
    id: Id,
    name: Label,
    /** The side of the part along which it runs, and the end from which it is measured. */
    edge: Direction,
    end: Direction,
    from: z.number().min(0).max(2000),
    to: z.number().min(0).max(2000),
    /** How deep it goes in from that side. */
    deep: z.number().min(0.1, 'At least 0.1 mm.').max(2000),
    texts: written('from', 'to', 'deep'),
  })
  .refine(z => AXIS_OF[z.edge] !== AXIS_OF[z.end], {
    message: 'An edge is counted from one of its own ends.',
    path: ['end'],
  });

/** One straight leg of the path, coming from that side. */
const Leg = z.object({ from: Direction, distance: z.number().min(1, 'At least 1 mm.').max(2000) });

/** The path by which the part is brought to its place: its last leg, and the one before where it turns a corner. */
export const GoesOn = Leg.extend({ before: Leg.optional() });

export const Part = z.object({
  id: Id,
  name: Label,
  recipe: z.string().max(60),
  printerId: Id.nullable(),
  materialId: Id.nullable(),
  pose: Pose,
  quality: Quality.default('usual'),
  /** The parameters set by the maker; the others follow the recipe's defaults. */
  parameters: z.record(z.string().max(40), ParameterText),
  /** What was added to the recipe's part or cut from it; the numbers of these additions are among `parameters`. */
  additions: Additions,
  /** The recipe's guide dimensions that have another name in this job, since another part already uses theirs. */
  binds: z.record(z.string().max(40), Id),
  loads: listOf(PartLoad, 10),
  neighbours: listOf(Neighbour, 20),
  keepOpen: listOf(OpenZone, 20).default([]),
  goesOn: GoesOn.nullable(),
  /** The version that the maker went back to, and the newest one at the time: see work/version-tree. */
  base: z.object({ version: Id, over: Id }).optional(),
});

export const Brief = z.object({
  purpose: Note,
  ifItBreaks: z.enum(['nuisance', 'damage', 'injury']).nullable(),
  mustHold: z.array(z.enum(['water', 'air', 'dust'])),
  loads: listOf(
    z.object({
      id: Id,
      words: Label,
      forceN: z.number().min(0).max(100_000).nullable(),
      direction: z.string().max(120),
    }),
    20,
  ),
  /** The hottest it gets, °C; null while not stated. */
  hottestC: z.number().min(-60).max(400).nullable(),
  outdoors: z.boolean(),
  /** What it touches in use. */
  touches: z.array(z.enum(['water', 'food', 'fuel', 'solvent', 'mains'])).optional(),
  obstacles: listOf(z.object({ id: Id, words: Label, clear: z.number().min(0).max(5000).nullable() }), 20),
  /** Cautions that the maker has read and accepted. */
  cautionsRead: z.array(z.string().max(60)).max(50),
  /** The price of buying it instead, in the workshop's currency; null if it cannot be bought. */
  priceToBuy: z.number().min(0).max(1e6).nullable(),
  /** Days until a bought one would arrive; null where not stated. */
  daysToBuy: z.number().min(0).max(3650).nullable().optional(),
  /** Hours the maker spent, where they know better than the record of what was done when. */
  ownHours: z.number().min(0).max(10_000).nullable().optional(),
  /** How many pieces of each part are wanted; left out means one. */
  quantity: z.number().int().min(1, 'At least 1.').max(MOST_PIECES, `At most ${MOST_PIECES}.`).optional(),
});

/** In what way a job is off the rack. */
export const AWAY = ['archived', 'removed', 'recipe'] as const;
export type Away = (typeof AWAY)[number];

export const JobDocument = z.object({
  schemaVersion: z.literal(JOB_SCHEMA_VERSION),
  title: Title,
  object: z.object({
    name: z.string().trim().max(300),
    note: Note,
    /** The object is borrowed or far away, so a list of what is still unread matters before it leaves. */
    leaves: z.boolean(),
    /** When the object left; null while it is here. */
    goneAt: z.iso.datetime().nullable(),
    /** What else to look at before it leaves. */
    toRead: listOf(z.object({ id: Id, words: Label, done: z.boolean() }), 50),
  }),
  brief: Brief,
  parts: listOf(Part, 20).refine(list => list.length > 0, 'A job has at least one part.'),
  dimensions: listOf(Dimension, 100),
  photos: listOf(Photo, 30),
  models: listOf(Model, 20),
  scans: listOf(Scan, 12),
  /** Left out while nothing was traced. */
  traces: listOf(Trace, 20).optional(),
  threads: listOf(MeasuredThread, 10),
  mates: listOf(Mate, 100),
  /**
   * Off the rack: put away, removed (deleted after a while), or kept as a recipe only. Left out while it hangs there.
   */
  away: z.object({ how: z.enum(AWAY), at: z.iso.datetime() }).optional(),
  /** In service: when it was fitted and how it holds. */
  service: z.object({
    since: z.iso.datetime().nullable(),
    /** When the maker wants to look at it again; left out means as the brief says. */
    lookAt: z.iso.datetime().optional(),
    notes: listOf(z.object({ id: Id, at: z.iso.datetime(), words: Note }), 200),
  }),
});

export type Reading = z.infer<typeof Reading>;
export type Dimension = z.infer<typeof Dimension>;
export type Derived = z.infer<typeof Derived>;
export type Mark = z.infer<typeof Mark>;
export type Photo = z.infer<typeof Photo>;
export type Model = z.infer<typeof Model>;
export type MeasuredThread = z.infer<typeof MeasuredThread>;
export type Want = z.infer<typeof Want>;
export type MateSide = z.infer<typeof MateSide>;
export type FitMate = z.infer<typeof FitMate>;
export type SignedMate = z.infer<typeof SignedMate>;
export type Mate = z.infer<typeof Mate>;
export const isFit = (mate: Mate): mate is FitMate => mate.kind === 'fit';
/** The part's number that one of the maker's own mates is about; undefined where a recipe proposed the mate. */
export const ownNumberOf = (mate: Mate): string | undefined =>
  mate.kind === 'fit' ? mate.own?.number : mate.number;
/** The number that a mate is about, whoever proposed the mate. @param specs of its part's recipe */
export const numberOfMate = (
  mate: Mate,
  specs: readonly { id: string; parameter: string }[],
): string | undefined => ownNumberOf(mate) ?? specs.find(s => s.id === mate.ours.surface)?.parameter;
export const isSigned = (mate: Mate): mate is SignedMate => mate.kind !== 'fit';
export const fitsOf = ({ mates }: Pick<JobDocument, 'mates'>): FitMate[] => mates.filter(isFit);
export type Part = z.infer<typeof Part>;
export type Direction = z.infer<typeof Direction>;
export type PartLoad = z.infer<typeof PartLoad>;
export type Neighbour = z.infer<typeof Neighbour>;
export type OpenZone = z.infer<typeof OpenZone>;
export type GoesOn = z.infer<typeof GoesOn>;
export type Brief = z.infer<typeof Brief>;
export type JobDocument = z.infer<typeof JobDocument>;

/** A part without anything that came after the recipe's own numbers. */
export const PLAIN_PART = {
  quality: 'usual',
  additions: [],
  binds: {},
  loads: [],
  neighbours: [],
  keepOpen: [],
  goesOn: null,
} satisfies Partial<Part>;
