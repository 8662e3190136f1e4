import { boundsOf, type TriangleMesh } from '../../shape/mesh/mesh';

/** Gap between neighbours on the bed, mm. Common practice, no source. */
export const GAP = 5;

/** In rows from the bed's left front corner; null where they do not fit. */
export function laidOut<B extends { mesh: TriangleMesh }>(
  bodies: readonly B[],
  width: number,
  depth: number,
  gap = GAP,
): B[] | null {
  let [x, y, row] = [0, 0, 0];
  const laid: B[] = [];
  for (const body of bodies) {
    const { min, max } = boundsOf(body.mesh);
    const [w, d] = [max[0] - min[0], max[1] - min[1]];
    if (x > 0 && x + w > width) [x, y, row] = [0, y + row + gap, 0];
    if (w > width || y + d > depth) return null;
    const by = [x - min[0], y - min[1], 0];
    const positions = body.mesh.positions.map((p, i) => p + by[i % 3]!);
    laid.push({ ...body, mesh: { ...body.mesh, positions } });
    x += w + gap;
    row = Math.max(row, d);
  }
  return laid;
}

/** The places of parts of one size: a corner each, and whether it is turned by a quarter. */
export interface InRows {
  x: number;
  y: number;
  quarter: boolean;
}

/**
 * Parts of one size in rows and columns, as many as fit: all turned the same way, or a block of rows one way and,
 * behind or beside it, a block the other way. Lengths mm.
 */
export function rowsOf(
  [w, d]: readonly [number, number],
  { width, depth }: { width: number; depth: number },
  gap = GAP,
): InRows[] {
  const block = (x: number, y: number, wide: number, deep: number, quarter: boolean): InRows[] => {
    const [a, b] = quarter ? [d, w] : [w, d];
    const [across, back] = [
      Math.floor((wide + gap) / (a + gap) + 1e-9),
      Math.floor((deep + gap) / (b + gap) + 1e-9),
    ];
    if (across <= 0 || back <= 0) return [];
    return Array.from({ length: across * back }, (_, i) => ({
      x: x + (i % across) * (a + gap),
      y: y + Math.floor(i / across) * (b + gap),
      quarter,
    }));
  };
  let best: InRows[] = [];
  for (const quarter of [false, true]) {
    const [a, b] = quarter ? [d, w] : [w, d];
    for (let rows = 0; rows * (b + gap) <= depth + gap; rows++) {
      const used = rows * (b + gap);
      const mixed = [
        ...block(0, 0, width, used - gap, quarter),
        ...block(0, used, width, depth - used, !quarter),
      ];
      if (mixed.length > best.length) best = mixed;
    }
    for (let columns = 0; columns * (a + gap) <= width + gap; columns++) {
      const used = columns * (a + gap);
      const mixed = [
        ...block(0, 0, used - gap, depth, quarter),
        ...block(used, 0, width - used, depth, !quarter),
      ];
      if (mixed.length > best.length) best = mixed;
    }
  }
  return best;
}
