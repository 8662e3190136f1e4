/** Which option is cheaper, by expected time. Minutes. */

/** Walking to the printer, trying on, and starting again. Common practice, no source. */
const [TRY_SLICE, TRY_PART] = [5, 15];

/**
 * What a slice saves on average when it is printed first: without it a wrong part is printed in vain, with it only the
 * slice is. Negative where it costs more than it saves.
 * @param pRight chance that the sliced surface sits right @param slice and whole, print times, minutes
 */
export const sliceSaves = (pRight: number, slice: number, whole: number): number =>
  (1 - pRight) * (whole + TRY_PART) - (slice + TRY_SLICE);

/** Share of prints that sit right once a try has taught something. Common practice, no source. */
const RIGHT_AFTER_A_TRY = 0.85;

/** Prints after the next one until one sits right, on average. @param pRight of the next one */
export const furtherPrints = (pRight: number): number => (1 - pRight) / RIGHT_AFTER_A_TRY;

/** Time until a part sits right, on average. @param pRight of the next print @param whole print time, minutes */
export const expectedMinutes = (pRight: number, whole: number): number =>
  (whole + TRY_PART) * (1 + furtherPrints(pRight));
