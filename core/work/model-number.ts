/** Model numbers are kept to a hundredth: no printer follows a finer one. mm or degrees */
const MODEL_STEP = 0.01;
export const asDrawn = (model: number): number =>
  Number((Math.round(model / MODEL_STEP) * MODEL_STEP).toFixed(2));

/** No sum is so sure that something fails. */
export const LEAST_CHANCE = 1e-6;
