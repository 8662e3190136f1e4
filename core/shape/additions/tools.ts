import { flattenedPoints } from '../curve';
import type { Body, Outline, PartKernel } from '../kernels/kernel';
import { facing, type TriangleMesh } from '../mesh/mesh';
import { rayTreeOf } from '../mesh/rays';
import { lengthOf, type Parameters, textOf } from '../recipes/parameters';
import type { Frame, Point2, Point3 } from '../vector';
import { dot, inSpace } from '../vector';
import type { Applied, Site } from './addition';
import { onSeat, type Place, placedAt, readPlace, type Seat, seatOf } from './place';

/** Helpers shared by the kinds of additions. Lengths mm, angles degrees. */

/** The place that is asked for; one that shares an earlier addition's face gets that face as it was found then. */
export function placeOf(site: Site, p: Parameters): Place {
  const { like, ...place } = readPlace(textOf(p, 'place'));
  const at = like === undefined || place.at !== null ? undefined : site.seats.get(like);
  return at === undefined ? place : { ...place, at };
}

export function seatAt(site: Site, p: Parameters): Seat {
  const from = p.from === 'part' || p.from === 'middle' ? p.from : 'face';
  const seat = seatOf(site.mesh(), placeOf(site, p), from);
  if (seat.flat) site.sitsAt(placedAt(seat.flat));
  return seat;
}

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
    const [along, across] = [i * pitch, j * rowPitch];
    const shift: Point2 = p.runs === 'up' ? [across, along] : [along, across];
    return onSeat(frame, [x + shift[0], y + shift[1]], turn, lean);
  });
}

export const joinedTo = (kernel: PartKernel, body: Body, tools: readonly Body[]): Body =>
  tools.reduce((sum, tool) => kernel.fuse(sum, tool), body);

export const cutFrom = (kernel: PartKernel, body: Body, tools: readonly Body[]): Body =>
  tools.reduce((sum, tool) => kernel.cut(sum, tool), body);

/** From corner to corner of the part: anything longer goes through all of it. */
export function throughAll({ bounds }: Site): number {
  const { min, max } = bounds();
  return Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]) + 2;
}

/** Tools begin this far above a face that they cut, so that no two faces are coplanar. */
export const ABOVE = 0.5;
/** An added body reaches at least this far into the part. */
export const INTO = 0.2;

/** The outline is checked once more half way in. */
const INNER = 0.5;

/**
 * How far the part is below an outline drawn on a face: a boss there must reach that deep to meet all of it. Null where
 * nothing is below any of it; `over` is the share of the outline with nothing below it.
 */
export function depthBelow(
  mesh: TriangleMesh,
  frame: Frame,
  outline: Outline,
  most: number,
): { depth: number; over: number } | null {
  const points = flattenedPoints(outline, 0.3);
  const rim = points.filter((_, i) => i % Math.max(1, Math.ceil(points.length / 24)) === 0);
  const middle = [0, 1].map(i => rim.reduce((sum, q) => sum + q[i]! / rim.length, 0)) as [number, number];
  // An outline wider than the part on all sides meets it only deeper in.
  const inner = rim.map(q => [0, 1].map(i => middle[i]! + INNER * (q[i]! - middle[i]!)) as [number, number]);
  const few = [...rim, ...inner];
  const down: Point3 = [-frame.up[0], -frame.up[1], -frame.up[2]];
  const tree = rayTreeOf(mesh);
  const depths = few.map(([a, b]) => {
    const hit = tree.firstHit(inSpace(frame, [a, b, 0.02]), down);
    // A face that faces away is met from inside: nothing of the part is below there.
    return hit && dot(facing(mesh, hit.triangle), frame.up) > 0 ? hit.distance : null;
  });
  const met = depths.filter((d): d is number => d !== null && d <= most).map(d => Math.max(0, d - 0.02));
  if (met.length === 0) return null;
  return { depth: Math.max(...met), over: 1 - met.length / few.length };
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
