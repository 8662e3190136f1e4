import { solved } from '../quantity/linear';
import { arcThrough, type Curve, pointAt, sweepOf } from './curve';
import { cross2, distance2, minus2, type Point2, unit2 } from './vector';

/**
 * A line of measured points as the lines and arcs that it most likely is. All ways to divide it are compared by dynamic
 * programming (Bellman, “On the approximation of curves by line segments using dynamic programming”, 1961): a piece
 * costs its misfit plus a fixed amount. Then each piece is fitted to its points by least squares, and neighbours meet
 * where they cross or touch. Lengths mm.
 */

/** The most points that are compared; a longer line is thinned evenly. */
const MOST_POINTS = 420;
/**
 * The cost of one more piece, in squares of the tolerance: an arc has one number more. Tried on sections of known
 * objects.
 */
const [LINE_COST, ARC_COST] = [14, 20];
/** A piece that misses by half of the tolerance throughout is at the limit. */
const SHARE = 0.5;
/** Measured lines bow and warp: more points than this add nothing, since neighbours have the same error. */
const TELLING = 40;
/** An arc with a radius larger than this many times its own length is a line. */
const FLAT = 8;
/**
 * A line whose distance from an arc's centre is in this range, in radii, meets it at less than 9° and is taken as
 * tangent.
 */
const LEAST_AWAY = Math.cos((9 * Math.PI) / 180);

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

