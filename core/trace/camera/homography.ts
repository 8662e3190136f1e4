import { Matrix, SingularValueDecomposition } from 'ml-matrix';
import type { Point2 } from '../../shape/vector';

/** Row by row: the matrix that takes places of a plane to pixels, or back. */
export type Homography = readonly number[];

export type Pair = readonly [from: Point2, to: Point2];

/**
 * By direct linear transformation on normalised coordinates (Hartley 1997). @param pairs at least four, no three on one
 * line
 */
export function homographyOf(pairs: readonly Pair[]): Homography {
  const even = (k: 0 | 1) => {
    const n = pairs.length;
    const mean = [0, 1].map(i => pairs.reduce((s, p) => s + p[k][i as 0]!, 0) / n);
    const size = pairs.reduce((s, p) => s + Math.hypot(p[k][0] - mean[0]!, p[k][1] - mean[1]!), 0) / n || 1;
    return { mean, size };
  };
  const [a, b] = [even(0), even(1)];
  const rows = pairs.flatMap(([from, to]) => {
    const [x, y] = [(from[0] - a.mean[0]!) / a.size, (from[1] - a.mean[1]!) / a.size];
    const [u, v] = [(to[0] - b.mean[0]!) / b.size, (to[1] - b.mean[1]!) / b.size];
    return [
      [x, y, 1, 0, 0, 0, -u * x, -u * y, -u],
      [0, 0, 0, x, y, 1, -v * x, -v * y, -v],
    ];
  });
  // As a square matrix: the last column of V is wanted, whatever the number of rows.
  const matrix = new Matrix(rows);
  const h = new SingularValueDecomposition(matrix.transpose().mmul(matrix)).rightSingularVectors.getColumn(8);
  const unevened = new Matrix([
    [b.size, 0, b.mean[0]!],
    [0, b.size, b.mean[1]!],
    [0, 0, 1],
  ])
    .mmul(new Matrix([h.slice(0, 3), h.slice(3, 6), h.slice(6, 9)]))
    .mmul(
      new Matrix([
        [1 / a.size, 0, -a.mean[0]! / a.size],
        [0, 1 / a.size, -a.mean[1]! / a.size],
        [0, 0, 1],
      ]),
    );
  return unevened.to1DArray();
}

export function through(h: Homography, [x, y]: Point2): Point2 {
  const w = h[6]! * x + h[7]! * y + h[8]!;
  return [(h[0]! * x + h[1]! * y + h[2]!) / w, (h[3]! * x + h[4]! * y + h[5]!) / w];
}
