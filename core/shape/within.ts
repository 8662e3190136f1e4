import { flattenedPoints } from './curve';
import type { Outline } from './kernels/kernel';
import type { Point2 } from './vector';
import { cross2, distance2, minus2 } from './vector';

/** How outlines are placed relative to each other. Arcs become straight pieces within 0.01 mm. */
const SAGITTA = 0.01;

export function isInside(point: Point2, loop: readonly Point2[]): boolean {
  let inside = false;
  for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
    const [a, b] = [loop[i]!, loop[j]!];
    if (a[1] > point[1] === b[1] > point[1]) continue;
    if (point[0] < a[0] + ((b[0] - a[0]) * (point[1] - a[1])) / (b[1] - a[1])) inside = !inside;
  }
  return inside;
}

/** Least wall between an inner outline and the outer one around it, mm; below 0 where it is not inside. */
export function wallBetween(outer: Outline, inner: Outline): number {
  const [out, within] = [flattenedPoints(outer, SAGITTA), flattenedPoints(inner, SAGITTA)];
  const gap = gapOf(out, within);
  return within.every(p => isInside(p, out)) && !crossing(out, within) ? gap : -1;
}

/** Least distance between two separate outlines, mm; below 0 where they meet or one contains the other. */
export function gapBetween(a: Outline, b: Outline): number {
  const [p, q] = [flattenedPoints(a, SAGITTA), flattenedPoints(b, SAGITTA)];
  if (isInside(p[0]!, q) || isInside(q[0]!, p) || crossing(p, q)) return -1;
  return gapOf(p, q);
}

function gapOf(a: readonly Point2[], b: readonly Point2[]): number {
  let least = Infinity;
  for (const [points, loop] of [
    [a, b],
    [b, a],
  ] as const) {
    for (const p of points) least = Math.min(least, gapTo(p, loop));
  }
  return least;
}

/** Least way from a point to a closed line, mm. */
export function gapTo(p: Point2, loop: readonly Point2[]): number {
  let least = Infinity;
  for (let i = 0; i < loop.length; i++)
    least = Math.min(least, toSegment(p, loop[i]!, loop[(i + 1) % loop.length]!));
  return least;
}

/** Least way from a point to a line from a to b, mm. */
export function toSegment(p: Point2, a: Point2, b: Point2): number {
  const d = minus2(b, a);
  const length = d[0] ** 2 + d[1] ** 2;
  const t = length > 0 ? ((p[0] - a[0]) * d[0] + (p[1] - a[1]) * d[1]) / length : 0;
  const share = Math.max(0, Math.min(1, t));
  return distance2(p, [a[0] + share * d[0], a[1] + share * d[1]]);
}

function crossing(a: readonly Point2[], b: readonly Point2[]): boolean {
  const side = (p: Point2, q: Point2, r: Point2) => cross2(minus2(q, p), minus2(r, p));
  return a.some((p, i) => {
    const q = a[(i + 1) % a.length]!;
    return b.some((r, j) => {
      const s = b[(j + 1) % b.length]!;
      return side(p, q, r) * side(p, q, s) < 0 && side(r, s, p) * side(r, s, q) < 0;
    });
  });
}
