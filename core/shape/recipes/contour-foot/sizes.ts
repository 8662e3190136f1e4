import type { MeshKernel, Models, Outline } from '../../kernels/kernel';
import { type LaidObject, laidObject } from '../../laid-object';
import { cellFor, roomOf, wayUp } from '../../level-set/room';
import type { TriangleMesh } from '../../mesh/mesh';
import { rayTreeOf } from '../../mesh/rays';
import { circle, pointsOf, rectangle } from '../../outline';
import { type Hole, holesOfText } from '../../outline-text';
import type { Point2 } from '../../vector';
import { isPosts, type P } from './parameters';

/**
 * A foot that stands on the bed, z = 0, and reaches up to a gap below a surface above it. The foot's centre is the
 * origin. Lengths mm.
 */
export interface Sizes {
  object: LaidObject;
  /** Where its height was measured. */
  gauge: Point2;
  /** The surface above the gauge point, in the object's own height. */
  over: number;
  /** Its slope there: cosine of its lean. */
  level: number;
  /** Height of the foot's top where the surface is nearest to the bed, and where it is farthest. */
  lowest: number;
  highest: number;
  /** Share of the foot's outline without any surface above it. */
  bare: number;
}

/** The foot's own outlines, the first one around the gauge point. */
export function outlinesOf(p: P): Outline[] {
  if (isPosts(p)) return postsOf(p).map(({ x, y, diameter }) => circle([x, y], diameter / 2));
  if (p.form === 'round') return [circle([0, 0], p.long / 2)];
  const [x, y] = [p.long / 2, p.wide / 2];
  return [rectangle(-x, -y, x, y, Math.min(p.corner, x, y))];
}

export const postsOf = (p: P): Hole[] => holesOfText(p.posts);

/** Half of the foot's box, to the right and to the back. */
export function halvesOf(p: P): Point2 {
  if (p.form === 'pad') return [p.long / 2, p.wide / 2];
  if (p.form === 'round') return [p.long / 2, p.long / 2];
  const far = (along: (h: Hole) => number) =>
    Math.max(1, ...postsOf(p).map(h => Math.abs(along(h)) + h.diameter / 2));
  return [far(h => h.x), far(h => h.y)];
}

/** A hole at that place would leave nothing to measure: then the height is measured beside it. */
export function gaugeOf(p: P): Point2 {
  const first = isPosts(p) ? postsOf(p)[0] : undefined;
  const [x, y]: Point2 = first ? [first.x, first.y] : [0, 0];
  const [half, deep] = first ? [first.diameter / 2, first.diameter / 2] : halvesOf(p);
  const places: Point2[] = [
    [x, y],
    [x - half / 2, y],
    [x, y - deep / 2],
    [x + half / 2, y],
    [x, y + deep / 2],
  ];
  const free = ([a, b]: Point2) =>
    holesOfText(p.holes).every(h => Math.hypot(h.x - a, h.y - b) > h.diameter / 2 + 1);
  return places.find(free) ?? [x, y];
}

/** Points along an outline, and steps inwards, that are sampled. */
const RINGS = [1, 0.97, 0.75, 0.5, 0.25];

/** Null where the surface is not at hand, or none of it is above the place that was measured. */
export function sizesOf(p: P, models?: Models): Sizes | null {
  const object = laidObject(p, models);
  if (!object) return null;
  const tree = rayTreeOf(object.mesh);
  const below = -1;
  const over = ([x, y]: Point2): number | null => {
    const hit = tree.firstHit([x + p.right, y + p.back, below], [0, 0, 1]);
    return hit ? below + hit.distance : null;
  };
  const gauge = gaugeOf(p);
  const at = over(gauge);
  if (at === null) return null;
  const step = 0.5;
  const slope = (a: Point2, b: Point2) => ((over(a) ?? at) - (over(b) ?? at)) / (2 * step);
  const [u, v] = [
    slope([gauge[0] + step, gauge[1]], [gauge[0] - step, gauge[1]]),
    slope([gauge[0], gauge[1] + step], [gauge[0], gauge[1] - step]),
  ];
  let [lowest, highest, bare, seen] = [at, at, 0, 0];
  for (const outline of outlinesOf(p)) {
    const points = pointsOf(outline);
    const middle = [0, 1].map(i => points.reduce((sum, q) => sum + q[i]!, 0) / points.length);
    for (const ring of RINGS)
      for (const q of points) {
        const z = over([middle[0]! + ring * (q[0] - middle[0]!), middle[1]! + ring * (q[1] - middle[1]!)]);
        // A hole in the scan is closed; but beyond the scan's own border there is no surface.
        if (ring === 1) {
          seen++;
          if (z === null) bare++;
        }
        if (z === null) continue;
        lowest = Math.min(lowest, z);
        highest = Math.max(highest, z);
      }
  }
  return {
    object,
    gauge,
    over: at,
    level: 1 / Math.hypot(u, v, 1),
    lowest: p.height + lowest - at,
    highest: p.height + highest - at,
    bare: bare / seen,
  };
}

/** The surface may bulge between the sampled places by this share of its height range, plus a mm. */
const BULGE = 0.3;

/** The space that the surface takes above the foot, in the foot's coordinates, and up to which height it is known. */
export function overhead(
  p: P,
  s: Sizes,
  kernel: MeshKernel,
  sagitta: number,
): { tool: TriangleMesh; top: number } {
  const half = halvesOf(p);
  const room = (p.surface - p.height) * s.level;
  const cell = cellFor(2 * Math.max(...half), room, sagitta);
  const reach = Math.ceil(2 * room) / 2;
  const slack = BULGE * (s.highest - s.lowest) + 1;
  const raise = s.over - p.height;
  const top = s.highest + slack;
  const out = reach + 3 * cell;
  const swept = wayUp(s.object, {
    min: [p.right - half[0] - out, p.back - half[1] - out, s.lowest + raise - slack - out],
    max: [p.right + half[0] + out, p.back + half[1] + out, top + raise + 3 * cell],
    draft: 0,
    reach,
    cell,
  });
  const tool = roomOf(swept, room, kernel);
  const [x, y] = [s.gauge[0] + p.right, s.gauge[1] + p.back];
  const from = swept.grid.from[2] - 1;
  const hit = rayTreeOf(tool).firstHit([x, y, from], [0, 0, 1]);
  // The height that must fit is drawn exactly as asked.
  const by = [-p.right, -p.back, p.height - (from + (hit?.distance ?? 0))];
  return {
    tool: { positions: tool.positions.map((v, i) => v + by[i % 3]!), triangles: tool.triangles },
    top,
  };
}
