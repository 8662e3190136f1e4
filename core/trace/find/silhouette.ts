import { quantile } from 'd3-array';
import { contours } from 'd3-contour';
import { polygonArea, polygonCentroid, polygonContains } from 'd3-polygon';
import type { Point2 } from '../../shape/vector';
import type { Flattened } from './flattened';
import type { SheetLight } from './sheet-light';

/** The object, roughly: its outer line and its holes, closed, in places of the plane. */
export interface Silhouette {
  outer: Point2[];
  holes: Point2[][];
  /** Its reflected light for each colour, as shares of the sheet's. */
  tone: [number, number, number];
  /** Lighter places inside it that are not clearly holes: deep ones, or something shiny. Their centres. */
  unclear: Point2[];
  /** Extends beyond the area examined. */
  cut: boolean;
  /** Area inside its line, mm², and that of the next largest thing. */
  area: number;
  beside: number;
}

/** Smaller ones are dirt, mm²: an object, a hole. */
const [LEAST_OBJECT, LEAST_HOLE] = [40, 1.5];
/** Levels that are tried, as the logarithm of a share of the sheet's light. */
const [LOWEST, HIGHEST, LEVELS] = [Math.log(0.04), Math.log(0.93), 90];
/** A level with fewer neighbours across it than this is the edge of a speck. */
const LEAST_PARTED = 160;

/**
 * How dark each place is relative to the bare sheet, in logarithms: 0 is sheet, below 0 the object.
 * On a dark sheet, how light.
 */
export function darkness(
  { from, step, wide, tall, light }: Flattened,
  sheet: SheetLight,
  middle: 'white' | 'dark',
): Float32Array {
  const out = new Float32Array(wide * tall);
  const bare = new Float64Array(3);
  for (let j = 0; j < tall; j++)
    for (let i = 0; i < wide; i++) {
      const at = j * wide + i;
      if (light[3 * at]! < 0) continue;
      sheet(from[0] + i * step, from[1] + j * step, bare);
      let least = Infinity;
      for (let k = 0; k < 3; k++) {
        const share = Math.max(0.004, light[3 * at + k]!) / bare[k]!;
        least = Math.min(least, middle === 'white' ? share : 1 / share);
      }
      out[at] = Math.log(Math.max(0.01, least));
    }
  return out;
}

/** Something that lies in the plane: its outer line, and whether it extends beyond the area examined. */
export interface Thing {
  ring: readonly Point2[];
  cut: boolean;
}

/** The maker's strokes: this is the object, this is not. Places of the plane, mm. */
export interface DrawnOver {
  object: boolean;
  at: readonly Point2[];
  radius: number;
}

/**
 * @param inside a place of the object, where there are several things
 * @param drawn in drawing order
 * @param isNot what is certainly not meant, unless it is pointed at
 */
export function silhouetteOf(
  flat: Flattened,
  seen: Float32Array,
  inside: Point2 | null,
  drawn: readonly DrawnOver[] = [],
  isNot: (thing: Thing) => boolean = () => false,
): Silhouette | null {
  const { wide, tall, from, step } = flat;
  // Only from what is visible: strokes have no light.
  const level = levelOf(seen, wide, tall);
  if (level === null) return null;
  const dark = drawn.length > 0 ? drawnOver(flat, seen, level, drawn) : seen;
  // d3's contours contain what is at least the level: the sign is turned so that this is the object.
  const turned = Array.from(dark, d => -d);
  const place = ([i, j]: number[]): Point2 => [from[0] + (i! - 0.5) * step, from[1] + (j! - 0.5) * step];
  const linesAt = (values: number[], w: number, h: number, at: number) =>
    contours().size([w, h]).thresholds([at])(values)[0]?.coordinates ?? [];
  const edge = 1.5 * step;
  const isCut = (ring: readonly Point2[]) =>
    ring.some(
      ([x, y]) =>
        x < from[0] + edge ||
        y < from[1] + edge ||
        x > from[0] + (wide - 1) * step - edge ||
        y > from[1] + (tall - 1) * step - edge,
    );
  const things = linesAt(turned, wide, tall, -level)
    .map(rings => rings.map(r => r.slice(1).map(place)))
    .map(rings => ({ rings, area: areaOf(rings[0]!) }))
    .filter(t => t.area > LEAST_OBJECT)
    .sort((a, b) => b.area - a.area);
  const chosen = inside
    ? things.find(t => polygonContains(t.rings[0]!.map(mutable), mutable(inside)))
    : things.find(t => !isNot({ ring: t.rings[0]!, cut: isCut(t.rings[0]!) }));
  if (!chosen) return null;
  const [outer, ...inner] = chosen.rings;
  if (!outer) return null;
  const tone = toneOf(flat, dark, level, outer);
  const holes = inner.filter(h => areaOf(h) > LEAST_HOLE);
  return {
    outer,
    holes,
    tone: tone.colour,
    unclear: lighterWithin(flat, dark, outer, holes, tone.level, level),
    cut: isCut(outer),
    area: chosen.area,
    beside: things.find(t => t !== chosen)?.area ?? 0,
  };
}

