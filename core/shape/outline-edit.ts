import { curvesOf, flattenedPoints, middleOf } from './curve';
import type { Corner } from './outline-text';
import { minus2, type Point2, unit2 } from './vector';

/**
 * Editing a written outline on its drawing. A number written as an expression depends on a size: it stays as it is. mm
 */
export type Written = Corner<string>;

/** What is being dragged: a corner, the point an arc goes through, or the whole edge that ends at a corner. */
export type Grip = { of: 'corner'; at: number } | { of: 'via'; at: number } | { of: 'edge'; at: number };

/** Numbers are rounded to a hundredth, without floating-point tails. */
const plain = (x: number): string => String(Number(x.toFixed(2)) || 0);
/** No expression. */
export const isPlainNumber = (text: string): boolean => text.trim() !== '' && Number.isFinite(Number(text));
const shifted = (text: string, by: number): string => (isPlainNumber(text) ? plain(Number(text) + by) : text);

/** Whether dragging it could change anything. */
export function canMove(corners: readonly Written[], grip: Grip): boolean {
  const corner = corners[grip.at]!;
  if (grip.of === 'via') return corner.via?.some(isPlainNumber) ?? false;
  const ends = grip.of === 'edge' ? [corner, before(corners, grip.at)] : [corner];
  return ends.some(c => isPlainNumber(c.x) || isPlainNumber(c.y));
}

const before = (corners: readonly Written[], i: number): Written =>
  corners[(i + corners.length - 1) % corners.length]!;

/** The outline with the dragged item moved; an edge takes the point of its arc along. */
export function movedGrip(corners: readonly Written[], grip: Grip, [dx, dy]: Point2): Written[] {
  const n = corners.length;
  const via = (c: Written): Pick<Written, 'via'> =>
    c.via ? { via: [shifted(c.via[0], dx), shifted(c.via[1], dy)] } : {};
  const place = (c: Written) => ({ x: shifted(c.x, dx), y: shifted(c.y, dy) });
  return corners.map((c, i) => {
    if (grip.of === 'via') return i === grip.at ? { ...c, ...via(c) } : c;
    if (grip.of === 'corner') return i === grip.at ? { ...c, ...place(c) } : c;
    if (i === grip.at) return { ...c, ...place(c), ...via(c) };
    return i === (grip.at + n - 1) % n ? { ...c, ...place(c) } : c;
  });
}

/** The edge that ends at a corner, with a total trim of this much. */
export const movedEdge = (corners: readonly Written[], at: number, by: number): Written[] =>
  corners.map((corner, i) => {
    if (i !== at) return corner;
    const { trim: _, ...bare } = corner;
    const trim = plain(by);
    return trim === '0' ? bare : { ...bare, trim };
  });

/** The outward normal of an edge; unit length. */
export function outOfEdge(points: readonly Point2[], at: number): Point2 {
  const n = points.length;
  const [a, b] = [points[(at + n - 1) % n]!, points[at]!];
  const [x, y] = unit2(minus2(b, a));
  const area = points.reduce((sum, p, i) => {
    const q = points[(i + 1) % n]!;
    return sum + p[0] * q[1] - q[0] * p[1];
  }, 0);
  // Counter-clockwise, the outside is on the right.
  return area > 0 ? [y, -x || 0] : [-y || 0, x];
}

/** Adds a corner in the middle of the edge that ends at one; an arc is divided at its point. */
export function withCorner(corners: readonly Written[], at: number, points: readonly Point2[]): Written[] {
  const [a, b] = [points[(at + points.length - 1) % points.length]!, points[at]!];
  const { via, ...end } = corners[at]!;
  const [x, y] = via ? via : [plain((a[0] + b[0]) / 2), plain((a[1] + b[1]) / 2)];
  const fresh: Written = { x, y, ...(end.trim === undefined ? {} : { trim: end.trim }) };
  return [...corners.slice(0, at), fresh, via ? end : corners[at]!, ...corners.slice(at + 1)];
}

/** Snaps to another corner within this, mm at the screen's scale; otherwise the step counts. */
export interface Snap {
  /** mm */
  near: number;
  step: number;
}

/**
 * Where a dragged point goes: in line with another corner where it is near that, otherwise to the step.
 * @param from where it was @param others what it may snap to
 * @returns the movement, and the lines it snapped to
 */
export function snapped(
  from: Point2,
  [dx, dy]: Point2,
  others: readonly Point2[],
  { near, step }: Snap,
): { by: Point2; lines: { x?: number; y?: number } } {
  const lines: { x?: number; y?: number } = {};
  const one = (i: 0 | 1, by: number): number => {
    const to = from[i] + by;
    const other = others
      .map(p => p[i])
      .filter(v => Math.abs(v - to) < near)
      .sort((a, b) => Math.abs(a - to) - Math.abs(b - to))[0];
    if (other !== undefined) {
      lines[i === 0 ? 'x' : 'y'] = other;
      return other - from[i];
    }
    return Math.round(to / step) * step - from[i];
  };
  return { by: [one(0, dx), one(1, dy)], lines };
}

/** Each edge of the bare outline as a line to draw, without what its corners lose: edge i ends at corner i. */
export function edgeLines(corners: readonly Corner[], sagitta = 0.1): { points: Point2[]; middle: Point2 }[] {
  const n = corners.length;
  return corners.map((end, i) => {
    const start = corners[(i + n - 1) % n]!;
    const [from, to]: [Point2, Point2] = [
      [start.x, start.y],
      [end.x, end.y],
    ];
    const open = { start: from, edges: [{ to, ...(end.via ? { via: end.via } : {}) }] };
    return { points: [...flattenedPoints(open, sagitta), to], middle: middleOf(curvesOf(open)[0]!) };
  });
}
