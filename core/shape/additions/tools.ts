import { flattenedPoints } from '../curve';
import type { Body, Frame, Outline, PartKernel, Point2, Point3 } from '../kernels/kernel';
import type { TriangleMesh } from '../mesh/mesh';
import { lengthOf, type Parameters, textOf } from '../recipes/recipe';
import type { Applied, Site } from './addition';
import { crossed, onSeat, readPlace, type Seat, seatOf } from './place';

/** What the kinds of additions share when they are done. Lengths mm, angles degrees. */

export const seatAt = (site: Site, p: Parameters): Seat =>
  seatOf(site.mesh(), readPlace(textOf(p, 'place')), p.from === 'part' ? 'part' : 'face');

/** One frame for each copy, on the face. */
export function framesOf({ frame }: Seat, p: Parameters, lean = 0): Frame[] {
  const [x, y, turn] = [lengthOf(p, 'x'), lengthOf(p, 'y'), lengthOf(p, 'turn')];
  const count = p.copies === 'one' ? 1 : lengthOf(p, 'count');
  if (p.copies === 'ring') {
    const step = lengthOf(p, 'step') || 360 / count;
    return Array.from({ length: count }, (_, i) => {
      const a = (i * step * Math.PI) / 180;
      const at: Point2 = [x * Math.cos(a) - y * Math.sin(a), x * Math.sin(a) + y * Math.cos(a)];
      return onSeat(frame, at, turn + i * step, lean);
    });
  }
  const rows = p.copies === 'grid' ? lengthOf(p, 'rows') : 1;
  const pitch = p.copies === 'one' ? 0 : lengthOf(p, 'pitch');
  const rowPitch = p.copies === 'grid' ? lengthOf(p, 'rowPitch') : 0;
  return Array.from({ length: rows * count }, (_, k) => {
    const [i, j] = [k % count, Math.floor(k / count)];
    return onSeat(frame, [x + i * pitch, y + j * rowPitch], turn, lean);
  });
}

export const joinedTo = (kernel: PartKernel, body: Body, tools: readonly Body[]): Body =>
  tools.reduce((sum, tool) => kernel.fuse(sum, tool), body);

export const cutFrom = (kernel: PartKernel, body: Body, tools: readonly Body[]): Body =>
  tools.reduce((sum, tool) => kernel.cut(sum, tool), body);

/** From corner to corner of the part: whatever is longer goes through all of it. */
export function throughAll({ bounds }: Site): number {
  const { min, max } = bounds();
  return Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]) + 2;
}

/** Tools begin this far above a face that they cut, so that no two faces lie in one plane. */
export const ABOVE = 0.5;
/** What is put on reaches at least this far into the part. */
export const INTO = 0.2;

/** In space, from a frame's own coordinates. */
export function inSpace({ at, x, up }: Frame, [a, b, c]: Point3): Point3 {
  const y = crossed(up, x);
  return [0, 1, 2].map(i => at[i]! + a * x[i]! + b * y[i]! + c * up[i]!) as unknown as Point3;
}

/**
 * How far the part lies below an outline drawn on a seat: what is put there must reach so deep to meet it all
 * over. Null where nothing is below any of it; `over` is the share of the outline that stands over nothing.
 */
export function depthBelow(
  mesh: TriangleMesh,
  frame: Frame,
  outline: Outline,
  most: number,
): { depth: number; over: number } | null {
  const points = flattenedPoints(outline, 0.3);
  const few = points.filter((_, i) => i % Math.max(1, Math.ceil(points.length / 24)) === 0);
  const down: Point3 = [-frame.up[0], -frame.up[1], -frame.up[2]];
  const depths = few.map(([a, b]) => rayDown(mesh, inSpace(frame, [a, b, 0.02]), down));
  const met = depths.filter((d): d is number => d !== null && d <= most).map(d => Math.max(0, d - 0.02));
  if (met.length === 0) return null;
  return { depth: Math.max(...met), over: 1 - met.length / few.length };
}

/** The first face met along a ray that looks against it, mm from its start. */
function rayDown(mesh: TriangleMesh, from: Point3, along: Point3): number | null {
  const { positions: p, triangles } = mesh;
  let nearest: number | null = null;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
    const u: Point3 = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
    const v: Point3 = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
    const h = crossed(along, v);
    const det = u[0] * h[0] + u[1] * h[1] + u[2] * h[2];
    // From outside only: the sign says which way the triangle looks.
    if (det < 1e-12) continue;
    const s: Point3 = [from[0] - p[a]!, from[1] - p[a + 1]!, from[2] - p[a + 2]!];
    const i = (s[0] * h[0] + s[1] * h[1] + s[2] * h[2]) / det;
    if (i < -1e-9 || i > 1 + 1e-9) continue;
    const q = crossed(s, u);
    const j = (along[0] * q[0] + along[1] * q[1] + along[2] * q[2]) / det;
    if (j < -1e-9 || i + j > 1 + 1e-9) continue;
    const distance = (v[0] * q[0] + v[1] * q[1] + v[2] * q[2]) / det;
    if (distance >= 0 && (nearest === null || distance < nearest)) nearest = distance;
  }
  return nearest;
}

/** The surface of a round or flat-sided addition, for measuring it. */
export function surfaceOf(
  frame: Frame,
  side: 'inside' | 'outside',
  { kind, size, flats }: { kind: 'round' | 'flats'; size: number; flats?: number },
  [low, high]: readonly [number, number],
): NonNullable<Applied['surface']> {
  const base = frame.at[0] * frame.up[0] + frame.at[1] * frame.up[1] + frame.at[2] * frame.up[2];
  return {
    side,
    kind,
    size,
    at: inSpace(frame, [0, 0, (low + high) / 2]),
    axis: frame.up,
    ...(kind === 'flats' ? { across: frame.x, flats: flats ?? 2 } : {}),
    from: base + low,
    to: base + high,
  };
}
