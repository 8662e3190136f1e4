import type { TriangleMesh } from '../../shape/mesh/mesh';
import { basisOf, dot, moved, type Point2, type Point3, point3 } from '../../shape/vector';

/** A plane section of a scan: its lines may be open, since a scan may. Lengths mm. */

export interface CutPlane {
  at: Point3;
  normal: Point3;
}

export interface Chain {
  /** In the plane's own two directions, from the plane's point. */
  points: Point2[];
  closed: boolean;
}

/** Ends nearer than this many spacings of corners are joined: a small hole in the scan, not a gap in the object. */
const GAP = 4;

/** @param spacing of the scan's corners @returns the longest first */
export function cutAt({ positions: p, triangles }: TriangleMesh, plane: CutPlane, spacing: number): Chain[] {
  const { x, y } = basisOf(plane.normal);
  const [n0, n1, n2] = plane.normal;
  const off = dot(plane.at, plane.normal);
  const count = p.length / 3;
  const high = new Float32Array(count);
  for (let v = 0; v < count; v++) high[v] = p[3 * v]! * n0 + p[3 * v + 1]! * n1 + p[3 * v + 2]! * n2 - off;
  const place = new Map<number, Point2>();
  const beside = new Map<number, number[]>();
  const crossing = (a: number, b: number): number => {
    const [low, top] = a < b ? [a, b] : [b, a];
    const key = low * count + top;
    if (!place.has(key)) {
      const share = high[low]! / (high[low]! - high[top]!);
      const at = point3(i => p[3 * low + i]! + share * (p[3 * top + i]! - p[3 * low + i]!) - plane.at[i]);
      place.set(key, [dot(at, x), dot(at, y)]);
      beside.set(key, []);
    }
    return key;
  };
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
    const [ua, ub, uc] = [high[a]! >= 0, high[b]! >= 0, high[c]! >= 0];
    if (ua === ub && ub === uc) continue;
    const ends: number[] = [];
    if (ua !== ub) ends.push(crossing(a, b));
    if (ub !== uc) ends.push(crossing(b, c));
    if (uc !== ua) ends.push(crossing(c, a));
    beside.get(ends[0]!)!.push(ends[1]!);
    beside.get(ends[1]!)!.push(ends[0]!);
  }
  const chains = walked(place, beside);
  return joinedEnds(chains, GAP * spacing)
    .filter(c => c.points.length > 3 && lengthOf(c) > GAP * spacing)
    .sort((a, b) => b.points.length - a.points.length);
}

const lengthOf = ({ points }: Chain) =>
  points.reduce((sum, p, i) => sum + (i > 0 ? apart(points[i - 1]!, p) : 0), 0);

function walked(place: ReadonlyMap<number, Point2>, beside: ReadonlyMap<number, number[]>): Chain[] {
  const used = new Set<number>();
  const chains: Chain[] = [];
  const from = (start: number) => {
    const keys = [start];
    used.add(start);
    for (let at = start; ; ) {
      const next = beside.get(at)!.find(k => !used.has(k));
      if (next === undefined) break;
      used.add(next);
      keys.push(next);
      at = next;
    }
    const isRing = keys.length > 2 && beside.get(keys.at(-1)!)!.includes(start);
    chains.push({ points: keys.map(k => place.get(k)!), closed: isRing });
  };
  // Open lines begin at an end; what is left then is closed.
  for (const [key, next] of beside) if (next.length === 1 && !used.has(key)) from(key);
  for (const key of beside.keys()) if (!used.has(key)) from(key);
  return chains;
}

function joinedEnds(chains: readonly Chain[], gap: number): Chain[] {
  const done = chains.filter(c => c.closed);
  const open = chains.filter(c => !c.closed && c.points.length > 1).map(c => [...c.points]);
  for (;;) {
    let best: { i: number; j: number; far: number; heads: [boolean, boolean] } | undefined;
    for (let i = 0; i < open.length; i++)
      for (let j = i; j < open.length; j++)
        for (const a of [true, false])
          for (const b of [true, false]) {
            if (i === j && (a === b || open[i]!.length < 4)) continue;
            const far = apart(endOf(open[i]!, a), endOf(open[j]!, b));
            if (far <= gap && (!best || far < best.far)) best = { i, j, far, heads: [a, b] };
          }
    if (!best) break;
    const first = open[best.i]!;
    if (best.i === best.j) {
      done.push({ points: first, closed: true });
      open.splice(best.i, 1);
      continue;
    }
    const second = open[best.j]!;
    const lead = best.heads[0] ? [...first].reverse() : first;
    const tail = best.heads[1] ? second : [...second].reverse();
    open.splice(best.j, 1);
    open[best.i] = [...lead, ...tail];
  }
  return [...done, ...open.map(points => ({ points, closed: false }))];
}

const endOf = (points: readonly Point2[], head: boolean) => points[head ? 0 : points.length - 1]!;
const apart = (a: Point2, b: Point2) => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** A place of the section in the coordinates of the scan. */
export function inSection({ at, normal }: CutPlane, [u, v]: Point2): Point3 {
  const { x, y } = basisOf(normal);
  return moved(moved(at, x, u), y, v);
}
