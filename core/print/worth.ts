/** What is cheaper, by expected time. Minutes. */

/** Walking to the printer, trying on, and starting again. Common practice, no source. */
const [TRY_SLICE, TRY_PART] = [5, 15];

/**
 * What a slice saves on the average when it goes first: without it a wrong part is printed in vain, with it only the
 * slice is. Below 0 it costs.
 * @param pRight chance that the sliced surface sits right @param slice and whole, minutes to print
 */
export const sliceSaves = (pRight: number, slice: number, whole: number): number =>
  (1 - pRight) * (whole + TRY_PART) - (slice + TRY_SLICE);

/** Of prints that follow a try, so many sit right. Common practice, no source. */
const RIGHT_AFTER_A_TRY = 0.85;

/** Prints that follow the next one until one sits right, on the average. @param pRight of the next one */
export const furtherPrints = (pRight: number): number => (1 - pRight) / RIGHT_AFTER_A_TRY;

/** Until a part sits right, on the average. @param pRight of the next print @param whole minutes to print it */
export const expectedMinutes = (pRight: number, whole: number): number =>
  (whole + TRY_PART) * (1 + furtherPrints(pRight));
