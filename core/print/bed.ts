import { type Bounds, boundsOf, type TriangleMesh } from '../shape/mesh/mesh';

/** Between neighbours on the bed, mm. Common practice, no source. */
export const GAP = 5;

/** In rows from the bed's left front corner; null where they do not fit. */
export function laidOut<B extends { mesh: TriangleMesh }>(
  bodies: readonly B[],
  width: number,
  depth: number,
): B[] | null {
  let [x, y, row] = [0, 0, 0];
  const laid: B[] = [];
  for (const body of bodies) {
    const { min, max } = boundsOf(body.mesh);
    const [w, d] = [max[0] - min[0], max[1] - min[1]];
    if (x > 0 && x + w > width) [x, y, row] = [0, y + row + GAP, 0];
    if (w > width || y + d > depth) return null;
    const by = [x - min[0], y - min[1], 0];
    const positions = body.mesh.positions.map((p, i) => p + by[i % 3]!);
    laid.push({ ...body, mesh: { ...body.mesh, positions } });
    x += w + GAP;
    row = Math.max(row, d);
  }
  return laid;
}

/** How many parts of one size fit beside each other on a bed, and on how many beds a batch is. Lengths mm. */
export function batch(
  { min, max }: Bounds,
  { width, depth }: { width: number; depth: number },
  pieces: number,
): { onOneBed: number; beds: number } {
  const along = (bed: number, i: 0 | 1) => Math.floor((bed + GAP) / (max[i] - min[i] + GAP) + 1e-9);
  const onOneBed = along(width, 0) * along(depth, 1);
  return { onOneBed, beds: onOneBed === 0 ? 0 : Math.ceil(pieces / onOneBed) };
}
