/**
 * A soft ring on a rigid core: its pressure, the force to move it, and what slots do to that. Sizes mm, moduli MPa,
 * forces N, strains ratios. Thin rings: wall well below the radius; thick ones by press.ts.
 */
export interface Ring {
  /** Stretched, on the core. */
  diameter: number;
  wall: number;
  height: number;
  modulus: number;
}

/** Shallow slots in the wall: a chain of thick and thin sectors. */
export interface ShallowSlots {
  count: number;
  width: number;
  /** Share of the wall that a slot takes, 0 to below 1. */
  depth: number;
}

/** Slots right through the wall, open at the edge: they make bending fingers. */
export interface Fingers {
  count: number;
  /** Width of each slot. */
  width: number;
  /** From the edge to the slot's end. */
  length: number;
}

/** Pressure on the core: p = E·ε·t/r, a thin ring in tension (any text on strength of materials). */
export function ringPressure({ diameter, wall, modulus }: Ring, strain: number): number {
  requireRing(diameter, wall);
  return (modulus * strain * wall) / (diameter / 2);
}

/** The whole radial force of the wall on the core, N. */
export const ringForce = (ring: Ring, strain: number): number =>
  ringPressure(ring, strain) * Math.PI * ring.diameter * ring.height;

/**
 * How much softer shallow slots make the hoop: sectors in series, each as stiff as its wall is thick.
 * @returns force with slots over force without, at the same stretch: 1 without slots
 */
export function slottedShare({ diameter }: Ring, { count, width, depth }: ShallowSlots): number {
  if (!(depth >= 0 && depth < 1))
    throw new RangeError('A shallow slot takes 0 to below all of the wall; through it, they are fingers.');
  const share = (count * width) / (Math.PI * diameter);
  if (!(share >= 0 && share < 1))
    throw new RangeError('The slots take the whole way round: fewer or narrower ones.');
  return 1 / (1 + share * (1 / (1 - depth) - 1));
}

/**
 * A ring cut into fingers, pushed apart at their tips: straight cantilevers of the wall's thickness
 * (P = E·b·t³·y/4L³, root strain 1.5·y·t/L²; Bayer guide, from memory).
 * @returns force all round at the tips, N, and strain at each root
 */
export function fingerForce(
  { diameter, wall, modulus }: Ring,
  { count, width, length }: Fingers,
  strain: number,
): { force: number; rootStrain: number } {
  requireRing(diameter, wall);
  const finger = (Math.PI * diameter) / count - width;
  if (!(count >= 2 && length > 0)) throw new RangeError('Fingers take two slots or more, longer than 0.');
  if (!(finger > 0)) throw new RangeError('The slots leave no finger: fewer or narrower ones.');
  const deflection = (strain * diameter) / 2;
  const force = (modulus * finger * wall ** 3 * deflection) / (4 * length ** 3);
  return { force: count * force, rootStrain: (1.5 * deflection * wall) / length ** 2 };
}

/** How far off such a calculation may be for a print, in either direction, as a factor. Common practice, no source. */
export const RING_DOUBT = 2;

/** Stretch of a lip while it passes an edge: 23.0 over a lip of 21.8 is 5.5 %. @param lip its free inside diameter */
export const passingStrain = (over: number, lip: number): number => over / lip - 1;

function requireRing(diameter: number, wall: number): void {
  if (!(diameter > 0 && wall > 0 && wall < diameter / 2))
    throw new RangeError('A ring has a wall above 0 and thinner than its radius.');
}
