import type { Source } from '../table';

/** The family of a thread; the order in which equally likely ones are named. */
export type ThreadFamily =
  | 'metric-coarse'
  | 'metric-fine'
  | 'unified'
  | 'pipe-parallel'
  | 'pipe-taper'
  | 'hose'
  | 'trapezoidal'
  | 'whitworth'
  | 'association'
  | 'bottle';

/** A standard thread by its basic sizes. Diameters and pitch mm, angles degrees. */
export interface Thread {
  designation: string;
  family: ThreadFamily;
  standard: string;
  /** Basic outside diameter; of a taper thread at the gauge plane, or where its standard gives it. */
  major: number;
  pitch: number;
  /** Where the standard counts turns on an inch. */
  turnsPerInch: number | null;
  pitchDiameter: number;
  /** Basic hole of the internal thread. */
  minorInternal: number;
  /** Angle between the flanks. */
  flankAngle: number;
  /** 1 in 16 on the diameter, or none. */
  taper: boolean;
  /** How far a real external thread's outside is below the basic size: from least to most. */
  externalUnder: { least: number; most: number };
  /** How far a real internal thread's hole is above its basic size. */
  internalOver: { least: number; most: number };
  /** How common it is, relative to other threads. Common practice, no source. */
  commonness: number;
  source: Source;
}

/** Basic profiles keep the digits their standards print. */
export const round = (value: number, decimals: number) => Number(value.toFixed(decimals));
