import { distance2, type Point2 } from '../shape/vector';
import type { Machine } from './settings';

/** A printer's head along paths, with limited speed round corners. Lengths mm, speeds mm/s, times s. */

type Moves = Pick<Machine, 'acceleration' | 'deviation'>;

/** From standstill to standstill. */
export function moveSeconds(length: number, speed: number, { acceleration: a }: Moves): number {
  return length * a >= speed * speed ? length / speed + speed / a : 2 * Math.sqrt(length / a);
}

/**
 * The speed at which a corner may be passed where the path may be cut by `deviation`: v² = a δ s / (1 − s), with s the
 * sine of half the angle between the two sides. A well-known rule of motion controllers; from memory.
 * @param turn cosine of the change of direction: 1 straight on
 */
export function cornerSpeed(turn: number, { acceleration, deviation }: Moves): number {
  const s = Math.sqrt(Math.max(0, (1 + turn) / 2));
  return s > 0.9999 ? Infinity : Math.sqrt((acceleration * deviation * s) / (1 - s));
}

/** Once round a closed line: a forward and a backward pass over its corners, then each side as a trapezoid. */
export function loopSeconds(points: readonly Point2[], speed: number, moves: Moves): number {
  const n = points.length;
  const long = new Float64Array(n);
  for (let i = 0; i < n; i++) long[i] = distance2(points[i]!, points[(i + 1) % n]!);
  // at[i]: the speed limit at corner i, where side i begins.
  const at = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const [before, here, after] = [points[(i + n - 1) % n]!, points[i]!, points[(i + 1) % n]!];
    const [l, m] = [long[(i + n - 1) % n]!, long[i]!];
    const turn =
      l * m > 0
        ? ((here[0] - before[0]) * (after[0] - here[0]) + (here[1] - before[1]) * (after[1] - here[1])) /
          (l * m)
        : 1;
    at[i] = Math.min(speed, cornerSpeed(turn, moves));
  }
  // It starts and ends at its seam.
  at[0] = Math.min(at[0]!, cornerSpeed(0, moves));
  const a2 = 2 * moves.acceleration;
  for (let i = 1; i < n; i++) at[i] = Math.min(at[i]!, Math.sqrt(at[i - 1]! ** 2 + a2 * long[i - 1]!));
  for (let i = n - 1; i >= 0; i--) {
    const end = at[(i + 1) % n]!;
    at[i] = Math.min(at[i]!, Math.sqrt(end ** 2 + a2 * long[i]!));
  }
  let seconds = 0;
  for (let i = 0; i < n; i++)
    seconds += trapezoid(long[i]!, at[i]!, at[(i + 1) % n]!, speed, moves.acceleration);
  return seconds;
}

function trapezoid(length: number, from: number, to: number, most: number, a: number): number {
  if (length <= 0) return 0;
  const peak = Math.min(most, Math.sqrt(a * length + (from ** 2 + to ** 2) / 2));
  const ramps = (2 * peak ** 2 - from ** 2 - to ** 2) / (2 * a);
  return (2 * peak - from - to) / a + Math.max(0, length - ramps) / Math.max(peak, 1e-6);
}

/** From one line of a region to the next, along the wall: this many times their spacing. */
export const LINK = 1.3;

/** One line of infill between two turns of 90°. */
export const acrossSeconds = (length: number, speed: number, moves: Moves): number => {
  const corner = Math.min(speed, cornerSpeed(0, moves));
  return trapezoid(length, corner, corner, speed, moves.acceleration);
};
