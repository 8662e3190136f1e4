import { matingForce } from './click';
import { type Fingers, fingerForce, ringForce } from './ring';

/**
 * What one round surface adds to the push that brings a part on and to the pull that takes it off. Several on one axis
 * add up. Sizes mm, moduli MPa, forces N, angles degrees from the axis.
 */
export interface Force {
  low: number;
  high: number;
}

/** Our wall behind a gripping surface. */
export interface GripWall {
  wall: number;
  /** Slots through it, open at the mouth. */
  fingers?: Fingers;
}

/** A ridge that passes a larger place on its way to its groove. */
export interface PassingRidge extends GripWall {
  /** Width of the ridge along the axis. */
  width: number;
  /** Slope towards the mouth, and slope behind the ridge. */
  leads: number;
  holds: number;
}

/** Friction of a print on what it is put on, from smooth and dry to rough. Common practice, no source. */
export const FRICTION = { low: 0.2, high: 0.6 };

/**
 * A push on a long thin tube at its mouth is felt to 1/(2β) of it, in its middle to 2/β, with β = 1.285/√(r·t) for a
 * Poisson's ratio of 0.3. Source: Timoshenko, Theory of Plates and Shells, cylinders (from memory).
 */
function heldUp(radius: number, wall: number): Force {
  const beta = 1.285 / Math.sqrt(radius * wall);
  return { low: 1 / (2 * beta), high: 2 / beta };
}

/**
 * A product of quantities that are known only within bounds. Independent unknowns are seldom all at one end, so their
 * ratios add up as squares.
 */
export function spread(...bounds: readonly Force[]): Force {
  const middle = bounds.reduce((product, { low, high }) => product * Math.sqrt(low * high), 1);
  const ratio = Math.exp(Math.hypot(...bounds.map(({ low, high }) => Math.log(high / low) / 2)));
  return { low: middle / ratio, high: middle * ratio };
}

/**
 * A ridge as it passes, all round at once: tilting it on or peeling it off from one side takes less force.
 * @param over the diameter that it passes @param strain how far that stretches or squeezes it, ratio above 0
 * @returns forces along the axis, on and off; `Infinity` off where friction alone may hold it
 */
export function passingForces(
  ridge: PassingRidge,
  over: number,
  strain: number,
  modulus: Force,
): { on: Force; off: Force } {
  const reach = heldUp(over / 2, ridge.wall);
  const radial = (height: number) =>
    ridge.fingers
      ? fingerForce({ diameter: over, wall: ridge.wall, height, modulus: 1 }, ridge.fingers, strain).force
      : ringForce({ diameter: over, wall: ridge.wall, height, modulus: 1 }, strain);
  const pressed = { low: radial(Math.max(ridge.width, reach.low)), high: radial(ridge.width + reach.high) };
  const along = (slope: number): Force => {
    const share = { low: matingForce(1, slope, FRICTION.low), high: matingForce(1, slope, FRICTION.high) };
    if (share.high === Infinity) return { low: modulus.low * pressed.low * share.low, high: Infinity };
    return spread(modulus, pressed, share);
  };
  return { on: along(ridge.leads), off: along(ridge.holds) };
}

/** Friction of a surface that presses all round. @param radial the whole radial force, N */
export const slidingForce = (radial: Force): Force => spread(FRICTION, radial);

export const sumOf = (forces: readonly Force[]): Force => ({
  low: forces.reduce((sum, f) => sum + f.low, 0),
  high: forces.reduce((sum, f) => sum + f.high, 0),
});
