/**
 * What a print takes, before anything is known of the printer's own pace: the one place where time and plastic are
 * estimated. Lengths mm, volumes mm³, density g/cm³.
 */

/** Extruder's path while a small part is printed, mm/s, travel included. Common practice, no source. */
const SPEED = 60;
/** A line is a little wider than the nozzle. Common practice, no source. */
const WIDTH_PER_NOZZLE = 1.05;
/** Heating up, and the first layer at half the speed, minutes. Common practice, no source. */
const START = 4;
/** Layer height where none is said, mm. */
export const USUAL_LAYER = 0.2;

/** Walls and infill together fill about this share of a small part. Common practice, no source. */
const FILL = 0.75;
/** Plastic a filament printer lays an hour on small parts, g. Common practice, no source. */
const GRAMS_PER_HOUR = 9;

/** Minutes to print a small part all solid. @param volume mm³ @param nozzle and layer, mm */
export const solidMinutes = (volume: number, nozzle: number, layer: number): number =>
  START + volume / (WIDTH_PER_NOZZLE * nozzle * layer * SPEED) / 60;

/** What a print of a finished part will take, in a plastic with this price per kilogram. */
export function printEstimate(
  volume: number,
  { density, pricePerKg }: { density: number; pricePerKg: number },
): { grams: number; hours: number; cost: number } {
  const grams = (volume / 1000) * density * FILL;
  return {
    grams: Number(grams.toFixed(1)),
    hours: Number((grams / GRAMS_PER_HOUR).toFixed(2)),
    cost: Number(((grams / 1000) * pricePerKg).toFixed(2)),
  };
}
