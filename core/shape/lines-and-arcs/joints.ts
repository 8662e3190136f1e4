import { arcThrough, type Curve, pointAt, sweepOf } from '../curve';
import { cross2, distance2, minus2, type Point2, unit2 } from '../vector';
import { headingOf, type Parted, type Piece } from './pieces';

/**
 * A line whose distance from an arc's centre is in this range, in radii, meets it at less than 9° and is taken as
 * tangent.
 */
const LEAST_AWAY = Math.cos((9 * Math.PI) / 180);

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

export function curvesOfPieces(
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
