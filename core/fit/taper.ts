/** Tapers that wedge (the want “jam”). Sizes mm, angles degrees. */
const RADIANS = Math.PI / 180;

/** A taper is self-holding while its half-angle is below the angle of friction, atan μ. */
export const isSelfHolding = (halfAngle: number, friction: number): boolean =>
  halfAngle < Math.atan(friction) / RADIANS;

/**
 * How deep a plug goes beyond the mouth before it wedges.
 * @param clearance at the mouth, whole diameter: positive lets it in deeper
 * @throws RangeError for a taper without an angle
 */
export function insertionDepth(clearance: number, halfAngle: number): number {
  if (!(halfAngle > 0 && halfAngle < 45)) throw new RangeError('A taper has a half-angle between 0 and 45°.');
  return clearance / (2 * Math.tan(halfAngle * RADIANS));
}

/** The clearance with which a plug wedges at this depth: the inverse of `insertionDepth`, whole diameter. */
export const clearanceAtDepth = (depth: number, halfAngle: number): number =>
  2 * depth * Math.tan(halfAngle * RADIANS);

/** The uncertainty of the depth that follows from one of the diameter. */
export const depthDoubt = (diameterDoubt: number, halfAngle: number): number =>
  insertionDepth(diameterDoubt, halfAngle);
