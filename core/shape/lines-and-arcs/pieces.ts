import { solved } from '../../quantity/linear';
import { cross2, distance2, minus2, type Point2, unit2 } from '../vector';
import { Runs } from './runs';

/**
 * The cost of one more piece, in squares of the tolerance: an arc has one number more. Tried on sections of known
 * objects.
 */
export const [LINE_COST, ARC_COST] = [14, 20];
/** A piece that misses by half of the tolerance throughout is at the limit. */
export const SHARE = 0.5;
/** Measured lines bow and warp: more points than this add nothing, since neighbours have the same error. */
export const TELLING = 40;
/** An arc with a radius larger than this many times its own length is a line. */
const FLAT = 8;
export type Piece = Run &
  ({ kind: 'line'; at: Point2; way: Point2 } | { kind: 'arc'; centre: Point2; radius: number; turn: 1 | -1 });

/** The run of points of a piece, and how it is fitted to them. */
export interface Run {
  from: number;
  to: number;
  /** The points that it is fitted to, where they are not nearly all of its run. */
  own?: readonly [number, number];
  /** It begins where it crosses the piece before it, however far that is from both. */
  meets?: boolean;
}

/** A line of points and the runs of them that make each piece; or all of them make one circle. */
export interface Parted {
  points: readonly Point2[];
  closed: boolean;
  tolerance: number;
  pieces: readonly Piece[] | 'circle';
}

export function headingOf(p: Piece, at: Point2): Point2 {
  if (p.kind === 'line') return p.way;
  const out = unit2(minus2(at, p.centre));
  return [-p.turn * out[1], p.turn * out[0]];
}

export const isArc = (radius: number, length: number) =>
  radius < FLAT * length && length < 2.05 * Math.PI * radius;

export function pieceOf(
  points: readonly Point2[],
  runs: Runs,
  from: number,
  to: number,
  sd: number,
  step: number,
): Piece {
  const [a, b] = ownOf({ from, to });
  const line = runs.line(a, b);
  const circle = to - from >= 4 ? runs.circle(a, b) : null;
  const telling = Math.min(1, TELLING / (b - a + 1)) / sd;
  const isRound =
    circle !== null &&
    isArc(circle.radius, (to - from) * step) &&
    ARC_COST + circle.missed * telling < LINE_COST + line.missed * telling;
  return laidOn(points, runs, { from, to, kind: isRound ? 'arc' : 'line' });
}

/** The points that certainly belong to a piece: next to a corner they also belong to the neighbour. */
export function ownOf({ from, to, own }: Run): readonly [number, number] {
  if (own) return own;
  const off = Math.min(2, Math.floor((to - from) / 6));
  return [from + off, to - off];
}

export function laidOn(
  points: readonly Point2[],
  runs: Runs,
  { from, to, own, meets, kind }: Run & Pick<Piece, 'kind'>,
): Piece {
  const run: Run = { from, to, ...(own ? { own } : {}), ...(meets ? { meets } : {}) };
  const [a, b] = ownOf(run);
  const circle = kind === 'arc' ? runs.circle(a, b) : null;
  if (!circle) return { ...run, kind: 'line', ...lineOn(runs, a, b) };
  const middle = points[Math.floor((a + b) / 2)]!;
  const turn = cross2(minus2(middle, points[a]!), minus2(points[b]!, middle)) > 0 ? 1 : -1;
  const fine = orthogonal(points.slice(a, b + 1), circle.centre, circle.radius);
  return { ...run, kind: 'arc', turn, ...fine };
}

function lineOn(runs: Runs, a: number, b: number): { at: Point2; way: Point2 } {
  const { at, way } = runs.line(a, b);
  return { at, way };
}

/** A run of points as a line or an arc, by least squares; an arc that they do not make becomes a line. */
export const laidAs = (points: readonly Point2[], run: Run, kind: Piece['kind']): Piece =>
  laidOn(points, new Runs(points), { ...run, kind });

/** A run of points as its most likely kind. @param tolerance mm */
export function likeliest(points: readonly Point2[], run: Run, tolerance: number): Piece {
  const runs = new Runs(points);
  const { kind } = pieceOf(points, runs, run.from, run.to, (SHARE * tolerance) ** 2, stepOf(points));
  return laidOn(points, runs, { ...run, kind });
}

/** The sums of squared misses of a run of points, as a line and as an arc, mm². */
export function missedOn(points: readonly Point2[]): (run: Run, kind: Piece['kind']) => number {
  const runs = new Runs(points);
  return (run, kind) => {
    const [a, b] = ownOf(run);
    return kind === 'line' ? runs.line(a, b).missed : (runs.circle(a, b)?.missed ?? Infinity);
  };
}

/** An arc with a given radius, fitted to its points. */
export function withRadius(
  { points }: Pick<Parted, 'points'>,
  piece: Extract<Piece, { kind: 'arc' }>,
  radius: number,
): Extract<Piece, { kind: 'arc' }> {
  const [a, b] = ownOf(piece);
  return { ...piece, ...orthogonal(points.slice(a, b + 1), piece.centre, radius, true) };
}

/** Typical distance between neighbouring points, mm. */
export function stepOf(points: readonly Point2[]): number {
  const steps = points.slice(1).map((p, i) => distance2(p, points[i]!));
  return steps.sort((a, b) => a - b)[steps.length >> 1] ?? 0;
}

/** Least squares of the true distance: for a short arc, Kåsa's circle is too small. */
export function orthogonal(points: readonly Point2[], centre: Point2, radius: number, keep = false) {
  let [u, v, r] = [centre[0], centre[1], radius];
  for (let round = 0; round < 12; round++) {
    const a = [0, 1, 2].map(() => [0, 0, 0]);
    const b = [0, 0, 0];
    for (const [x, y] of points) {
      const far = Math.hypot(x - u, y - v) || 1;
      const row = [-(x - u) / far, -(y - v) / far, -1];
      for (let j = 0; j < 3; j++) {
        b[j]! -= row[j]! * (far - r);
        for (let k = 0; k < 3; k++) a[j]![k]! += row[j]! * row[k]!;
      }
    }
    for (let j = 0; j < 3; j++) a[j]![j]! += 1e-12 * points.length;
    // A given radius stays as it is.
    if (keep) a[2]![2]! += 1e12;
    const step = solved(a, b);
    if (!step) return { centre, radius };
    const [du, dv, dr] = step as [number, number, number];
    if (!(Math.hypot(du, dv) < radius) || r + dr <= 0) return { centre, radius };
    [u, v, r] = [u + du, v + dv, r + dr];
    if (Math.abs(dr) + Math.hypot(du, dv) < 1e-9) break;
  }
  return { centre: [u, v] as Point2, radius: r };
}
