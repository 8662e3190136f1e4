import { simplified } from '../../shape/biarc';
import {
  areaOfCurves,
  boxOf,
  type Curve,
  flattenedPoints,
  outlineOfCurves,
  reversed,
} from '../../shape/curve';
import type { Outline } from '../../shape/kernels/kernel';
import { type Corner, MOST_CORNERS, writeCorners } from '../../shape/outline-text';
import type { Point2 } from '../../shape/vector';
import { distance2 } from '../../shape/vector';

/** What a maker can use of a drawing file: closed loops, the largest first. Lengths mm. */
export interface Profile {
  /** The unit that the file's numbers were read in. */
  unit: 'mm' | 'cm' | 'm' | 'in' | 'px';
  /** Whether the file states it. */
  unitSaid: boolean;
  loops: ProfileLoop[];
  /** What was left out or changed, in words. */
  notes: string[];
}

export interface ProfileLoop {
  /** A circle can become a hole; anything else is written out as an outline. */
  circle?: { x: number; y: number; diameter: number };
  outline: string;
  /** mm² */
  area: number;
  box: [number, number, number, number];
  points: Point2[];
}

/** The file cannot be used as a drawing; the message is for the maker. */
export class ProfileError extends Error {
  override name = 'ProfileError';
}

/** Ends closer than this count as one point: drawings are often drawn by eye. */
const NEAR = 0.05;
/** A file with more is a picture, not a profile. */
export const MOST_CURVES = 20_000;
/** A traced line is replaced by straight pieces that stay this near to it, coarser where necessary. */
const COARSEST = 0.4;

/** Joins lines and arcs in any order into closed loops. */
export function loopsOf(curves: readonly Curve[], notes: string[]): ProfileLoop[] {
  if (curves.length > MOST_CURVES)
    throw new ProfileError(`This file has ${curves.length} lines: at most ${MOST_CURVES}.`);
  const { closed, open } = chained(curves.filter(c => c.arc || distance2(c.from, c.to) > 1e-6));
  if (open > 0)
    notes.push(
      `${open === 1 ? 'One line does' : `${open} lines do`} not close within ${NEAR} mm and ${open === 1 ? 'was' : 'were'} left out.`,
    );
  if (closed.length === 0) throw new ProfileError('There is no closed outline in this file.');
  return closed
    .map(loop => (areaOfCurves(loop) < 0 ? loop.map(reversed).reverse() : loop))
    .filter(loop => areaOfCurves(loop) > 1e-3)
    .sort((a, b) => areaOfCurves(b) - areaOfCurves(a))
    .map(loop => described(loop, notes));
}

function described(loop: readonly Curve[], notes: string[]): ProfileLoop {
  const outline = outlineOfCurves(loop);
  const circle = circleOf(loop);
  const corners = cornersOf(outline, notes);
  return {
    ...(circle ? { circle } : {}),
    outline: writeCorners(corners),
    area: areaOfCurves(loop),
    box: boxOf(outline),
    points: flattenedPoints(outline, 0.05),
  };
}

const short = (x: number) => Number(x.toFixed(3)) + 0;

function cornersOf(outline: Outline, notes: string[]): Corner[] {
  if (outline.edges.length <= MOST_CORNERS) {
    const n = outline.edges.length;
    return outline.edges.map((_, i) => {
      // Corner i is where edge i − 1 ends.
      const { to, via } = outline.edges[(i + n - 1) % n]!;
      return {
        x: short(to[0]),
        y: short(to[1]),
        ...(via ? { via: [short(via[0]), short(via[1])] as [number, number] } : {}),
      };
    });
  }
  let tolerance = 0.02;
  let points = flattenedPoints(outline, 0.02);
  while (points.length > MOST_CORNERS && tolerance <= COARSEST) {
    points = simplified(flattenedPoints(outline, 0.02), tolerance);
    tolerance *= 1.5;
  }
  if (points.length > MOST_CORNERS)
    throw new ProfileError(
      `An outline in this file has more than ${MOST_CORNERS} corners: simplify it first.`,
    );
  notes.push(
    `An outline of ${outline.edges.length} pieces was simplified to ${points.length} corners, within ${(tolerance / 1.5).toFixed(2)} mm.`,
  );
  return points.map(([x, y]) => ({ x: short(x), y: short(y) }));
}

/** All arcs about one centre. */
function circleOf(loop: readonly Curve[]) {
  const first = loop[0]!.arc;
  if (!first) return undefined;
  const same = loop.every(
    c =>
      c.arc && distance2(c.arc.centre, first.centre) < 0.01 && Math.abs(c.arc.radius - first.radius) < 0.01,
  );
  if (!same) return undefined;
  const [x, y] = first.centre;
  return { x: short(x), y: short(y), diameter: short(2 * first.radius) };
}

/** Chains curves by their ends, whichever way each was drawn. */
function chained(curves: readonly Curve[]): { closed: Curve[][]; open: number } {
  const cell = (p: Point2) => [Math.floor(p[0] / NEAR), Math.floor(p[1] / NEAR)] as const;
  const ends = new Map<string, number[]>();
  curves.forEach((c, i) => {
    for (const p of [c.from, c.to]) {
      const key = cell(p).join();
      const at = ends.get(key);
      if (at) at.push(i);
      else ends.set(key, [i]);
    }
  });
  const used = new Uint8Array(curves.length);
  const nextFrom = (p: Point2): Curve | undefined => {
    const [cx, cy] = cell(p);
    let best: { i: number; away: number; flip: boolean } | undefined;
    for (let dx = -1; dx <= 1; dx++)
      for (let dy = -1; dy <= 1; dy++)
        for (const i of ends.get([cx + dx, cy + dy].join()) ?? []) {
          if (used[i]) continue;
          const c = curves[i]!;
          for (const flip of [false, true]) {
            const away = distance2(flip ? c.to : c.from, p);
            if (away < NEAR && (!best || away < best.away)) best = { i, away, flip };
          }
        }
    if (!best) return undefined;
    used[best.i] = 1;
    const c = curves[best.i]!;
    return best.flip ? reversed(c) : c;
  };
  const closed: Curve[][] = [];
  let open = 0;
  curves.forEach((first, i) => {
    if (used[i]) return;
    used[i] = 1;
    const loop = [first];
    while (distance2(loop.at(-1)!.to, first.from) > NEAR || whole(loop)) {
      const next = nextFrom(loop.at(-1)!.to);
      if (!next) break;
      loop.push(next);
    }
    if (distance2(loop.at(-1)!.to, first.from) > NEAR) open += loop.length;
    else closed.push(joined(loop));
  });
  return { closed, open };
}

/** A single short line begins near its own end, but encloses nothing. */
const whole = (loop: readonly Curve[]) => loop.length === 1 && !loop[0]!.arc;

/** Ends that nearly met are made to meet; an arc stays in place to within what anyone can measure. */
const joined = (loop: readonly Curve[]): Curve[] =>
  loop.map((c, i) => ({ ...c, from: loop[(i + loop.length - 1) % loop.length]!.to }));
