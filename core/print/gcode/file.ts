/** A sliced file after reading: straight pieces of plastic, layer by layer. Lengths mm, times s. */

export const ROLES = ['unknown', 'outer', 'inner', 'skin', 'infill', 'support', 'skirt', 'prime'] as const;
export type Role = (typeof ROLES)[number];

export interface GcodeFile {
  x0: Float32Array;
  y0: Float32Array;
  x1: Float32Array;
  y1: Float32Array;
  /** Length of filament pushed through on each piece. */
  e: Float32Array;
  /** As an index of ROLES. */
  role: Uint8Array;
  /** In the order in which they are printed; z is their upper side. Pieces from `from` to before `to`. */
  layers: { z: number; from: number; to: number }[];
  filament: number;
  retractions: number;
  /** From a replay of its moves. */
  seconds: number;
  /** Whether it states the purpose of each piece. */
  rolesKnown: boolean;
  /** One part after the other: heights start again. */
  sequential: boolean;
  /** Its last line was complete. */
  endedWhole: boolean;
  /** What it states about itself. */
  said: { minutes: number | null; grams: number | null; diameter: number | null };
  bytes: number;
}

/** What is wrong with a file; the message is for the maker. */
export class GcodeError extends Error {
  override name = 'GcodeError';
  constructor(
    readonly code: 'zipped' | 'binary' | 'not-gcode' | 'nothing-printed' | 'too-large',
    message: string,
  ) {
    super(message);
  }
}
