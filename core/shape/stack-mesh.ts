import earcut from 'earcut';
import { type Curve, curvesOf, pointAt, sweepOf } from './curve';
import type { Level, Outline } from './kernels/kernel';
import { type TriangleMesh, weld } from './mesh/mesh';
import type { Frame, Point2, Point3 } from './vector';
import { alongFrame, bentFrame, cross2, minus2 } from './vector';

/**
 * Walls from each level's outline straight to the next one's, closed by its first and last outline, as triangles no
 * farther than `sagitta` from them. Each edge is divided in the same way on every level, so that the walls meet. mm
 * @throws RangeError where outlines have different numbers of edges, or levels go down
 */
export function stackMesh(levels: readonly Level[], frame: Frame, sagitta: number): TriangleMesh {
  const all = levels.map(l => curvesOf(l.outline));
  const count = all[0]!.length;
  if (all.some(curves => curves.length !== count))
    throw new RangeError('Outlines that are joined need equally many edges.');
  if (levels.some((l, k) => k > 0 && l.z < levels[k - 1]!.z))
    throw new RangeError('Outlines are joined from below upwards.');
  const pieces = Array.from({ length: count }, (_, e) => Math.max(...all.map(c => piecesOf(c[e]!, sagitta))));
  return throughRings(
    all.map((curves, k) => ({
      points: pointsAlong(curves, pieces),
      frame: alongFrame(frame, [0, levels[k]!.z]),
    })),
  );
}

/** An outline swept along a bend (see `bentFrame`), as triangles. mm, degrees */
export function bendMesh(
  outline: Outline,
  radius: number,
  angle: number,
  frame: Frame,
  sagitta: number,
): TriangleMesh {
  const curves = curvesOf(outline);
  const points = pointsAlong(
    curves,
    curves.map(c => piecesOf(c, sagitta)),
  );
  const farthest = radius + Math.max(...points.map(p => Math.hypot(...p)));
  const steps = Math.max(2, Math.ceil((angle * Math.PI) / 180 / (2 * Math.acos(1 - sagitta / farthest))));
  return throughRings(
    Array.from({ length: steps + 1 }, (_, i) => ({
      points,
      frame: bentFrame(frame, radius, (angle * i) / steps),
    })),
  );
}

const pointsAlong = (curves: readonly Curve[], pieces: readonly number[]): Point2[] =>
  curves.flatMap((c, e) => Array.from({ length: pieces[e]! }, (_, i) => pointAt(c, i / pieces[e]!)));

/** Walls from ring to ring, with equal numbers of points, and a lid on the first and the last. */
function throughRings(rings: readonly { points: readonly Point2[]; frame: Frame }[]): TriangleMesh {
  const n = rings[0]!.points.length;
  const positions = rings.flatMap(({ points, frame }) => points.flatMap(p => [...placed(p, frame)]));
  const triangles: number[] = [];
  for (let k = 0; k + 1 < rings.length; k++)
    for (let i = 0; i < n; i++) {
      const [a, b] = [k * n + i, k * n + ((i + 1) % n)];
      triangles.push(a, b, b + n, a, b + n, a + n);
    }
  const last = (rings.length - 1) * n;
  // Seen from above the last outline faces up; the first is seen from below.
  for (const [i, j, k] of lid(rings[0]!.points)) triangles.push(i, k, j);
  for (const [i, j, k] of lid(rings.at(-1)!.points)) triangles.push(last + i, last + j, last + k);
  return weld(positions, triangles);
}

/** Triangles of a closed line that runs counter-clockwise, each running so. */
function lid(ring: readonly Point2[]): [number, number, number][] {
  const flat = earcut(ring.flat());
  return Array.from({ length: flat.length / 3 }, (_, t) => {
    const [i, j, k] = [flat[3 * t]!, flat[3 * t + 1]!, flat[3 * t + 2]!];
    const [a, b, c] = [ring[i]!, ring[j]!, ring[k]!];
    return cross2(minus2(b, a), minus2(c, a)) >= 0 ? [i, j, k] : [i, k, j];
  });
}

function piecesOf(c: Curve, sagitta: number): number {
  if (!c.arc) return 1;
  const most = 2 * Math.acos(Math.max(-1, 1 - sagitta / c.arc.radius));
  return Math.max(1, Math.ceil(sweepOf(c) / Math.min(most || 1, MOST_TURN)));
}
/** The largest angle of a piece of a small arc, so that it stays round on screen, radians. */
const MOST_TURN = 0.3;

function placed([x, y]: Point2, { at, x: right, up }: Frame): Point3 {
  const back: Point3 = [
    up[1] * right[2] - up[2] * right[1],
    up[2] * right[0] - up[0] * right[2],
    up[0] * right[1] - up[1] * right[0],
  ];
  const along = (i: 0 | 1 | 2) => at[i] + x * right[i] + y * back[i];
  return [along(0), along(1), along(2)];
}
