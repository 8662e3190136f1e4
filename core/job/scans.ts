import { z } from 'zod';
import { PRIMITIVE_KINDS } from '../scan/fit/primitive';
import { Coordinate, Id, LARGEST_READING, Label, listOf, Place3 } from './fields';

/** The scans of a job's object: how they were prepared and what is known of them. Lengths mm. */

/** A surface of a scan, found again by a place on it in the scan's original coordinates. */
export const ScannedPlace = z.object({
  scan: Id,
  kind: z.enum([...PRIMITIVE_KINDS, 'across', 'pitch', 'slot']),
  near: Place3,
});

/** Nine numbers, row by row. */
const Turn = z.array(z.number().min(-1.001).max(1.001)).length(9);

/** The steps of preparing a scan before anything is measured on it, in this order; its file is never changed. */
export const ScanStep = z.discriminatedUnion('kind', [
  /** Bodies with fewer triangles than this share of the largest body are left out. */
  z.object({ id: Id, kind: z.literal('without-islands'), share: z.number().min(0).max(1) }),
  /** Only what lies in a box is kept, in the coordinates at that step. */
  z.object({ id: Id, kind: z.literal('crop'), min: Place3, max: Place3 }),
  /** Turned and moved. */
  z.object({ id: Id, kind: z.literal('put'), turn: Turn, shift: Place3 }),
  /** Another scan of the object is added, aligned with this one as it is at that step. */
  z.object({
    id: Id,
    kind: z.literal('merge'),
    scan: Id,
    turn: Turn,
    shift: Place3,
    /** Root mean square distance where they overlap, mm, and the share of the other scan that overlaps. */
    rms: z.number().min(0).max(10),
    overlap: z.number().min(0).max(1),
  }),
  /** Holes whose bounding box is no longer than this, mm, are closed. */
  z.object({ id: Id, kind: z.literal('fill'), across: z.number().min(0.1).max(50) }),
  z.object({ id: Id, kind: z.literal('smooth'), rounds: z.number().int().min(1).max(10) }),
  /** Fewer triangles; nearly all of the scan stays within this distance of them, mm. */
  z.object({ id: Id, kind: z.literal('reduce'), bound: z.number().min(0.005).max(1) }),
  /** Completed by its mirror image in a plane, normal · x = at. */
  z.object({
    id: Id,
    kind: z.literal('mirror'),
    normal: z.tuple([z.number(), z.number(), z.number()]),
    at: Coordinate,
    rms: z.number().min(0).max(10),
    overlap: z.number().min(0).max(1),
  }),
]);

/** Whether a thin print of a scan's section goes in its place. */
export const PIECE_LAYS = ['not', 'push', 'slides', 'loose'] as const;

/** How a thin print of a scan's section sat in the object, in one direction: see work/scan-piece.ts. */
const PieceLay = z.object({
  lay: z.enum(PIECE_LAYS),
  /** How much play it had, mm; left out where nobody measured it. */
  play: z.number().min(-5).max(5).optional(),
  /** The caliper reading of the print, mm. */
  printed: z.number().positive().max(LARGEST_READING).optional(),
});

/** A section of a scan, printed thin and tried on the object before anything is built on the scan. */
export const ScanPiece = z.object({
  id: Id,
  at: z.iso.datetime(),
  /** Where the section was cut, in words. */
  where: Label,
  /** A plate goes into the object, a frame goes over it. */
  form: z.enum(['plate', 'frame']),
  /** Left to right and front to back of the section, as scanned, mm. */
  across: z.tuple([z.number().positive(), z.number().positive()]),
  /** Across the whole width, female minus male, mm. */
  clearance: z.number().min(0).max(5),
  tried: z
    .object({
      at: z.iso.datetime(),
      lay: z.tuple([PieceLay, PieceLay]),
      /** Where it stood off or bound. */
      off: z.array(z.enum(['left', 'right', 'front', 'back'])).max(4),
    })
    .optional(),
});

/** Why a scan or a photo is left out. */
export const Refusal = z
  .string()
  .trim()
  .min(1, 'Say why it is left out.')
  .max(300, 'At most 300 characters.');

/** A scan of the object: the original file and what is known of it. */
export const Scan = z.object({
  id: Id,
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  label: Label,
  /** The unit of its numbers. */
  unit: z.enum(['mm', 'cm', 'in', 'm']),
  steps: listOf(ScanStep, 50),
  /** True size over scanned size from caliper readings, and its standard uncertainty; left out while unchecked. */
  trust: z.object({ factor: z.number().min(0.8).max(1.25), u: z.number().min(0).max(0.1) }).optional(),
  /** Why it is left out: no reading taken from it counts then. */
  refused: Refusal.optional(),
  /** Left out while none was printed. */
  pieces: listOf(ScanPiece, 20).optional(),
});

export type Scan = z.infer<typeof Scan>;
export type ScanStep = z.infer<typeof ScanStep>;
export type ScannedPlace = z.infer<typeof ScannedPlace>;
export type ScanPiece = z.infer<typeof ScanPiece>;
