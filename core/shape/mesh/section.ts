import type { Point3 } from '../vector';
import { basisOf, dot } from '../vector';
import type { TriangleMesh } from './mesh';

/** One closed loop of a plane section, as points in the plane's own two directions, mm. */
export interface Loop {
  points: [number, number][];
  /** Signed: positive when it runs counter-clockwise about solid, negative about a hole. mm². */
  area: number;
}

/**
 * Section of a closed mesh at height z, its loops chained. A vertex exactly at z counts as above, so
 * that every cross triangle gives exactly one segment.
 */
export function sectionAtZ(mesh: TriangleMesh, z: number): Loop[] {
  const { positions: p, triangles } = mesh;
  const count = p.length / 3;
  const next = new Map<number, number>();
  const place = new Map<number, [number, number]>();
  for (let t = 0; t < triangles.length; t += 3) {
    const first = p[3 * triangles[t]! + 2]! >= z;
    const second = p[3 * triangles[t + 1]! + 2]! >= z;
    const third = p[3 * triangles[t + 2]! + 2]! >= z;
    // Most triangles do not cross: nothing is allocated for them.
    if (first === second && second === third) continue;
    const v = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
    const up = [first, second, third];
    let enter = -1;
    let leave = -1;
    for (let e = 0; e < 3; e++) {
      const a = v[e]!;
      const b = v[(e + 1) % 3]!;
      if (up[e] === up[(e + 1) % 3]) continue;
      // From the lower index to the higher: both triangles on an edge compute the identical point.
      const [low, high] = a < b ? [a, b] : [b, a];
      const key = low * count + high;
      if (!place.has(key)) {
        const share = (z - p[3 * low + 2]!) / (p[3 * high + 2]! - p[3 * low + 2]!);
        place.set(key, [
          p[3 * low]! + share * (p[3 * high]! - p[3 * low]!),
          p[3 * low + 1]! + share * (p[3 * high + 1]! - p[3 * low + 1]!),
        ]);
      }
      if (up[e]) enter = key;
      else leave = key;
    }
    // Seen from above, solid lies to the left of enter → leave.
    next.set(enter, leave);
  }
  const loops: Loop[] = [];
  const used = new Set<number>();
  for (const start of next.keys()) {
    if (used.has(start)) continue;
    const points: [number, number][] = [];
    let key: number | undefined = start;
    while (key !== undefined && !used.has(key)) {
      used.add(key);
      points.push(place.get(key)!);
      key = next.get(key);
    }
    if (key === start && points.length > 2) loops.push({ points, area: polygonArea(points) });
  }
  return loops;
}

/** Section through a point across an axis, with that point, both in the axis' own two directions. */
export function sectionAcross(
  mesh: TriangleMesh,
  at: Point3,
  axis: Point3,
): { loops: Loop[]; at: [number, number] } {
  if (axis[2] === 1) return { loops: sectionAtZ(mesh, at[2]), at: [at[0], at[1]] };
  const { x, y } = basisOf(axis);
  const { positions: p } = mesh;
  const turned = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 3) {
    const v: Point3 = [p[i]!, p[i + 1]!, p[i + 2]!];
    turned[i] = dot(v, x);
    turned[i + 1] = dot(v, y);
    turned[i + 2] = dot(v, axis);
  }
  return {
    loops: sectionAtZ({ positions: turned, triangles: mesh.triangles }, dot(at, axis)),
    at: [dot(at, x), dot(at, y)],
  };
}

export function polygonArea(points: readonly (readonly [number, number])[]): number {
  let twice = 0;
  for (let i = 0; i < points.length; i++) {
    const [ax, ay] = points[i]!;
    const [bx, by] = points[(i + 1) % points.length]!;
    twice += ax * by - bx * ay;
  }
  return twice / 2;
}

export function polygonCentroid(points: readonly (readonly [number, number])[]): [number, number] {
  let [twice, x, y] = [0, 0, 0];
  for (let i = 0; i < points.length; i++) {
    const [ax, ay] = points[i]!;
    const [bx, by] = points[(i + 1) % points.length]!;
    const c = ax * by - bx * ay;
    twice += c;
    x += (ax + bx) * c;
    y += (ay + by) * c;
  }
  return [x / (3 * twice), y / (3 * twice)];
}

/** A loop taken as a circle about a known centre. */
export interface LoopCircle {
  diameter: number;
  /** Largest minus smallest radius. */
  form: number;
}

/**
 * Diameter of a loop about a centre. Each straight piece is sampled at its ends and its middle, since a polygon
 * inscribed in a bore is smaller across its flats: the caliper touches the flats of a hole and the corners of an
 * outside.
 */
export function loopCircle(loop: Loop, centre: readonly [number, number]): LoopCircle {
  let least = Infinity;
  let most = 0;
  const n = loop.points.length;
  for (let i = 0; i < n; i++) {
    const [ax, ay] = loop.points[i]!;
    const [bx, by] = loop.points[(i + 1) % n]!;
    for (const [x, y] of [
      [ax, ay],
      [(ax + bx) / 2, (ay + by) / 2],
    ] as const) {
      const r = Math.hypot(x - centre[0], y - centre[1]);
      least = Math.min(least, r);
      most = Math.max(most, r);
    }
  }
  return { diameter: loop.area < 0 ? 2 * least : 2 * most, form: most - least };
}

/** The loop around `centre` whose diameter is nearest to `size`, of holes or of outsides. */
export function loopNear(
  loops: readonly Loop[],
  centre: readonly [number, number],
  size: number,
  side: 'inside' | 'outside',
): LoopCircle | undefined {
  return loops
    .filter(loop => (side === 'inside' ? loop.area < 0 : loop.area > 0))
    .map(loop => loopCircle(loop, centre))
    .sort((a, b) => Math.abs(a.diameter - size) - Math.abs(b.diameter - size))[0];
}