function headingOf(p: Piece, at: Point2): Point2 {
  if (p.kind === 'line') return p.way;
  const out = unit2(minus2(at, p.centre));
  return [-p.turn * out[1], p.turn * out[0]];
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

/** Running sums of powers of the points, so that any run of them can be fitted without going through it again. */
class Runs {
  private readonly sums: Float64Array;
  readonly middle: Point2;

  constructor(private readonly points: readonly Point2[]) {
    const n = points.length;
    this.middle = [points.reduce((s, p) => s + p[0], 0) / n, points.reduce((s, p) => s + p[1], 0) / n];
    this.sums = new Float64Array(9 * (n + 1));
    points.forEach((p, i) => {
      const [x, y] = minus2(p, this.middle);
      const z = x * x + y * y;
      [x, y, x * x, x * y, y * y, x * z, y * z, z, z * z].forEach((v, k) => {
        this.sums[9 * (i + 1) + k] = this.sums[9 * i + k]! + v;
      });
    });
  }

  private readonly run = new Float64Array(9);

  private of(from: number, to: number, many: number): Float64Array {
    for (let k = 0; k < many; k++) this.run[k] = this.sums[9 * (to + 1) + k]! - this.sums[9 * from + k]!;
    return this.run;
  }

  /** The line by least squares across it: the sum of squared misses, and its position. */
  line(from: number, to: number): { missed: number; at: Point2; way: Point2 } {
    const n = to - from + 1;
    const r = this.of(from, to, 5);
    const [x, y, xx, xy, yy] = [r[0]!, r[1]!, r[2]!, r[3]!, r[4]!];
    const [sxx, sxy, syy] = [xx - (x * x) / n, xy - (x * y) / n, yy - (y * y) / n];
    const missed = (sxx + syy) / 2 - Math.hypot((sxx - syy) / 2, sxy);
    const angle = Math.atan2(2 * sxy, sxx - syy) / 2;
    let way: Point2 = [Math.cos(angle), Math.sin(angle)];
    const chord = minus2(this.points[to]!, this.points[from]!);
    if (way[0] * chord[0] + way[1] * chord[1] < 0) way = [-way[0], -way[1]];
    return { missed: Math.max(0, missed), at: [x / n + this.middle[0], y / n + this.middle[1]], way };
  }

  /** The circle by linear least squares (Kåsa 1976): the sum of squared misses, and its position. */
  circle(from: number, to: number): { missed: number; centre: Point2; radius: number } | null {
    const n = to - from + 1;
    const r = this.of(from, to, 9);
    const [x, y, xx, xy, yy, xz, yz, z, zz] = [r[0]!, r[1]!, r[2]!, r[3]!, r[4]!, r[5]!, r[6]!, r[7]!, r[8]!];
    const [a, b, c] = [xx - (x * x) / n, xy - (x * y) / n, yy - (y * y) / n];
    const [p, q] = [xz - (x * z) / n, yz - (y * z) / n];
    const det = a * c - b * b;
    if (!(det > 1e-12 * (a + c) ** 2)) return null;
    const [u, v] = [(c * p - b * q) / det / 2, (a * q - b * p) / det / 2];
    const w = (z - 2 * u * x - 2 * v * y) / n;
    const square = w + u * u + v * v;
    if (!(square > 0)) return null;
    const missed = zz - (z * z) / n - 2 * u * p - 2 * v * q;
    return {
      missed: Math.max(0, missed) / (4 * square),
      centre: [u + this.middle[0], v + this.middle[1]],
      radius: Math.sqrt(square),
    };
  }
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

const isArc = (radius: number, length: number) => radius < FLAT * length && length < 2.05 * Math.PI * radius;

function pieceOf(
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

function laidOn(
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
function stepOf(points: readonly Point2[]): number {
  const steps = points.slice(1).map((p, i) => distance2(p, points[i]!));
  return steps.sort((a, b) => a - b)[steps.length >> 1] ?? 0;
}

/** Least squares of the true distance: for a short arc, Kåsa's circle is too small. */
function orthogonal(points: readonly Point2[], centre: Point2, radius: number, keep = false) {
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

/** A crossing of two pieces counts as their corner when it is this near to their raw joint. */
function reachAt(points: readonly Point2[], tolerance: number): (k: number) => number {
  return k => {
    const steps = [points[k - 1], points[k + 1]].map(p => (p ? distance2(p, points[k]!) : 0));
    return 3 * tolerance + 2 * Math.max(...steps);
  };
}

/** The pieces of a line without the specks between them. */
export const settledPieces = (
  pieces: readonly Piece[],
  { points, tolerance }: Omit<Parted, 'pieces'>,
): Piece[] => withoutSpecks(pieces, points, reachAt(points, tolerance));

function curvesOfPieces(
  pieces: readonly Piece[],
  points: readonly Point2[],
  closed: boolean,
  tolerance: number,
): Curve[] {
  const reach = reachAt(points, tolerance);
  const shaped = touching(withoutSpecks(pieces, points, reach), points, closed);
  const count = shaped.length;
  const joints = shaped.map((p, i) => {
    const before = i > 0 ? shaped[i - 1]! : closed ? shaped[count - 1]! : null;
    const raw = points[p.from]!;
    return before && before !== p
      ? meeting(before, p, raw, p.meets ? Infinity : Math.max(reach(p.from), reach(before.to)))
      : onto(p, raw);
  });
  const last = shaped[count - 1]!;
  joints.push(closed ? joints[0]! : onto(last, points[last.to]!));
  return shaped.flatMap((p, i): Curve[] => {
    const [from, to] = [joints[i]!, joints[i + 1]!];
    if (p.kind === 'line') return distance2(from, to) > 1e-6 ? [{ from, to }] : [];
    const { centre, radius, turn } = p;
    const rough: Curve = { from, to, arc: { centre, radius, turn } };
    if (distance2(from, to) < 1e-6) return [];
    // Through its ends exactly: they may be a tiny distance off the circle.
    const via = pointAt(rough, 0.5);
    const arc = sweepOf(rough) < 1.95 * Math.PI ? arcThrough(from, via, to) : rough;
    return [arc];
  });
}

/** Points cut a corner in steps: a piece this short, next to where its neighbours cross, is not a real one. */
const SPECK = 3;

function withoutSpecks(
  pieces: readonly Piece[],
  points: readonly Point2[],
  reach: (k: number) => number,
): Piece[] {
  const kept = [...pieces];
  for (let i = 1; i < kept.length - 1; i++) {
    const [before, speck, after] = [kept[i - 1]!, kept[i]!, kept[i + 1]!];
    if (speck.to - speck.from > SPECK || speck.meets) continue;
    const middle = Math.round((speck.from + speck.to) / 2);
    if (!crossings(before, after).some(p => distance2(p, points[middle]!) < reach(middle))) continue;
    kept.splice(i - 1, 3, { ...before, to: middle }, { ...after, from: middle });
    i--;
  }
  return kept;
}

const dot2 = (a: Point2, b: Point2) => a[0] * b[0] + a[1] * b[1];

/** Where a line runs into an arc nearly without a corner, it is tangent. */
function touching(pieces: readonly Piece[], points: readonly Point2[], closed: boolean): Piece[] {
  return pieces.map((p, i) => {
    if (p.kind !== 'arc') return p;
    const before = pieces[i - 1] ?? (closed ? pieces.at(-1) : undefined);
    const after = pieces[i + 1] ?? (closed ? pieces[0] : undefined);
    const lines = [
      { piece: before, joint: points[p.from]! },
      { piece: after, joint: points[p.to]! },
    ].flatMap(({ piece, joint }) => {
      if (piece?.kind !== 'line') return [];
      // Where they meet at a smaller angle: along a tangent line, the dividing point is poorly determined.
      const normal: Point2 = [-p.turn * piece.way[1], p.turn * piece.way[0]];
      const away = dot2(normal, minus2(p.centre, piece.at)) / p.radius;
      const ahead = dot2(headingOf(p, joint), piece.way) > 0.8;
      return ahead && away > LEAST_AWAY && away < 2 - LEAST_AWAY ? [piece] : [];
    });
    // The centre is at a distance of one radius from each line that it touches.
    const beside = lines.map(l => {
      const normal: Point2 = [-p.turn * l.way[1], p.turn * l.way[0]];
      return { normal, off: p.radius - dot2(normal, minus2(p.centre, l.at)) };
    });
    const [one, two] = beside;
    if (!one) return p;
    if (!two || Math.abs(cross2(one.normal, two.normal)) < 0.1)
      return {
        ...p,
        centre: [p.centre[0] + one.off * one.normal[0], p.centre[1] + one.off * one.normal[1]],
      };
    const det = cross2(one.normal, two.normal);
    const shift: Point2 = [
      (one.off * two.normal[1] - two.off * one.normal[1]) / det,
      (one.normal[0] * two.off - two.normal[0] * one.off) / det,
    ];
    return { ...p, centre: [p.centre[0] + shift[0], p.centre[1] + shift[1]] };
  });
}

/** The nearest point of a piece. */
function onto(p: Piece, q: Point2): Point2 {
  if (p.kind === 'line') {
    const s = (q[0] - p.at[0]) * p.way[0] + (q[1] - p.at[1]) * p.way[1];
    return [p.at[0] + s * p.way[0], p.at[1] + s * p.way[1]];
  }
  const [x, y] = unit2(minus2(q, p.centre));
  return [p.centre[0] + p.radius * x, p.centre[1] + p.radius * y];
}

/** Where neighbours cross near their raw joint; where they only come close to each other, half-way between. */
function meeting(a: Piece, b: Piece, raw: Point2, reach: number): Point2 {
  const [best] = crossings(a, b).sort((p, q) => distance2(p, raw) - distance2(q, raw));
  if (best && distance2(best, raw) < reach) return best;
  const [p, q] = [onto(a, raw), onto(b, raw)];
  return [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];
}

/** Where two pieces cross, each extended beyond its ends. */
export function crossings(a: Piece, b: Piece): Point2[] {
  if (a.kind === 'line' && b.kind === 'line') {
    const det = cross2(a.way, b.way);
    if (Math.abs(det) < 0.02) return [];
    const s = cross2(minus2(b.at, a.at), b.way) / det;
    return [[a.at[0] + s * a.way[0], a.at[1] + s * a.way[1]]];
  }
  if (a.kind === 'arc' && b.kind === 'arc') {
    const off = minus2(b.centre, a.centre);
    const d = Math.hypot(...off);
    if (d < 1e-9) return [];
    const s = (d * d + a.radius ** 2 - b.radius ** 2) / (2 * d);
    const h2 = a.radius ** 2 - s * s;
    if (h2 < 0) return [];
    const u = unit2(off);
    const h = Math.sqrt(h2);
    return [h, -h].map((k): Point2 => [a.centre[0] + s * u[0] - k * u[1], a.centre[1] + s * u[1] + k * u[0]]);
  }
  const [line, arc] = a.kind === 'line' ? [a, b] : [b, a];
  if (line.kind !== 'line' || arc.kind !== 'arc') return [];
  const foot = onto(line, arc.centre);
  const h2 = arc.radius ** 2 - distance2(foot, arc.centre) ** 2;
  // Tangent, but apart by rounding.
  if (h2 < -1e-6 * arc.radius ** 2) return [];
  const h = Math.sqrt(Math.max(0, h2));
  return [h, -h].map((k): Point2 => [foot[0] + k * line.way[0], foot[1] + k * line.way[1]]);
}
