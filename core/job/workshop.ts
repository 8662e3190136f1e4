import { z } from 'zod';
import { SIZE_KINDS } from '../calibration/size-kind';
import { PRACTICE_BELIEF } from '../fit/print-bias';
import { DEFAULT_WINDOWS, type StandardWant, WANT_NAMES, type Window as WindowType } from '../fit/wants';
import { Muted } from '../learn/lessons';
import { Window } from './document';
import { Id, LARGEST_READING } from './fields';

/** What the workshop owns and prefers. Lengths mm. */

/** The most readings of one feature of the calibration piece. */
export const MOST_PIECE_READINGS = 6;
export const INSTRUMENT_KINDS = [
  'calipers',
  'rule',
  'micrometer',
  'depth-gauge',
  'pin-gauges',
  'radius-gauge',
  'tape',
  'protractor',
  'flatbed',
  'other',
] as const;

export const Instrument = z.object({
  id: Id,
  name: z.string().trim().min(1, 'Give it a name.').max(80),
  kind: z.enum(INSTRUMENT_KINDS),
  /** Degrees for a protractor, else mm. */
  resolution: z.number().positive('Must be above 0.').max(10),
  maxError: z.number().min(0).max(10),
  /** Its zero error, mm, and when that was checked. */
  zero: z.object({ offset: z.number().min(-5).max(5), at: z.iso.datetime() }).optional(),
  /** The flat on the tips of the inside jaws, both together, mm. */
  jawLand: z.number().min(0).max(20).optional(),
  /** The spread of its readings of one thing, sd, learned from readings; left out, the hands' figure. */
  repeatability: z.number().min(0.0005).max(2).optional(),
  /** Readings of known blocks. */
  checks: z
    .array(z.object({ at: z.iso.datetime(), block: z.number().positive().max(1000), reading: z.number() }))
    .max(100)
    .optional(),
});

export const Printer = z.object({
  id: Id,
  name: z.string().trim().min(1, 'Give it a name.').max(80),
  bed: z.object({
    width: z.number().min(20).max(2000),
    depth: z.number().min(20).max(2000),
    height: z.number().min(20).max(2000),
  }),
  nozzle: z.number().min(0.1).max(2),
  lineWidth: z.number().min(0.1).max(3),
  /** Of passes inside the outermost one, mm/s, and acceleration, mm/s²; left out, those of a usual printer. */
  speed: z.number().min(5).max(1000).optional(),
  acceleration: z.number().min(50).max(50_000).optional(),
  /** Steepest overhang that it prints without supports, degrees from the upright; left out, 45. */
  overhang: z.number().min(20).max(80).optional(),
  /**
   * The room its head needs beside the nozzle, and the height above the bed before its frame touches a part that stands
   * there, mm; left out, parts are never printed one after the other.
   */
  clearance: z.object({ beside: z.number().min(1).max(500), above: z.number().min(1).max(2000) }).optional(),
});

export const Material = z.object({
  id: Id,
  name: z.string().trim().min(1, 'Give it a name.').max(80),
  flexible: z.boolean(),
  /** g/cm³ */
  density: z.number().min(0.5).max(8),
  /** The strain it bears once without lasting harm, ratio. */
  strainLimit: z.number().min(0.001).max(3),
  softensC: z.number().min(20).max(400),
  /** Per kilogram, in the workshop's currency. */
  pricePerKg: z.number().min(0).max(10_000),
  /** The polymer on the shelf whose other figures apply to it. */
  polymer: z.string().max(40).optional(),
  /** The source of the figures. */
  source: z.string().max(200),
});

const Belief = z.object({ mean: z.number().min(-2).max(2), sd: z.number().min(0).max(2) });

/** The belief about a printer with a material before tries: how much tighter than drawn it prints. */
export const PrinterBelief = z.object({
  inside: Belief,
  outside: Belief,
  repeatability: z.number().min(0.001).max(1),
});

/** A size of one of the maker's own pieces. Earlier documents stated the side instead of the kind. */
const OwnSize = z.preprocess(
  row => {
    const { side, ...rest } = row as { side?: string };
    return side === undefined ? row : { kind: side === 'inside' ? 'hole' : 'peg', ...rest };
  },
  z.object({
    kind: z.enum(SIZE_KINDS),
    drawn: z.number().positive().max(1000),
    printed: z.number().positive().max(1100),
  }),
);

