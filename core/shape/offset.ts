import {
  areaOfCurves,
  type Curve,
  curvesOf,
  flattenedPoints,
  headingAt,
  lengthOfCurve,
  outlineOfCurves,
  sweepOf,
} from './curve';
import type { Outline } from './kernels/kernel';
import type { Point2 } from './vector';
import { cross2, distance2, minus2, unit2 } from './vector';

/** The outline cannot be offset that far; the message is for the maker. */
export class OffsetError extends Error {
  override name = 'OffsetError';
}

/** A mitre longer than this many times the offset is cut off; next to an arc it may also reach along the arc. */
const LONGEST_MITRE = 4;
const SAME = 1e-7;

/**
 * An outline of lines and arcs, offset outwards (inwards below 0): lines stay lines, arcs keep their centres, corners
 * stay sharp. Runs and must run counter-clockwise. mm
 * @param by one amount for all edges, or one for each: an edge's own trim
 * @throws OffsetError where edges vanish or the outline would cross itself
 */
export function offsetOutline(outline: Outline, by: number | readonly number[]): Outline {
  return sound(moved(outline, by));
}

function sound(outline: Outline): Outline {
  if (crossesItself(outline)) throw new OffsetError('The outline would cross itself there.');
  return outline;
}

/** Edge by edge; only neighbouring edges are considered here. */
function moved(outline: Outline, by: number | readonly number[]): Outline {
  const curves = curvesOf(outline);
  const amount = (i: number) => (typeof by === 'number' ? by : by[i]!);
  if (curves.every((_, i) => Math.abs(amount(i)) < SAME)) return outline;
  if (curves.length === 1 || isCircle(curves)) return circleOffset(curves, amount(0));
  const edges = curves.map((c, i) => shifted(c, amount(i)));
  const ends = edges.map((c, i) =>
    meeting(c, edges[(i + 1) % edges.length]!, curves[i]!.to, amount(i), amount((i + 1) % edges.length)),
  );
  const result: Curve[] = [];
  edges.forEach((c, i) => {
    const before = ends[(i + edges.length - 1) % edges.length]!;
    const after = ends[i]!;
    const next: Curve = { ...c, from: before.at(-1)!, to: after[0]! };
    if (!sameDirection(next, curves[i]!)) throw new OffsetError(vanished(i + 1));
    if (lengthOfCurve(next) > SAME) result.push(next);
    for (let k = 1; k < after.length; k++) result.push({ from: after[k - 1]!, to: after[k]! });
  });
  return outlineOfCurves(result);
}

const vanished = (edge: number) => `Edge ${edge} would vanish: it is too short, or its corner too tight.`;

const isCircle = (curves: readonly Curve[]) =>
  curves.every(c => c.arc && distance2(c.arc.centre, curves[0]!.arc!.centre) < SAME);

function circleOffset(curves: readonly Curve[], by: number): Outline {
  return outlineOfCurves(
    curves.map((c, i) => {
      const moved = shifted(c, by);
      if (moved.arc!.radius <= SAME) throw new OffsetError(vanished(i + 1));
      return moved;
    }),
  );
}

/** Moved to its right, which is outwards for an outline that runs counter-clockwise. */
function shifted(c: Curve, by: number): Curve {
  if (!c.arc) {
    const [x, y] = unit2(minus2(c.to, c.from));
    const step = ([px, py]: Point2): Point2 => [px + by * y, py - by * x];
    return { from: step(c.from), to: step(c.to) };
  }
  const radius = c.arc.radius + c.arc.turn * by;
  const on = (p: Point2): Point2 => {
    const [x, y] = unit2(minus2(p, c.arc!.centre));
    return [c.arc!.centre[0] + radius * x, c.arc!.centre[1] + radius * y];
  };
  return { from: on(c.from), to: on(c.to), arc: { ...c.arc, radius } };
}

/** Where two offset edges meet: one point, or two where a long mitre is cut off. */
function meeting(a: Curve, b: Curve, corner: Point2, byA: number, byB: number): Point2[] {
  if (distance2(a.to, b.from) < SAME) return [a.to];
  const most = Math.max(Math.abs(byA), Math.abs(byB));
  const farthest =
    LONGEST_MITRE * most + 2 * Math.sqrt(2 * most * Math.max(a.arc?.radius ?? 0, b.arc?.radius ?? 0));
  const away = (p: Point2) => distance2(p, corner) + (onArcs(p, a, b) ? 0 : SIDEWAYS * distance2(p, corner));
  const [nearest] = crossings(a, b)
    .filter(p => distance2(p, corner) < farthest + SAME)
    .sort((p, q) => away(p) - away(q));
  if (nearest) return [nearest];
  // A sharp point outwards is cut off square to its bisector; inwards that is impossible.
  const outwards = cross2(headingAt(a, 1), headingAt(b, 0)) > 0 && byA >= 0 && byB >= 0;
  if (outwards) return [a.to, b.from];
  throw new OffsetError('Two edges no longer meet there.');
}

