import type { Machine, PrintSettings } from './settings';
import type { Estimate } from './time';

/**
 * The time and plastic of small pieces that are printed solid: rings of a ladder, a gauge, the calibration piece. A
 * part's own print is worked out from its cross-sections (time.ts). Lengths mm, volumes mm³.
 */

/** Length of extruded path per second for a small part, mm/s, travel included. Common practice, no source. */
const SPEED = 60;
/** A line is a little wider than the nozzle. Common practice, no source. */
const WIDTH_PER_NOZZLE = 1.05;
/** Heating up, and the first layer at half the speed, minutes. Common practice, no source. */
const START = 4;
/** Layer height where none is given, mm. */
export const USUAL_LAYER = 0.2;

/** Minutes to print a small solid part. @param volume mm³ @param nozzle and layer, mm */
export const solidMinutes = (volume: number, nozzle: number, layer: number): number =>
  START + volume / (WIDTH_PER_NOZZLE * nozzle * layer * SPEED) / 60;

/** The time and plastic of a small solid part on a plate with others. @param volume mm³ @param height mm */
export function solidEstimate(
  volume: number,
  height: number,
  { layer, lineWidth }: Pick<PrintSettings, 'layer' | 'lineWidth'>,
  { inner, leastLayer, start }: Pick<Machine, 'inner' | 'leastLayer' | 'start'>,
): Estimate {
  const layers = Math.ceil(height / layer);
  const motion = volume / layers / (lineWidth * layer * inner);
  return {
    layers,
    times: [{ count: layers, motion, cooling: leastLayer }],
    plastic: volume,
    start: 60 * start,
  };
}
