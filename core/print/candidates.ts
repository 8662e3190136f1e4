import { polygonHull } from 'd3-polygon';
import type { MateSurface } from '../shape/mates';
import { facing, type TriangleMesh } from '../shape/mesh/mesh';
import type { Point3 } from '../shape/vector';
import { basisOf, dot, negated, scaled } from '../shape/vector';
import { leastRectangle } from './footprint';
import { isSameDirection, way } from './pose';

/** Directions worth trying as down: those on which the part can stand, and those that make its mates upright. */

/** A part cannot stand on smaller or narrower flats, mm² and mm; the facets of a cylinder are among them. */
const [LEAST_AREA, LEAST_WIDTH] = [12, 3];
/** For a very small part: a flat of this share of its largest. */
const LEAST_SHARE = 0.3;
/** Flats of the hull whose normals are this close count as one: cosine of 1.1°. */
const ONE_FLAT = Math.cos((1.1 * Math.PI) / 180);
const MOST = 30;

const AXES: readonly Point3[] = [
  [0, 0, -1],
  [0, 0, 1],
  [0, -1, 0],
  [0, 1, 0],
  [-1, 0, 0],
  [1, 0, 0],
];

/**
 * Unit vectors in the part's own coordinates, the drawn direction first. Deterministic.
 * @param hull the convex hull of the part
 */
export function waysDown(hull: TriangleMesh, surfaces: readonly Pick<MateSurface, 'axis'>[]): Point3[] {
  const found: Point3[] = [];
  const take = (down: Point3) => {
    const tidy = way(down);
    if (found.length < MOST && !found.some(f => isSameDirection(f, tidy))) found.push(tidy);
  };
  take(AXES[0]!);
  for (const flat of flatsOf(hull)) take(flat);
  for (const { axis } of surfaces) {
    take(axis);
    take(negated(axis));
  }
  for (const axis of AXES) take(axis);
  return found;
}

interface HullFlat {
  normal: Point3;
  area: number;
  corners: Set<number>;
}

/** Normals of the hull's flats, the largest first. */
function flatsOf(hull: TriangleMesh): Point3[] {
  const flats: HullFlat[] = [];
  const corners = (t: number) => [0, 1, 2].map(e => hull.triangles[3 * t + e]!);
  const facings = Array.from({ length: hull.triangles.length / 3 }, (_, t) => {
    const n = facing(hull, t);
    const twice = Math.hypot(...n);
    return { t, twice, n: scaled(n, 1 / (twice || 1)) };
  }).sort((a, b) => b.twice - a.twice || a.t - b.t);
  for (const { t, twice, n } of facings) {
    if (twice < 1e-9) continue;
    const same = flats.find(f => dot(f.normal, n) > ONE_FLAT);
    const flat = same ?? { normal: n, area: 0, corners: new Set() };
    if (!same) flats.push(flat);
    flat.area += twice / 2;
    for (const v of corners(t)) flat.corners.add(v);
  }
  const largest = Math.max(...flats.map(f => f.area));
  return flats
    .filter(
      f =>
        f.area >= Math.min(LEAST_AREA, LEAST_SHARE * largest) &&
        widthOf(f, hull) >= Math.min(LEAST_WIDTH, Math.sqrt(LEAST_SHARE * largest)),
    )
    .sort((a, b) => b.area - a.area)
    .map(f => f.normal);
}

function widthOf({ normal, corners }: HullFlat, { positions: p }: TriangleMesh): number {
  const { x, y } = basisOf(normal);
  const points = [...corners].map((v): [number, number] => {
    const q: Point3 = [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!];
    return [dot(q, x), dot(q, y)];
  });
  const outline = polygonHull(points);
  return outline ? leastRectangle(outline.reverse()).width : 0;
}
