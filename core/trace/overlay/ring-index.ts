import { polygonContains } from 'd3-polygon';
import Flatbush from 'flatbush';
import type { Point2 } from '../../shape/vector';
import type { Rings } from './sides';

export interface Near {
  /** mm */
  distance: number;
  at: Point2;
}

/** Lines are cut into pieces this short, so that the nearest boxes hold the nearest line, mm. */
const PIECE = 1;
/** Number of boxes that are searched. */
const BOXES = 6;

/** Closed lines with fast queries for the nearest place. */
export class RingIndex {
  private readonly boxes: Flatbush | null;
  /** Both ends of each piece. */
  private readonly ends: Float64Array;
  private readonly lines: [number, number][][];

  constructor(rings: Rings) {
    this.lines = rings.map(ring => ring.map(([x, y]): [number, number] => [x, y]));
    const ends: number[] = [];
    for (const line of rings)
      line.forEach((a, i) => {
        const b = line[(i + 1) % line.length]!;
        const count = Math.max(1, Math.ceil(Math.hypot(b[0] - a[0], b[1] - a[1]) / PIECE));
        for (let k = 0; k < count; k++)
          for (const t of [k / count, (k + 1) / count])
            ends.push(a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]));
      });
    this.ends = Float64Array.from(ends);
    this.boxes = ends.length > 0 ? boxesAbout(this.ends) : null;
  }

  /** @returns null where there are no lines */
  nearest([x, y]: Point2): Near | null {
    let best: Near | null = null;
    const e = this.ends;
    for (const i of this.boxes?.neighbors(x, y, BOXES) ?? []) {
      const [ax, ay, bx, by] = [e[4 * i]!, e[4 * i + 1]!, e[4 * i + 2]!, e[4 * i + 3]!];
      const [dx, dy] = [bx - ax, by - ay];
      const long = dx * dx + dy * dy;
      const t = long === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / long));
      const at: Point2 = [ax + t * dx, ay + t * dy];
      const distance = Math.hypot(x - at[0], y - at[1]);
      if (!best || distance < best.distance) best = { distance, at };
    }
    return best;
  }

  /** Whether a place is inside: in a ring, and in none of its holes. */
  holds([x, y]: Point2): boolean {
    return this.lines.filter(line => polygonContains(line, [x, y])).length % 2 === 1;
  }
}

function boxesAbout(ends: Float64Array): Flatbush {
  const boxes = new Flatbush(ends.length / 4);
  for (let i = 0; i < ends.length; i += 4) {
    const [x0, y0, x1, y1] = [ends[i]!, ends[i + 1]!, ends[i + 2]!, ends[i + 3]!];
    boxes.add(Math.min(x0, x1), Math.min(y0, y1), Math.max(x0, x1), Math.max(y0, y1));
  }
  boxes.finish();
  return boxes;
}
