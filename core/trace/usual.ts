/** Size of the chamfer where none is stated, mm: common practice, no source. */
export const USUAL_BROKEN = 0.1;
/** How far edges may scatter about a line where nothing is stated, mm. */
export const USUAL_TOLERANCE = 0.1;
