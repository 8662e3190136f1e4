import { polygonHull } from 'd3-polygon';
import type { Point2 } from '../../shape/vector';

/** The turn of a part about the upright axis, from how far its sections reach in each direction. Degrees. */

/** Number of directions in which the reach is taken. */
const STEPS = 180;
/** How many turns are examined; parts with rotational symmetry have many. */
const MOST = 24;
/** Halvings of the step around a turn that fits. */
const FINER = 5;

export const hullOf = (points: readonly Point2[]): [number, number][] =>
  polygonHull([...points] as [number, number][])?.reverse() ?? ([...points] as [number, number][]);

/** How far a convex outline reaches in each direction from a centre, mm. */
export function reachOf(outline: readonly Point2[], [mx, my]: Point2): Float64Array {
  const reach = new Float64Array(STEPS);
  for (let i = 0; i < STEPS; i++) {
    const a = (2 * Math.PI * i) / STEPS;
    const [c, s] = [Math.cos(a), Math.sin(a)];
    let most = -Infinity;
    for (const [x, y] of outline) most = Math.max(most, (x - mx) * c + (y - my) * s);
    reach[i] = most;
  }
  return reach;
}

/**
 * Turns at which the sections reach as far as the file's lines, the best first. @param levels a version's reach at the
 * file's
 */
export function turnsFor(
  levels: readonly { at: { reach: Float64Array }; reach: Float64Array }[],
  scale: number,
  mirrored: boolean,
): number[] {
  const pairs = levels.map(({ at, reach }) => ({
    file: at.reach,
    // For a mirrored part, each direction reaches as far as the mirror image did.
    ours: reach.map((_, i) => scale * reach[mirrored ? (STEPS + STEPS / 2 - i) % STEPS : i]!),
  }));
  if (pairs.length === 0) return [0];
  /** @param turn in steps, whole or fractional */
  const off = (turn: number): number => {
    const whole = Math.floor(turn);
    const share = turn - whole;
    let sum = 0;
    for (const { ours, file } of pairs)
      for (let i = 0; i < STEPS; i++) {
        const k = (((i - whole) % STEPS) + STEPS) % STEPS;
        const there = (1 - share) * ours[k]! + share * ours[(k + STEPS - 1) % STEPS]!;
        sum += Math.abs(file[i]! - there);
      }
    return sum;
  };
  const all = Array.from({ length: STEPS }, (_, turn) => off(turn));
  return all
    .map((sum, turn) => ({ sum, turn }))
    .filter(({ sum, turn }) => sum <= all[(turn + 1) % STEPS]! && sum <= all[(turn + STEPS - 1) % STEPS]!)
    .sort((a, b) => a.sum - b.sum)
    .slice(0, MOST)
    .map(found => {
      let { sum, turn } = found;
      for (let n = 1, step = 0.5; n <= FINER; n++, step /= 2)
        for (const t of [turn - step, turn + step]) {
          const there = off(t);
          if (there < sum) [sum, turn] = [there, t];
        }
      return { sum, turn };
    })
    .sort((a, b) => a.sum - b.sum)
    .map(({ turn }) => (360 * turn) / STEPS);
}
