import type { TriangleMesh } from './mesh/mesh';
import { rayTreeOf } from './mesh/rays';
import type { Point3 } from './vector';

/**
 * Whether an object comes out of a part when it is lifted straight up, z; worked out on the triangles of both. Lengths
 * mm.
 */
export interface ComesOut {
  /** Where the part blocks it; null where it comes out. */
  heldAt: Point3 | null;
  /** Number of corners that were followed. */
  followed: number;
  /** The least clearance between the two as the object lies there, and its place; below 0 they overlap. */
  leastRoom: number;
  at: Point3;
}

/** At most this many corners of each are followed. */
const MOST_FOLLOWED = 30_000;
/** Contact no deeper than the scatter of a scan does not block, mm. */
export const TOUCHES = 0.05;
/** A larger distance is not measured, mm. */
const LOOKS = 4;

const [UP, DOWN]: Point3[] = [
  [0, 0, 1],
  [0, 0, -1],
];

export function comesOut(part: TriangleMesh, object: TriangleMesh): ComesOut {
  const found: ComesOut = { heldAt: null, followed: 0, leastRoom: Infinity, at: [0, 0, 0] };
  const tree = rayTreeOf(part);
  // The object's corners go up through the part, and the part's corners go down through the object.
  for (const corner of cornersOf(object)) {
    found.followed++;
    const hit = tree.firstHit([corner[0], corner[1], corner[2] + TOUCHES], UP!);
    if (hit && !found.heldAt) found.heldAt = [corner[0], corner[1], corner[2] + TOUCHES + hit.distance];
    const near = tree.nearest(corner, Math.min(LOOKS, found.leastRoom));
    if (!near) continue;
    const room = near.ahead < 0 ? -near.distance : near.distance;
    if (room < found.leastRoom) {
      found.leastRoom = room;
      found.at = near.at;
    }
  }
  const other = rayTreeOf(object);
  for (const corner of cornersOf(part)) {
    found.followed++;
    if (found.heldAt) break;
    if (other.firstHit([corner[0], corner[1], corner[2] - TOUCHES], DOWN!)) found.heldAt = corner;
  }
  return found;
}

function* cornersOf({ positions: p }: TriangleMesh): Generator<Point3> {
  const step = Math.max(1, Math.ceil(p.length / 3 / MOST_FOLLOWED));
  for (let v = 0; v < p.length; v += 3 * step) yield [p[v]!, p[v + 1]!, p[v + 2]!];
}
