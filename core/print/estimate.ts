/**
 * What small pieces that are printed solid take: rings of a ladder, the calibration piece. A part's own print is worked
 * out from its sections (time.ts). Lengths mm, volumes mm³.
 */

/** Extruder's path while a small part is printed, mm/s, travel included. Common practice, no source. */
const SPEED = 60;
/** A line is a little wider than the nozzle. Common practice, no source. */
const WIDTH_PER_NOZZLE = 1.05;
/** Heating up, and the first layer at half the speed, minutes. Common practice, no source. */
const START = 4;
/** Layer height where none is said, mm. */
export const USUAL_LAYER = 0.2;

/** Minutes to print a small part all solid. @param volume mm³ @param nozzle and layer, mm */
export const solidMinutes = (volume: number, nozzle: number, layer: number): number =>
  START + volume / (WIDTH_PER_NOZZLE * nozzle * layer * SPEED) / 60;
