import { clearanceAtDepth, insertionDepth } from '../fit/taper';
import type { Verdict } from '../learn/verdict';
import type { MateSurface } from '../shape/mates';

/**
 * A surface that tapers always wedges somewhere, so it is judged by how far it goes in. Lengths mm along its axis from
 * where it should sit: above 0 beyond it, below 0 short of it.
 */
export interface Wedge {
  /** degrees */
  halfAngle: number;
  /** Right between these two depths. */
  min: number;
  max: number;
}

/** A smaller angle is not a taper, degrees. */
const LEAST_TAPER = 0.1;

/** @param window clearance that is right, mm of the whole diameter @returns null for a surface that does not taper */
export function wedgeOf(
  surfaces: readonly MateSurface[],
  surface: string,
  window: { min: number; max: number },
): Wedge | null {
  const halfAngle = halfAngleOf(surfaces, surface);
  if (halfAngle === null) return null;
  const [min, max] = [window.min, window.max].map(c => insertionDepth(c, halfAngle)) as [number, number];
  return { halfAngle, min, max };
}

export function halfAngleOf(surfaces: readonly MateSurface[], surface: string): number | null {
  const taper = surfaces.find(s => s.mate === surface)?.taper ?? 0;
  const halfAngle = (Math.atan(Math.abs(taper)) * 180) / Math.PI;
  return halfAngle < LEAST_TAPER ? null : halfAngle;
}

/** The verdict of a depth, in the words of a feel. */
export const verdictOfDepth = (depth: number, { min, max }: Wedge): Verdict =>
  depth < min ? 'tight' : depth > max ? 'loose' : 'right';

/** The clearance that a depth stands for: mm of the whole diameter, with the sd of the depth. */
export const clearanceOfDepth = ({ value, u }: { value: number; u: number }, halfAngle: number) => ({
  value: clearanceAtDepth(value, halfAngle),
  u: clearanceAtDepth(u, halfAngle),
});