function drawnOver(
  { wide, tall, from, step }: Flattened,
  seen: Float32Array,
  level: number,
  drawn: readonly DrawnOver[],
): Float32Array {
  const out = Float32Array.from(seen);
  for (const { object, at, radius } of drawn) {
    const reach = Math.ceil(radius / step);
    // A stroke is one line: between its points as on them.
    for (const [x, y] of filled(at, radius / 2)) {
      const [ci, cj] = [Math.round((x - from[0]) / step), Math.round((y - from[1]) / step)];
      for (let j = Math.max(0, cj - reach); j <= Math.min(tall - 1, cj + reach); j++)
        for (let i = Math.max(0, ci - reach); i <= Math.min(wide - 1, ci + reach); i++)
          if (Math.hypot(i - ci, j - cj) * step <= radius)
            out[j * wide + i] = object ? Math.min(out[j * wide + i]!, 2 * level) : 0;
    }
  }
  return out;
}

function filled(at: readonly Point2[], step: number): Point2[] {
  return at.flatMap((a, i) => {
    const b = at[i + 1];
    if (!b) return [a];
    const count = Math.max(1, Math.ceil(Math.hypot(b[0] - a[0], b[1] - a[1]) / step));
    return Array.from(
      { length: count },
      (_, k): Point2 => [a[0] + (k / count) * (b[0] - a[0]), a[1] + (k / count) * (b[1] - a[1])],
    );
  });
}

const mutable = ([x, y]: Point2): [number, number] => [x, y];
const areaOf = (ring: readonly Point2[]) => Math.abs(polygonArea(ring.map(mutable)));

/** The level with the steepest edge along it: shadows end softly, things do not. */
function levelOf(dark: Float32Array, wide: number, tall: number): number | null {
  const [sum, count] = [new Float64Array(LEVELS + 1), new Float64Array(LEVELS + 1)];
  const bin = (d: number) =>
    Math.max(0, Math.min(LEVELS, Math.ceil(((d - LOWEST) / (HIGHEST - LOWEST)) * LEVELS)));
  const pair = (a: number, b: number) => {
    const [low, high] = a < b ? [a, b] : [b, a];
    if (high - low < 0.02) return;
    // Every level between the two: a difference array.
    const [i, j] = [bin(low), bin(high)];
    if (i === j) return;
    sum[i]! += high - low;
    sum[j]! -= high - low;
    count[i]! += 1;
    count[j]! -= 1;
  };
  for (let j = 0; j < tall - 2; j++)
    for (let i = 0; i < wide - 2; i++) {
      const at = j * wide + i;
      pair(dark[at]!, dark[at + 2]!);
      pair(dark[at]!, dark[at + 2 * wide]!);
    }
  let [s, c] = [0, 0];
  let best: { level: number; step: number } | null = null;
  for (let k = 0; k < LEVELS; k++) {
    s += sum[k]!;
    c += count[k]!;
    if (c < LEAST_PARTED) continue;
    const step = s / c;
    if (!best || step > best.step) best = { level: LOWEST + ((k + 0.5) / LEVELS) * (HIGHEST - LOWEST), step };
  }
  return best?.level ?? null;
}

/** The centre of what is inside a line. */
function toneOf(
  { from, step, wide, tall, light }: Flattened,
  dark: Float32Array,
  level: number,
  outer: readonly Point2[],
): { level: number; colour: [number, number, number] } {
  const xs = outer.map(p => (p[0] - from[0]) / step);
  const ys = outer.map(p => (p[1] - from[1]) / step);
  const [i0, i1] = [Math.max(0, Math.floor(Math.min(...xs))), Math.min(wide - 1, Math.ceil(Math.max(...xs)))];
  const [j0, j1] = [Math.max(0, Math.floor(Math.min(...ys))), Math.min(tall - 1, Math.ceil(Math.max(...ys)))];
  const all: number[] = [];
  const colours: number[][] = [[], [], []];
  const ring = outer.map(mutable);
  for (let j = j0; j <= j1; j += 4)
    for (let i = i0; i <= i1; i += 4) {
      const at = j * wide + i;
      if (dark[at]! > level || !polygonContains(ring, [from[0] + i * step, from[1] + j * step])) continue;
      all.push(dark[at]!);
      for (let k = 0; k < 3; k++) colours[k]!.push(light[3 * at + k]!);
    }
  const middle = (values: number[]) => quantile(values, 0.5) ?? 0;
  return { level: middle(all), colour: [middle(colours[0]!), middle(colours[1]!), middle(colours[2]!)] };
}

/** Inside the object, but lighter than it by half of the way to the sheet in logarithms, and not a hole. */
function lighterWithin(
  { from, step, wide, tall }: Flattened,
  dark: Float32Array,
  outer: readonly Point2[],
  holes: readonly (readonly Point2[])[],
  tone: number,
  level: number,
): Point2[] {
  const half = (tone + level) / 2;
  if (!(half < level - 0.1)) return [];
  const ring = outer.map(mutable);
  const known = holes.map(h => h.map(mutable));
  return (contours().size([wide, tall]).thresholds([half])(Array.from(dark))[0]?.coordinates ?? [])
    .map(rings =>
      rings[0]!.slice(1).map(([i, j]): Point2 => [from[0] + (i! - 0.5) * step, from[1] + (j! - 0.5) * step]),
    )
    .filter(r => areaOf(r) > 2 * LEAST_HOLE && polygonContains(ring, mutable(r[0]!)))
    .map((r): Point2 => polygonCentroid(r.map(mutable)))
    .filter(p => !known.some(h => polygonContains(h, mutable(p))));
}
