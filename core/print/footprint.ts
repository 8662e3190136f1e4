import { polygonHull } from 'd3-polygon';
import type { TriangleMesh } from '../shape/mesh/mesh';
import type { Point2 } from '../shape/vector';

/** The footprint of a part on the bed, and how to turn it to fit. Lengths mm, angles degrees. */

/** The convex outline of a part seen from above, anticlockwise. */
export function footprintOf({ positions: p }: TriangleMesh): Point2[] {
  const points: [number, number][] = [];
  for (let i = 0; i < p.length; i += 3) points.push([p[i]!, p[i + 1]!]);
  const hull = polygonHull(points);
  // The library answers clockwise in our axes, and with nothing where all points lie on a line.
  return hull ? hull.reverse() : points.slice(0, 2);
}

/** Width and depth of an outline turned by an angle. */
export function extentAt(outline: readonly Point2[], turn: number): [width: number, depth: number] {
  const a = (turn * Math.PI) / 180;
  const [c, s] = [Math.cos(a), Math.sin(a)];
  const box = [Infinity, -Infinity, Infinity, -Infinity] as [number, number, number, number];
  for (const [x, y] of outline) {
    const [u, v] = [c * x - s * y, s * x + c * y];
    box[0] = Math.min(box[0], u);
    box[1] = Math.max(box[1], u);
    box[2] = Math.min(box[2], v);
    box[3] = Math.max(box[3], v);
  }
  return [box[1] - box[0], box[3] - box[2]];
}

export interface LeastRectangle {
  /** Turns that bring its longer side along x. */
  turn: number;
  length: number;
  width: number;
}

/** The rectangle of least area around an outline: one of its sides lies along an edge (Freeman & Shapira 1975). */
export function leastRectangle(outline: readonly Point2[]): LeastRectangle {
  const turns = outline.map(([x, y], i) => {
    const [u, v] = outline[(i + 1) % outline.length]!;
    return (-Math.atan2(v - y, u - x) * 180) / Math.PI;
  });
  let best: LeastRectangle | undefined;
  for (const turn of turns) {
    const [w, d] = extentAt(outline, turn);
    if (best && w * d >= best.length * best.width - 1e-9) continue;
    best = w >= d ? { turn, length: w, width: d } : { turn: turn + 90, length: d, width: w };
  }
  return best ?? { turn: 0, length: 0, width: 0 };
}

type Bed = Readonly<{ width: number; depth: number }>;

export interface BedFit {
  fits: boolean;
  /** How it is turned: not at all where it fits, otherwise by a right angle, otherwise where it fits best. */
  turn: number;
  /** By how much it is too large in the worse direction; below 0 it is room to spare. */
  over: number;
}

/** Whether an outline turned by an angle lies on a bed. */
export function liesOn(bed: Bed, outline: readonly Point2[], turn: number): boolean {
  const [w, d] = extentAt(outline, turn);
  return w <= bed.width + 1e-9 && d <= bed.depth + 1e-9;
}

const STEP = 1;
/** The best turn is found to within this, degrees: far less than a tenth of a millimetre on any bed. */
const FINE = 1e-4;

/** Whether an outline fits on a bed at any turn. @param bed mm */
export function bedFit(outline: readonly Point2[], bed: Bed): BedFit {
  const over = (turn: number) => {
    const [w, d] = extentAt(outline, turn);
    return Math.max(w - bed.width, d - bed.depth);
  };
  const asItIs = over(0);
  if (asItIs <= 1e-9) return { fits: true, turn: 0, over: asItIs };
  if (over(90) <= 1e-9) return { fits: true, turn: 90, over: over(90) };
  let best = { turn: 0, over: asItIs };
  for (let turn = 0; turn < 180; turn += STEP) {
    const here = over(turn);
    if (here < best.over - 1e-9) best = { turn, over: here };
  }
  // Between two corners the excess is a sinusoid: halving the step around the best turn converges to it.
  for (let step = STEP / 2; step > FINE; step /= 2)
    for (const turn of [best.turn - step, best.turn + step]) {
      const here = over(turn);
      if (here < best.over) best = { turn, over: here };
    }
  return { fits: best.over <= 1e-6, ...best };
}
