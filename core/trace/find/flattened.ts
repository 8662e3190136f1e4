import type { Point2 } from '../../shape/vector';
import { lightAt, type Picture } from '../picture';

/** Where a place of the plane appears. */
export type Seen = (x: number, y: number) => Point2;

/** A piece of the plane, rectified: light of each colour, row by row. Lengths mm. */
export interface Flattened {
  from: Point2;
  step: number;
  wide: number;
  tall: number;
  /** Three per place; below 0 outside the picture. */
  light: Float32Array;
}

/** The map is exact at a grid with this spacing; in between, linear interpolation is good enough. */
const KNOT = 8;

/** @param box the piece: minimum x and y, then maximum */
export function flattened(
  picture: Picture,
  seen: Seen,
  [x0, y0, x1, y1]: readonly [number, number, number, number],
  step: number,
): Flattened {
  const wide = Math.floor((x1 - x0) / step) + 1;
  const tall = Math.floor((y1 - y0) / step) + 1;
  const light = new Float32Array(3 * wide * tall);
  const out = new Float64Array(3);
  const across = Math.ceil(wide / KNOT) + 1;
  const row = (j: number) =>
    Array.from({ length: across }, (_, i) => seen(x0 + i * KNOT * step, y0 + j * KNOT * step));
  let [above, below] = [row(0), row(1)];
  for (let j = 0; j < tall; j++) {
    const b = (j % KNOT) / KNOT;
    if (j > 0 && j % KNOT === 0) [above, below] = [below, row(j / KNOT + 1)];
    for (let i = 0; i < wide; i++) {
      const k = Math.floor(i / KNOT);
      const a = (i % KNOT) / KNOT;
      const [p, q, r, s] = [above[k]!, above[k + 1]!, below[k]!, below[k + 1]!];
      const u = (1 - b) * ((1 - a) * p[0] + a * q[0]) + b * ((1 - a) * r[0] + a * s[0]);
      const v = (1 - b) * ((1 - a) * p[1] + a * q[1]) + b * ((1 - a) * r[1] + a * s[1]);
      const at = 3 * (j * wide + i);
      if (lightAt(picture, [u, v], out)) light.set(out, at);
      else light[at] = light[at + 1] = light[at + 2] = -1;
    }
  }
  return { from: [x0, y0], step, wide, tall, light };
}
