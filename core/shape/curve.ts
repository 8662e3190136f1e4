import type { Outline, OutlineEdge } from './kernels/kernel';
import type { Point2 } from './vector';
import { cross2, distance2, minus2, unit2 } from './vector';

/** One edge of an outline as geometry: a straight line, or an arc with its centre. Lengths mm. */
export interface Curve {
  from: Point2;
  to: Point2;
  /** `turn` is 1 counter-clockwise, −1 clockwise. */
  arc?: { centre: Point2; radius: number; turn: 1 | -1 };
}

export function curvesOf({ start, edges }: Outline): Curve[] {
  let from = start;
  return edges.map(({ to, via }) => {
    const curve: Curve = via ? arcThrough(from, via, to) : { from, to };
    from = to;
    return curve;
  });
}

export function outlineOfCurves(curves: readonly Curve[]): Outline {
  return {
    start: curves[0]!.from,
    edges: curves.map((c): OutlineEdge => (c.arc ? { to: c.to, via: middleOf(c) } : { to: c.to })),
  };
}

/** About the origin. */
export const scaledCurve = ({ from, to, arc }: Curve, by: number): Curve => {
  const at = ([x, y]: Point2): Point2 => [by * x, by * y];
  return {
    from: at(from),
    to: at(to),
    ...(arc ? { arc: { ...arc, centre: at(arc.centre), radius: by * arc.radius } } : {}),
  };
};

/** The arc from `a` through `via` to `b`; a line where the three lie on one. */
export function arcThrough(a: Point2, via: Point2, b: Point2): Curve {
  const d = 2 * (a[0] * (via[1] - b[1]) + via[0] * (b[1] - a[1]) + b[0] * (a[1] - via[1]));
  const size = Math.hypot(b[0] - a[0], b[1] - a[1]) + Math.hypot(via[0] - a[0], via[1] - a[1]);
  if (Math.abs(d) < 1e-9 * size * size) return { from: a, to: b };
  const [sa, sv, sb] = [a, via, b].map(([x, y]) => x * x + y * y) as [number, number, number];
  const centre: Point2 = [
    (sa * (via[1] - b[1]) + sv * (b[1] - a[1]) + sb * (a[1] - via[1])) / d,
    (sa * (b[0] - via[0]) + sv * (a[0] - b[0]) + sb * (via[0] - a[0])) / d,
  ];
  const turn = cross2(minus2(via, a), minus2(b, via)) > 0 ? 1 : -1;
  return { from: a, to: b, arc: { centre, radius: distance2(a, centre), turn } };
}

/** Angle of the turn, radians, always positive. */
export function sweepOf({ from, to, arc }: Curve): number {
  if (!arc) return 0;
  const angle = (p: Point2) => Math.atan2(p[1] - arc.centre[1], p[0] - arc.centre[0]);
  const turned = ((angle(to) - angle(from)) * arc.turn + 4 * Math.PI) % (2 * Math.PI);
  return turned < 1e-12 ? 2 * Math.PI : turned;
}

export const lengthOfCurve = (c: Curve): number =>
  c.arc ? c.arc.radius * sweepOf(c) : distance2(c.from, c.to);

/** The point at a share of a curve's length, 0 to 1. */
export function pointAt(c: Curve, share: number): Point2 {
  if (!c.arc) return [c.from[0] + share * (c.to[0] - c.from[0]), c.from[1] + share * (c.to[1] - c.from[1])];
  const { centre, radius, turn } = c.arc;
  const a = Math.atan2(c.from[1] - centre[1], c.from[0] - centre[0]) + turn * share * sweepOf(c);
  return [centre[0] + radius * Math.cos(a), centre[1] + radius * Math.sin(a)];
}

export const middleOf = (c: Curve): Point2 => pointAt(c, 0.5);

/** Its direction at its start (0) or end (1), a unit vector. */
export function headingAt(c: Curve, share: 0 | 1): Point2 {
  if (!c.arc) return unit2(minus2(c.to, c.from));
  const [x, y] = unit2(minus2(share === 0 ? c.from : c.to, c.arc.centre));
  return c.arc.turn > 0 ? [-y, x] : [y, -x];
}

/** Enclosed area, mm²: positive when it runs counter-clockwise. Exact for arcs. */
export function areaOfCurves(curves: readonly Curve[]): number {
  let area = 0;
  for (const c of curves) {
    area += (c.from[0] * c.to[1] - c.to[0] * c.from[1]) / 2;
    if (!c.arc) continue;
    const sweep = sweepOf(c);
    area += (c.arc.turn * c.arc.radius ** 2 * (sweep - Math.sin(sweep))) / 2;
  }
  return area;
}

export const perimeterOf = (outline: Outline): number =>
  curvesOf(outline).reduce((sum, c) => sum + lengthOfCurve(c), 0);

/** The outline in counter-clockwise order, which is how parts are drawn. */
export function counterClockwise(outline: Outline): Outline {
  const curves = curvesOf(outline);
  return areaOfCurves(curves) >= 0 ? outline : outlineOfCurves(curves.map(reversed).reverse());
}

export const reversed = ({ from, to, arc }: Curve): Curve => ({
  from: to,
  to: from,
  ...(arc ? { arc: { ...arc, turn: arc.turn === 1 ? -1 : 1 } } : {}),
});

/** Axis-aligned bounding box: min x, min y, max x, max y. Exact for arcs. */
export function boxOf(outline: Outline): [number, number, number, number] {
  const box: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
  const take = ([x, y]: Point2) => {
    box[0] = Math.min(box[0], x);
    box[1] = Math.min(box[1], y);
    box[2] = Math.max(box[2], x);
    box[3] = Math.max(box[3], y);
  };
  for (const c of curvesOf(outline)) {
    take(c.from);
    take(c.to);
    if (!c.arc) continue;
    const { centre, radius, turn } = c.arc;
    const start = Math.atan2(c.from[1] - centre[1], c.from[0] - centre[0]);
    const sweep = sweepOf(c);
    for (let quarter = 0; quarter < 4; quarter++) {
      const a = (quarter * Math.PI) / 2;
      const turned = ((a - start) * turn + 4 * Math.PI) % (2 * Math.PI);
      if (turned < sweep) take([centre[0] + radius * Math.cos(a), centre[1] + radius * Math.sin(a)]);
    }
  }
  return box;
}

/** Points along it, no farther from it than `sagitta`. */
export function flattenedPoints(outline: Outline, sagitta: number): Point2[] {
  return curvesOf(outline).flatMap(c => {
    const most = c.arc ? 2 * Math.acos(Math.max(0, 1 - sagitta / c.arc.radius)) || 0.1 : 1;
    const pieces = c.arc ? Math.max(2, Math.ceil(sweepOf(c) / most)) : 1;
    return Array.from({ length: pieces }, (_, i) => pointAt(c, i / pieces));
  });
}
