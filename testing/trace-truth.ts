import { quantile } from 'd3-array';
import { distanceTo } from '../core/bench/flat-object';
import { type Curve, curvesOf, flattenedPoints, lengthOfCurve, outlineOfCurves } from '../core/shape/curve';
import { outlineOfText } from '../core/shape/outline-text';
import { distance2, type Point2 } from '../core/shape/vector';
import type { Doubt } from '../core/trace/doubt';
import { circleOf, type TracedLoop } from '../core/trace/outline';
import type { Shot } from './trace-scenes';

/** One size of a traced outline against what the object truly has, mm. */
export interface Compared {
  kind: 'length' | 'diameter' | 'radius' | 'pitch';
  true: number;
  error: number;
  u: number;
}

type Placed = Pick<Shot, 'thing' | 'turn' | 'at'>;

const placer = ({ turn, at }: Placed) => {
  const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  return ([x, y]: Point2): Point2 => [at[0] + c * x - s * y, at[1] + s * x + c * y];
};

/** Truth and trace lie in the same frame: y up from the middle of the sheet. */
export function comparedWithTruth(shot: Placed, loops: readonly TracedLoop[], doubt: Doubt): Compared[] {
  const place = placer(shot);
  const out: Compared[] = [];
  const put = (kind: Compared['kind'], truth: number, found: ReturnType<Doubt['of']>) => {
    if (found) out.push({ kind, true: truth, error: found.value - truth, u: found.u });
  };
  const holes = shot.thing.holes.flatMap(h => {
    const at = place(h.at);
    const k = loops.findIndex(l => {
      const c = l.hole && circleOf(l.curves);
      return c && distance2(c.centre, at) < 1.5;
    });
    return k < 0 ? [] : [{ ...h, k }];
  });
  for (const { k, diameter } of holes)
    put(
      'diameter',
      diameter,
      doubt.of(o => circleOf(o[k]!)?.diameter ?? null),
    );
  for (const [i, a] of holes.entries())
    for (const b of holes.slice(i + 1))
      put(
        'pitch',
        distance2(a.at, b.at),
        doubt.of(o => {
          const [p, q] = [circleOf(o[a.k]!), circleOf(o[b.k]!)];
          return p && q ? distance2(p.centre, q.centre) : null;
        }),
      );
  const truth = curvesOf(outlineOfText(shot.thing.outer));
  const outer = loops[0]!.curves;
  for (const t of truth) {
    const middle = place([(t.from[0] + t.to[0]) / 2, (t.from[1] + t.to[1]) / 2]);
    if (t.arc) {
      const at = place(t.arc.centre);
      const k = outer.findIndex(c => c.arc && distance2(c.arc.centre, at) < 1);
      if (k >= 0 && t.arc.radius >= 3)
        put(
          'radius',
          t.arc.radius,
          doubt.of(o => o[0]![k]?.arc?.radius ?? null),
        );
    } else if (lengthOfCurve(t) > 5) {
      const k = outer.findIndex(
        c => !c.arc && distance2([(c.from[0] + c.to[0]) / 2, (c.from[1] + c.to[1]) / 2], middle) < 1,
      );
      if (k >= 0)
        put(
          'length',
          lengthOfCurve(t),
          doubt.of(o => lengthOfCurve(o[0]![k]!)),
        );
    }
  }
  return out;
}

/** How far the traced outline lies off the true one: 95 % of it, and at most, mm. */
export function deviationFromTruth(shot: Placed, curves: readonly Curve[]): { p95: number; max: number } {
  const truth = curvesOf(outlineOfText(shot.thing.outer));
  const [c, s] = [Math.cos((-shot.turn * Math.PI) / 180), Math.sin((-shot.turn * Math.PI) / 180)];
  const back = ([x, y]: Point2): Point2 => {
    const [u, v] = [x - shot.at[0], y - shot.at[1]];
    return [c * u - s * v, s * u + c * v];
  };
  const away = truth.map(distanceTo);
  const far = curves.flatMap(curve => {
    const line = flattenedPoints(outlineOfCurves([curve]), 0.01);
    const [a, b] = [curve.from, curve.to];
    const more = curve.arc
      ? line
      : Array.from(
          { length: 20 },
          (_, i): Point2 => [a[0] + (i / 20) * (b[0] - a[0]), a[1] + (i / 20) * (b[1] - a[1])],
        );
    return more.map(p => Math.min(...away.map(distance => distance(...back(p)))));
  });
  return { p95: quantile(far, 0.95) ?? Infinity, max: Math.max(...far) };
}
