import { type Curve, curvesOf, flattenedPoints, sweepOf } from '../shape/curve';
import type { Outline } from '../shape/kernels/kernel';
import type { Point2 } from '../shape/vector';

/** Grid of distances, mm: between its points linear interpolation is good enough. */
const STEP = 0.1;
const SHADOW_STEP = 0.25;
const JUST_OUT = 0.01;

/**
 * A flat thing on a table: extruded outlines with upright walls and a 45° chamfer on the upper edge. Lengths mm; x to
 * the right, y down the sheet.
 */
export class FlatObject {
  private readonly from: Point2;
  private readonly wide: number;
  private readonly tall: number;
  private readonly far: Float32Array;
  private shadows: { wide: number; from: Point2; at: Float32Array } | null = null;

  constructor(
    /** The outer line and the holes. */
    outlines: readonly Outline[],
    readonly height: number,
    readonly broken: number,
  ) {
    const distances = outlines.flatMap(curvesOf).map(distanceTo);
    const loops = outlines.map(o => flattenedPoints(o, 0.002));
    const all = loops.flat();
    const low = [0, 1].map(i => Math.min(...all.map(p => p[i as 0]!)) - 3);
    const high = [0, 1].map(i => Math.max(...all.map(p => p[i as 0]!)) + 3);
    this.from = [low[0]!, low[1]!];
    this.wide = Math.ceil((high[0]! - low[0]!) / STEP) + 1;
    this.tall = Math.ceil((high[1]! - low[1]!) / STEP) + 1;
    this.far = new Float32Array(this.wide * this.tall);
    for (let j = 0; j < this.tall; j++) {
      const y = low[1]! + j * STEP;
      const crossed = loops.flatMap(l => crossingsOf(l, y)).sort((a, b) => a - b);
      let next = 0;
      for (let i = 0; i < this.wide; i++) {
        const x = low[0]! + i * STEP;
        while (next < crossed.length && crossed[next]! <= x) next++;
        let least = Infinity;
        for (const distance of distances) least = Math.min(least, distance(x, y));
        this.far[j * this.wide + i] = next % 2 === 1 ? -least : least;
      }
    }
  }

  /** How far outside the outline a place is; negative inside the material. */
  distance(x: number, y: number): number {
    const [p, q] = [(x - this.from[0]) / STEP, (y - this.from[1]) / STEP];
    const [i, j] = [Math.floor(p), Math.floor(q)];
    if (i < 0 || j < 0 || i >= this.wide - 1 || j >= this.tall - 1) {
      // Outside the grid: at least this far.
      const [dx, dy] = [Math.max(0, -p, p - this.wide + 1) * STEP, Math.max(0, -q, q - this.tall + 1) * STEP];
      return Math.hypot(dx, dy) + 2.5;
    }
    const [a, b] = [p - i, q - j];
    const k = j * this.wide + i;
    return (
      (1 - b) * ((1 - a) * this.far[k]! + a * this.far[k + 1]!) +
      b * ((1 - a) * this.far[k + this.wide]! + a * this.far[k + this.wide + 1]!)
    );
  }

  /** What a ray meets on its way from the upper face's height down to the sheet. */
  hit(top: Point2, foot: Point2): { at: Point2; wall: boolean } | null {
    const way = Math.hypot(top[0] - foot[0], top[1] - foot[1]);
    let s = 0;
    for (let round = 0; round < 60; round++) {
      const share = way > 0 ? s / way : 0;
      const [x, y] = [top[0] + share * (foot[0] - top[0]), top[1] + share * (foot[1] - top[1])];
      // Near the upper face the outline is smaller by the chamfer.
      const down = this.height * share;
      const d = this.distance(x, y) + Math.max(0, this.broken - down);
      if (d <= 0) return { at: [x, y], wall: s > 0 };
      if (s >= way) return null;
      // Down a chamfer the outline comes towards the ray as fast as the ray goes down.
      const steep = way > 0 && down < this.broken ? 1 + this.height / way : 1;
      s = Math.min(way, s + Math.max(2e-3, d / steep));
    }
    return null;
  }

