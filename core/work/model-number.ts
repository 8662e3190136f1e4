/** Model numbers are rounded to a hundredth: no printer follows a finer one. mm or degrees */
const MODEL_STEP = 0.01;
export const asDrawn = (model: number): number =>
  Number((Math.round(model / MODEL_STEP) * MODEL_STEP).toFixed(2));

/** No chance is ever given as zero or one. */
export const LEAST_CHANCE = 1e-6;
