import { boxOf, type Curve, lengthOfCurve, outlineOfCurves } from '../shape/curve';
import type { Point2 } from '../shape/vector';
import type { Outlines } from './doubt';

/**
 * An outline in the orientation of drawings: its longest side level or upright, whichever is nearer, and its lower left
 * at the origin.
 */
export function laidUpright(outlines: Outlines): Curve[][] {
  const outer = outlines[0] ?? [];
  const [longest] = outer.filter(c => !c.arc).sort((a, b) => lengthOfCurve(b) - lengthOfCurve(a));
  const way = longest ? Math.atan2(longest.to[1] - longest.from[1], longest.to[0] - longest.from[0]) : 0;
  const off = way - (Math.PI / 2) * Math.round(way / (Math.PI / 2));
  const [c, s] = [Math.cos(off), Math.sin(off)];
  const turned = placed(outlines, ([x, y]) => [c * x + s * y, c * y - s * x]);
  const [first] = turned;
  if (!first || first.length === 0) return turned;
  const [x0, y0] = boxOf(outlineOfCurves(first));
  return placed(turned, ([x, y]) => [x - x0, y - y0]);
}

const placed = (outlines: Outlines, at: (p: Point2) => Point2): Curve[][] =>
  outlines.map(curves =>
    curves.map(({ from, to, arc }) => ({
      from: at(from),
      to: at(to),
      ...(arc ? { arc: { ...arc, centre: at(arc.centre) } } : {}),
    })),
  );