  /** How much of a lamp is hidden from a place on the sheet, 0 to 1. */
  shadow([x, y]: Point2, lamp: { at: Point2; height: number; wide: number }): number {
    this.shadows ??= this.shadowsBy(lamp);
    const { wide, from, at } = this.shadows;
    const [p, q] = [(x - from[0]) / SHADOW_STEP, (y - from[1]) / SHADOW_STEP];
    const [i, j] = [Math.floor(p), Math.floor(q)];
    const k = j * wide + i;
    if (i < 0 || j < 0 || i >= wide - 1 || k + wide + 1 >= at.length) return 0;
    const [a, b] = [p - i, q - j];
    return (
      (1 - b) * ((1 - a) * at[k]! + a * at[k + 1]!) + b * ((1 - a) * at[k + wide]! + a * at[k + wide + 1]!)
    );
  }

  /**
   * A place under the object, moved out from under it: it is dark there, which says nothing about the sheet next to it.
   */
  private beside([x, y]: Point2): Point2 {
    const d = this.distance(x, y);
    if (d > JUST_OUT) return [x, y];
    const [gx, gy] = [
      this.distance(x + STEP, y) - this.distance(x - STEP, y),
      this.distance(x, y + STEP) - this.distance(x, y - STEP),
    ];
    const long = Math.hypot(gx, gy) || 1;
    return [x + ((JUST_OUT - d) * gx) / long, y + ((JUST_OUT - d) * gy) / long];
  }

  private shadowsBy(lamp: { at: Point2; height: number; wide: number }) {
    const reach = 2 * this.height + 2;
    const from: Point2 = [this.from[0] - reach, this.from[1] - reach];
    const wide = Math.ceil((this.wide * STEP + 2 * reach) / SHADOW_STEP);
    const tall = Math.ceil((this.tall * STEP + 2 * reach) / SHADOW_STEP);
    const at = new Float32Array(wide * tall);
    const lights = Array.from({ length: 12 }, (_, k): Point2 => {
      // Evenly spread over a disc (Vogel 1979).
      const r = (lamp.wide / 2) * Math.sqrt((k + 0.5) / 12);
      return [lamp.at[0] + r * Math.cos(2.39996 * k), lamp.at[1] + r * Math.sin(2.39996 * k)];
    });
    for (let j = 0; j < tall; j++)
      for (let i = 0; i < wide; i++) {
        const p = this.beside([from[0] + i * SHADOW_STEP, from[1] + j * SHADOW_STEP]);
        let hidden = 0;
        for (const l of lights) {
          const share = this.height / lamp.height;
          const over: Point2 = [p[0] + share * (l[0] - p[0]), p[1] + share * (l[1] - p[1])];
          if (this.hit(over, p)) hidden++;
        }
        at[j * wide + i] = hidden / lights.length;
      }
    return { wide, from, at };
  }
}

function crossingsOf(loop: readonly Point2[], y: number): number[] {
  return loop.flatMap((a, i) => {
    const b = loop[(i + 1) % loop.length]!;
    return a[1] > y === b[1] > y ? [] : [a[0] + ((y - a[1]) / (b[1] - a[1])) * (b[0] - a[0])];
  });
}

/** Distance to a curve, for very many places: the curve's own constants are worked out once. */
export function distanceTo({ from, to, arc }: Curve): (x: number, y: number) => number {
  const [ax, ay] = from;
  const [bx, by] = to;
  if (!arc) {
    const [dx, dy] = [bx - ax, by - ay];
    const long = dx * dx + dy * dy || 1;
    return (x, y) => {
      const s = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / long));
      return Math.hypot(x - ax - s * dx, y - ay - s * dy);
    };
  }
  const { radius, turn } = arc;
  const [cx, cy] = arc.centre;
  const start = Math.atan2(ay - cy, ax - cx);
  const sweep = sweepOf({ from, to, arc });
  const full = 2 * Math.PI;
  return (x, y) => {
    const turned = ((Math.atan2(y - cy, x - cx) - start) * turn + 2 * full) % full;
    return turned <= sweep
      ? Math.abs(Math.hypot(x - cx, y - cy) - radius)
      : Math.min(Math.hypot(x - ax, y - ay), Math.hypot(x - bx, y - by));
  };
}
