import { type Curve, reversed } from './curve';
import type { Point2 } from './vector';
import { cross2, distance2, minus2, unit2 } from './vector';

/** A smooth curve by its parameter from 0 to 1: its position and its direction. mm */
export interface SmoothCurve {
  at(t: number): Point2;
  heading(t: number): Point2;
}

const DEEPEST = 9;

/**
 * A smooth curve as lines and arcs that meet tangentially, no farther from it than `tolerance`: pairs of arcs that
 * share the curve's directions at both ends (Bolton, “Biarc curves”, Computer-Aided Design 7 (1975) 89; recalled from
 * memory), halved until they are near enough.
 */
export function arcsAlong(curve: SmoothCurve, tolerance: number): Curve[] {
  const along = (from: number, to: number, depth: number): Curve[] => {
    const pair = biarc(curve.at(from), curve.heading(from), curve.at(to), curve.heading(to));
    if (pair && (depth >= DEEPEST || strays(curve, from, to, pair) <= tolerance)) return pair;
    if (depth >= DEEPEST) return [{ from: curve.at(from), to: curve.at(to) }];
    const middle = (from + to) / 2;
    return [...along(from, middle, depth + 1), ...along(middle, to, depth + 1)];
  };
  // A closed loop has equal ends: no single pair of arcs determines its sense.
  return [...along(0, 0.5, 1), ...along(0.5, 1, 1)].filter(c => distance2(c.from, c.to) > 1e-9);
}

/**
 * Two arcs with equal tangent lengths, from `a` with direction `ha` to `b` with direction `hb`; null where there are
 * none.
 */
function biarc(a: Point2, ha: Point2, b: Point2, hb: Point2): Curve[] | null {
  const v = minus2(b, a);
  const t: Point2 = [ha[0] + hb[0], ha[1] + hb[1]];
  const [vv, vt, tt] = [v[0] ** 2 + v[1] ** 2, v[0] * t[0] + v[1] * t[1], t[0] ** 2 + t[1] ** 2];
  if (vv < 1e-18) return null;
  const hh = 2 * (1 - (ha[0] * hb[0] + ha[1] * hb[1]));
  // |v − d·t|² = (2d)² for the tangent length d.
  let d: number;
  if (Math.abs(hh) < 1e-12) {
    const along = v[0] * hb[0] + v[1] * hb[1];
    if (along <= 0) return null;
    d = vv / (4 * along);
  } else {
    const root = vt * vt - vv * (tt - 4);
    if (root < 0) return null;
    d = (-vt + Math.sqrt(root)) / hh;
  }
  if (!(d > 0) || !Number.isFinite(d)) return null;
  const joint: Point2 = [
    (a[0] + d * ha[0] + b[0] - d * hb[0]) / 2,
    (a[1] + d * ha[1] + b[1] - d * hb[1]) / 2,
  ];
  return [headed(a, ha, joint), reversed(headed(b, [-hb[0], -hb[1]], joint))];
}

/** The arc or line that leaves `from` in direction `h` and ends at `to`. */
function headed(from: Point2, h: Point2, to: Point2): Curve {
  const v = minus2(to, from);
  const off = cross2(h, v);
  const length = distance2(from, to);
  if (Math.abs(off) < 1e-9 * length || length < 1e-9) return { from, to };
  const radius = (length * length) / (2 * off);
  const centre: Point2 = [from[0] - radius * h[1], from[1] + radius * h[0]];
  return { from, to, arc: { centre, radius: Math.abs(radius), turn: off > 0 ? 1 : -1 } };
}

/** The greatest distance between curve and arcs at points in between, each matched by its share of the length. */
function strays(curve: SmoothCurve, from: number, to: number, arcs: readonly Curve[]): number {
  let most = 0;
  for (let i = 1; i < 8; i++) {
    const p = curve.at(from + ((to - from) * i) / 8);
    most = Math.max(most, Math.min(...arcs.map(c => awayFrom(c, p))));
  }
  return most;
}

function awayFrom(c: Curve, p: Point2): number {
  if (c.arc) return Math.abs(distance2(p, c.arc.centre) - c.arc.radius);
  const along = unit2(minus2(c.to, c.from));
  return Math.abs(cross2(along, minus2(p, c.from)));
}

/** Points to lines through them all, within `tolerance` (Douglas and Peucker 1973). Closed. */
export function simplified(points: readonly Point2[], tolerance: number): Point2[] {
  const keep = new Uint8Array(points.length);
  const between = (first: number, last: number) => {
    let [worst, at] = [tolerance, -1];
    for (let i = first + 1; i < last; i++) {
      const chord = distance2(points[first]!, points[last % points.length]!);
      const p = points[i]!;
      const away =
        chord < 1e-9
          ? distance2(p, points[first]!)
          : Math.abs(
              cross2(minus2(points[last % points.length]!, points[first]!), minus2(p, points[first]!)),
            ) / chord;
      if (away > worst) [worst, at] = [away, i];
    }
    if (at < 0) return;
    keep[at] = 1;
    between(first, at);
    between(at, last);
  };
  keep[0] = 1;
  // The point farthest from the start splits the loop in two open lines.
  const far = points.reduce(
    (best, p, i) => (distance2(p, points[0]!) > distance2(points[best]!, points[0]!) ? i : best),
    0,
  );
  keep[far] = 1;
  between(0, far);
  between(far, points.length);
  return points.filter((_, i) => keep[i]);
}