/**
 * A line that cuts off the end of an arc it touched crosses its circle twice, about equally far away: the crossing on
 * the arc is meant.
 */
const SIDEWAYS = 0.5;

const onArcs = (p: Point2, ...curves: readonly Curve[]): boolean =>
  curves.every(c => !c.arc || sweepOf({ ...c, to: p }) <= sweepOf(c) + SAME);

/** Where the whole lines or circles of two edges cross. */
function crossings(a: Curve, b: Curve): Point2[] {
  if (!a.arc && !b.arc) {
    const [da, db] = [minus2(a.to, a.from), minus2(b.to, b.from)];
    const wide = cross2(unit2(da), unit2(db));
    if (Math.abs(wide) < 1e-9) return [];
    const t = cross2(minus2(b.from, a.from), db) / cross2(da, db);
    return [[a.from[0] + t * da[0], a.from[1] + t * da[1]]];
  }
  if (a.arc && b.arc) return circlesCross(a.arc, b.arc);
  const [line, arc] = a.arc ? [b, a.arc] : [a, b.arc!];
  const [x, y] = unit2(minus2(line.to, line.from));
  const to = minus2(arc.centre, line.from);
  const along = to[0] * x + to[1] * y;
  const off = cross2([x, y], to);
  const half = arc.radius ** 2 - off ** 2;
  if (half < -SAME * arc.radius) return [];
  const reach = Math.sqrt(Math.max(0, half));
  return [along - reach, along + reach].map(t => [line.from[0] + t * x, line.from[1] + t * y]);
}

function circlesCross(a: NonNullable<Curve['arc']>, b: NonNullable<Curve['arc']>): Point2[] {
  const d = distance2(a.centre, b.centre);
  if (d < SAME) return [];
  const along = (d * d + a.radius ** 2 - b.radius ** 2) / (2 * d);
  const half = a.radius ** 2 - along ** 2;
  if (half < -SAME * a.radius) return [];
  const reach = Math.sqrt(Math.max(0, half));
  const [x, y] = unit2(minus2(b.centre, a.centre));
  const foot: Point2 = [a.centre[0] + along * x, a.centre[1] + along * y];
  return [-reach, reach].map(t => [foot[0] - t * y, foot[1] + t * x]);
}

/**
 * An outline offset evenly until one of its sizes has a given value. A flat side moves by the offset, a sharp corner by
 * more, so the offset is found by iteration.
 * @returns the offset, mm per side
 * @throws OffsetError
 */
export function offsetTo(
  outline: Outline,
  sizeOf: (o: Outline) => number,
  size: number,
): { outline: Outline; moved: number } {
  let [by, reached, slope] = [0, sizeOf(outline), 2];
  let now = outline;
  for (let i = 0; i < 12 && Math.abs(size - reached) > 1e-6; i++) {
    const next = by + (size - reached) / slope;
    now = moved(outline, next);
    const there = sizeOf(now);
    if (Math.abs(there - reached) > 1e-9) slope = (there - reached) / (next - by);
    [by, reached] = [next, there];
  }
  return { outline: sound(now), moved: by };
}

/** Whether an edge keeps its direction and its sense of turning. */
function sameDirection(now: Curve, before: Curve): boolean {
  if (!now.arc || !before.arc) {
    const [p, q] = [minus2(now.to, now.from), minus2(before.to, before.from)];
    return p[0] * q[0] + p[1] * q[1] > 0;
  }
  if (now.arc.radius <= SAME) return false;
  return Math.abs(sweepOf(now) - sweepOf(before)) < Math.PI / 2;
}

/** Whether edges that are not neighbours touch. Arcs become straight pieces to 0.01. */
export function crossesItself(outline: Outline): boolean {
  if (areaOfCurves(curvesOf(outline)) <= 0) return true;
  const points = flattenedPoints(outline, 0.01);
  const n = points.length;
  const side = (p: Point2, q: Point2, r: Point2) => cross2(minus2(q, p), minus2(r, p));
  const pieces = points.map((a, i) => {
    const b = points[(i + 1) % n]!;
    return { i, a, b, from: Math.min(a[0], b[0]), to: Math.max(a[0], b[0]) };
  });
  // From left to right: only pieces with a common x are compared.
  pieces.sort((p, q) => p.from - q.from);
  return pieces.some((p, k) => {
    for (let m = k + 1; m < n && pieces[m]!.from <= p.to; m++) {
      const q = pieces[m]!;
      const apart = Math.abs(p.i - q.i);
      if (apart === 1 || apart === n - 1) continue;
      // Collinear, but not overlapping.
      if (Math.max(p.a[1], p.b[1]) < Math.min(q.a[1], q.b[1])) continue;
      if (Math.min(p.a[1], p.b[1]) > Math.max(q.a[1], q.b[1])) continue;
      if (side(p.a, p.b, q.a) * side(p.a, p.b, q.b) <= 0 && side(q.a, q.b, p.a) * side(q.a, q.b, p.b) <= 0)
        return true;
    }
    return false;
  });
}