/** What is known of one printer with one nozzle, plastic and set of settings, from printed pieces. */
export const Calibration = z.object({
  id: Id,
  printerId: Id,
  materialId: Id,
  /** When its last size was read. */
  at: z.iso.datetime(),
  /** The nozzle it was printed with, mm; left out, the printer's. */
  nozzle: z.number().min(0.1).max(2).optional(),
  /** Layer height, mm. */
  layer: z.number().min(0.02).max(2).optional(),
  /** The other settings, in words. */
  note: z.string().max(300),
  /** The printer's settings already correct sizes: until the piece was read, the ledger adds nothing. */
  compensates: z.boolean().optional(),
  rows: z.array(OwnSize).max(200),
  /** The calibration piece: readings by feature. */
  piece: z
    .object({
      instrumentId: Id.nullable(),
      readings: z.record(
        z.string().max(40),
        z.array(z.number().positive().max(LARGEST_READING)).max(MOST_PIECE_READINGS),
      ),
    })
    .optional(),
});

export const Workshop = z.object({
  schemaVersion: z.literal(1),
  name: z.string().trim().min(1, 'Give the workshop a name.').max(120),
  currency: z.string().trim().min(1).max(6),
  unit: z.enum(['mm', 'in']),
  /** The spread of readings of one thing by the same hands, sd. */
  operatorRepeatability: z.number().min(0.001).max(1),
  instruments: z.array(Instrument).min(1, 'Keep at least one instrument.').max(50),
  printers: z.array(Printer).min(1, 'Keep at least one printer.').max(50),
  materials: z.array(Material).min(1, 'Keep at least one material.').max(100),
  belief: PrinterBelief,
  /** What printed pieces taught about a printer with a plastic. */
  calibrations: z.array(Calibration).max(50).optional(),
  /** The workshop's own windows for wants, where they differ from the usual ones. */
  windows: z.partialRecord(z.enum(WANT_NAMES), Window).optional(),
  /** Lessons of other jobs that are left out. */
  lessonsMuted: z.array(Muted).max(200).optional(),
  /** Whether the stand-ins for caliper, printer and object are offered. */
  practiceBench: z.boolean(),
});

export type Instrument = z.infer<typeof Instrument>;
export type Printer = z.infer<typeof Printer>;
export type Material = z.infer<typeof Material>;
export type Calibration = z.infer<typeof Calibration>;
export type Workshop = z.infer<typeof Workshop>;

/** What this workshop means by a want, as a window. */
export const windowFor = (workshop: Pick<Workshop, 'windows'>, name: StandardWant): WindowType =>
  workshop.windows?.[name] ?? DEFAULT_WINDOWS[name];

/** A new workshop. Material figures from memory: makers should put in those of their own spools. */
export const FIRST_WORKSHOP: Workshop = {
  schemaVersion: 1,
  name: 'My workshop',
  currency: '€',
  unit: 'mm',
  operatorRepeatability: 0.03,
  instruments: [
    { id: 'calipers', name: 'Calipers', kind: 'calipers', resolution: 0.01, maxError: 0.03 },
    { id: 'rule', name: 'Steel rule', kind: 'rule', resolution: 0.5, maxError: 0.2 },
  ],
  printers: [
    {
      id: 'printer',
      name: 'Filament printer',
      bed: { width: 220, depth: 220, height: 220 },
      nozzle: 0.4,
      lineWidth: 0.4,
    },
  ],
  materials: [
    {
      id: 'pla',
      name: 'PLA',
      flexible: false,
      density: 1.24,
      strainLimit: 0.02,
      softensC: 55,
      pricePerKg: 20,
      polymer: 'PLA',
      source: 'from memory',
    },
    {
      id: 'petg',
      name: 'PETG',
      flexible: false,
      density: 1.27,
      strainLimit: 0.035,
      softensC: 70,
      pricePerKg: 22,
      polymer: 'PETG',
      source: 'from memory',
    },
    {
      id: 'tpu',
      name: 'TPU 95A',
      flexible: true,
      density: 1.21,
      strainLimit: 0.25,
      softensC: 75,
      pricePerKg: 35,
      polymer: 'TPU95A',
      source: 'from memory',
    },
  ],
  belief: PRACTICE_BELIEF,
  practiceBench: false,
};
