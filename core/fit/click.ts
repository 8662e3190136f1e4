/**
 * Snap fits: a beam bends as its ridge passes an edge. Sizes mm, modulus MPa, forces N, angles degrees.
 * Source: Bayer MaterialScience, “Snap-Fit Joints for Plastics, a design guide” (from memory): deflection
 * y = K ε L² / t with K = 0.67 for a straight beam and 1.09 for one that thins to half at its tip.
 */
export type BeamShape = 'straight' | 'thins-to-half';

const K: Record<BeamShape, number> = { straight: 2 / 3, 'thins-to-half': 1.09 };

export interface Beam {
  length: number;
  /** At the root, in the direction of bending. */
  thickness: number;
  width: number;
  shape: BeamShape;
}

/** Strain at the root when the tip is bent by `deflection`. */
export function rootStrain(beam: Beam, deflection: number): number {
  requireBeam(beam);
  return (deflection * beam.thickness) / (K[beam.shape] * beam.length ** 2);
}

/** Force across the beam that bends it so far. @param modulus secant modulus at that strain */
export function bendingForce(beam: Beam, strain: number, modulus: number): number {
  requireBeam(beam);
  return ((beam.width * beam.thickness ** 2) / 6) * ((modulus * strain) / beam.length);
}

/**
 * Force along the way in (or out, with the holding face's angle) for a bending force.
 * @param angle of the face against the way, below 90°
 * @returns Infinity where friction alone holds it
 */
export function matingForce(bending: number, angle: number, friction: number): number {
  const slope = Math.tan((angle * Math.PI) / 180);
  const denominator = 1 - friction * slope;
  return denominator <= 0 ? Infinity : (bending * (friction + slope)) / denominator;
}

/** A click that is used often may take this share of the strain it bears once. Bayer guide, from memory. */
export const OFTEN_SHARE = 0.6;
/** A print bears less strain than a moulding of the same plastic. Common practice, no source. */
export const PRINTED_SHARE = 0.7;
/** And far less where bending pulls its layers apart. Common practice, no source. */
export const ACROSS_LAYERS_SHARE = 0.35;

/** The allowable strain of a printed beam. @param once the plastic's own limit, ratio */
export function permissibleStrain(once: number, often: boolean, acrossLayers: boolean): number {
  return (
    once *
    (often ? OFTEN_SHARE : 1) *
    PRINTED_SHARE *
    (acrossLayers ? ACROSS_LAYERS_SHARE / PRINTED_SHARE : 1)
  );
}

function requireBeam({ length, thickness, width }: Beam): void {
  if (!(length > 0 && thickness > 0 && width > 0))
    throw new RangeError('A beam has a length, a thickness and a width above 0.');
}
