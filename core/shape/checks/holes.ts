import { group } from 'd3-array';
import type { Finding } from '../findings/finding';
import { finding } from '../findings/finding';
import type { MateSurface } from '../mates';
import { boundsOf, type TriangleMesh } from '../mesh/mesh';
import { type Loop, loopCircle, polygonCentroid, sectionAcross } from '../mesh/section';
import type { Point3 } from '../vector';
import { basisOf, dot, moved, point3 } from '../vector';
import { gapTo } from '../within';
import type { CheckContext } from './context';

/** Larger round openings do not hold one of our screws, mm: an M8 passes through 9. */
const LARGEST = 9.5;
const SMALLEST = 1.2;
const ROUND = 0.12;
/** A hole concentric with the loop around it, within this, is the bore of a ring, mm. */
const SAME_MIDDLE = 0.4;
/** Plastic between a hole and the edge, as a share of its diameter. Common practice, no source. */
const EDGE_SHARE = 0.5;
const HEIGHTS = [0.12, 0.5, 0.88];

/** Round holes with too little plastic beside them: they tear out, or split when the screw bites. */
export function checkHoles(
  mesh: TriangleMesh,
  { lineWidth }: Pick<CheckContext, 'lineWidth'>,
  surfaces: readonly MateSurface[] = [],
): Finding[] {
  const { min, max } = boundsOf(mesh);
  const seen = new Map<string, { gap: number; diameter: number }>();
  for (const [k, axis] of (
    [
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ] as const
  ).entries()) {
    for (const share of HEIGHTS) {
      const at = point3(i => (i === k ? min[i] + share * (max[i] - min[i]) : 0));
      const { loops } = sectionAcross(mesh, at, axis);
      for (const loop of loops) {
        const found = tooNear(loop, loops, lineWidth);
        if (!found || isBore(found.middle, axis, surfaces) || isSlanting(mesh, at, axis, found)) continue;
        const key = `${k}:${Math.round(found.middle[0])},${Math.round(found.middle[1])}`;
        if (!seen.has(key)) seen.set(key, found);
      }
    }
  }
  // A row of holes gives one finding, for the hole with the least plastic beside it.
  const alike = group([...seen.values()], ({ diameter, gap }) =>
    [Math.round(5 * diameter), gap < 2 * lineWidth].join(),
  );
  return [...alike.values()].map(holes => {
    const { gap, diameter } = holes.reduce((a, b) => (b.gap < a.gap ? b : a));
    return finding('hole-near-edge', gap < 2 * lineWidth ? 'warn' : 'note', {
      diameter,
      gap,
      leave: EDGE_SHARE * diameter,
      count: holes.length,
    });
  });
}

/** A bore that goes over something is not a screw hole: its wall is checked elsewhere. */
function isBore([x, y]: readonly [number, number], axis: Point3, surfaces: readonly MateSurface[]): boolean {
  const basis = basisOf(axis);
  return surfaces.some(
    s =>
      s.side === 'inside' &&
      s.kind === 'round' &&
      Math.abs(dot(s.axis, axis)) > 0.999 &&
      Math.hypot(dot(s.at, basis.x) - x, dot(s.at, basis.y) - y) < SAME_MIDDLE,
  );
}

/** The side wall of a hole is still there a little farther along. */
const FURTHER = 0.3;
/**
 * A surface that comes nearer than this along the way is not a side wall but a face that slants through the section,
 * mm.
 */
const SLANT = 0.3;

/** Where a leaning plate is cut, its face crosses the section; material near there is not beside the hole. */
function isSlanting(
  mesh: TriangleMesh,
  at: Point3,
  axis: Point3,
  { middle, gap, diameter }: { middle: readonly [number, number]; gap: number; diameter: number },
): boolean {
  return [-FURTHER, FURTHER].some(by => {
    const there = moved(at, axis, by);
    const { loops } = sectionAcross(mesh, there, axis);
    const same = loops.find(l => {
      if (l.area >= 0) return false;
      const c = polygonCentroid(l.points);
      return Math.hypot(c[0] - middle[0], c[1] - middle[1]) < 0.5 && loopCircle(l, c).form < ROUND;
    });
    // The plate ends here: the material beside it gets no finding.
    if (!same) return false;
    const c = polygonCentroid(same.points);
    const least = Math.min(
      ...loops
        .filter(l => l !== same)
        .map(l => gapTo(c, l.points) - diameter / 2)
        .filter(d => d > 0),
    );
    return Math.abs(least - gap) > SLANT;
  });
}

function tooNear(loop: Loop, loops: readonly Loop[], lineWidth: number) {
  if (loop.area >= 0) return null;
  const middle = polygonCentroid(loop.points);
  const { diameter, form } = loopCircle(loop, middle);
  if (form > ROUND || diameter < SMALLEST || diameter > LARGEST) return null;
  let gap = Infinity;
  for (const other of loops) {
    if (other === loop) continue;
    const centre = polygonCentroid(other.points);
    const concentric = Math.hypot(centre[0] - middle[0], centre[1] - middle[1]) < SAME_MIDDLE;
    if (other.area > 0 && concentric) continue;
    const d = gapTo(middle, other.points) - diameter / 2;
    if (d > 0) gap = Math.min(gap, d);
  }
  return gap < Math.max(EDGE_SHARE * diameter, 2 * lineWidth) ? { gap, diameter, middle } : null;
}
