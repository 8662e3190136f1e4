import type { Curve } from '../curve';
import { cross2, distance2, type Point2 } from '../vector';
import { curvesOfPieces } from './joints';
import {
  ARC_COST,
  headingOf,
  isArc,
  LINE_COST,
  laidOn,
  orthogonal,
  type Parted,
  type Piece,
  pieceOf,
  SHARE,
  stepOf,
  TELLING,
} from './pieces';
import { Runs } from './runs';

/**
 * A line of measured points as the lines and arcs that it most likely is. All ways to divide it are compared by dynamic
 * programming (Bellman, “On the approximation of curves by line segments using dynamic programming”, 1961): a piece
 * costs its misfit plus a fixed amount. Then each piece is fitted to its points by least squares, and neighbours meet
 * where they cross or touch. Lengths mm.
 */

/** The most points that are compared; a longer line is thinned evenly. */
const MOST_POINTS = 420;
/** @param tolerance how far points may scatter about a line, mm */
export function linesAndArcs(points: readonly Point2[], closed: boolean, tolerance: number): Curve[] {
  const parted = partedLine(points, closed, tolerance);
  return parted ? curvesOfParted(parted) : [];
}

/** Null where there is hardly anything to divide. */
export function partedLine(points: readonly Point2[], closed: boolean, tolerance: number): Parted | null {
  const even = evenly(points, closed);
  return even.length < 3 ? null : partedInto(even, closed, tolerance);
}

/** @param points with nearly even spacing: where some are missing, pieces meet across the gap */
export function partedInto(points: readonly Point2[], closed: boolean, tolerance: number): Parted {
  if (!closed) return { points, closed, tolerance, pieces: pieced(points, tolerance) };
  if (wholeCircle(points, tolerance)) return { points, closed, tolerance, pieces: 'circle' };
  // A closed line has no first point: it is divided once, and again from its sharpest corner.
  const first = pieced([...points, points[0]!], tolerance);
  const joints = first
    .slice(0, -1)
    .map((p, i) => ({ at: p.to, sharp: sharpness(p, first[i + 1]!, points[p.to]!) }));
  const middle = joints.sort((a, b) => b.sharp - a.sharp)[0]?.at ?? 0;
  const turned = [...points.slice(middle), ...points.slice(0, middle), points[middle]!];
  return { points: turned, closed, tolerance, pieces: pieced(turned, tolerance) };
}

export function curvesOfParted({ points, closed, tolerance, pieces }: Parted): Curve[] {
  if (pieces === 'circle') return roundOf(points);
  return curvesOfPieces(pieces, points, closed, tolerance);
}

/** The same pieces fitted to the same points in their new places. @param points the same number, in the same order */
export function partedAgain(before: Parted, points: readonly Point2[]): Parted {
  const { pieces } = before;
  if (pieces === 'circle') return { ...before, points };
  const runs = new Runs(points);
  return { ...before, points, pieces: pieces.map(p => laidOn(points, runs, p)) };
}

/** How much a line turns where two pieces meet: 0 straight on, 1 at right angles, 2 back. */
function sharpness(a: Piece, b: Piece, joint: Point2): number {
  const [p, q] = [headingOf(a, joint), headingOf(b, joint)];
  return 1 - (p[0] * q[0] + p[1] * q[1]);
}

/** Points with even spacing along the line. */
function evenly(points: readonly Point2[], closed: boolean): Point2[] {
  const line = closed ? [...points, points[0]!] : points;
  const along = [0];
  for (let i = 1; i < line.length; i++) along.push(along[i - 1]! + distance2(line[i - 1]!, line[i]!));
  const length = along.at(-1)!;
  if (!(length > 0)) return [];
  const count = Math.max(8, Math.min(MOST_POINTS, line.length));
  const out: Point2[] = [];
  let k = 0;
  for (let i = 0; i < (closed ? count - 1 : count); i++) {
    const s = (i * length) / (count - 1);
    while (k < line.length - 2 && along[k + 1]! < s) k++;
    const share = (s - along[k]!) / (along[k + 1]! - along[k]! || 1);
    const [a, b] = [line[k]!, line[k + 1]!];
    out.push([a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])]);
  }
  return out;
}

function wholeCircle(points: readonly Point2[], tolerance: number): boolean {
  const found = new Runs(points).circle(0, points.length - 1);
  return found !== null && Math.sqrt(found.missed / points.length) <= SHARE * tolerance;
}

/** A circle as two arcs. @param given its radius, where it is known */
export function roundOf(points: readonly Point2[], given?: number): Curve[] {
  const rough = new Runs(points).circle(0, points.length - 1);
  if (!rough) return [];
  const { centre, radius } = orthogonal(points, rough.centre, given ?? rough.radius, given !== undefined);
  const area = points.reduce((sum, p, i) => sum + cross2(p, points[(i + 1) % points.length]!), 0);
  const arc = { centre, radius, turn: area > 0 ? 1 : -1 } as const;
  const right: Point2 = [centre[0] + radius, centre[1]];
  const left: Point2 = [centre[0] - radius, centre[1]];
  return [
    { from: right, to: left, arc },
    { from: left, to: right, arc },
  ];
}

function pieced(points: readonly Point2[], tolerance: number): Piece[] {
  const n = points.length;
  const runs = new Runs(points);
  const step = stepOf(points);
  const sd = (SHARE * tolerance) ** 2;
  const best = new Float64Array(n).fill(Infinity);
  const back = new Int32Array(n);
  best[0] = 0;
  for (let to = 1; to < n; to++)
    for (let from = 0; from < to; from++) {
      const line = best[from]! + LINE_COST;
      const arc = best[from]! + ARC_COST;
      if (line >= best[to]!) continue;
      const straight = runs.line(from, to);
      const telling = Math.min(1, TELLING / (to - from + 1)) / sd;
      const asLine = line + straight.missed * telling;
      if (asLine < best[to]!) {
        best[to] = asLine;
        back[to] = from;
      }
      if (to - from < 4 || arc >= best[to]!) continue;
      const circle = runs.circle(from, to);
      if (!circle || !isArc(circle.radius, (to - from) * step)) continue;
      const asArc = arc + circle.missed * telling;
      if (asArc < best[to]!) {
        best[to] = asArc;
        back[to] = from;
      }
    }
  const pieces: Piece[] = [];
  for (let to = n - 1; to > 0; to = back[to]!) pieces.unshift(pieceOf(points, runs, back[to]!, to, sd, step));
  return pieces;
}
