import { minus2, type Point2 } from '../vector';

/** Running sums of powers of the points, so that any run of them can be fitted without going through it again. */
export class Runs {
  private readonly sums: Float64Array;
  readonly middle: Point2;

  constructor(private readonly points: readonly Point2[]) {
    const n = points.length;
    this.middle = [points.reduce((s, p) => s + p[0], 0) / n, points.reduce((s, p) => s + p[1], 0) / n];
    this.sums = new Float64Array(9 * (n + 1));
    points.forEach((p, i) => {
      const [x, y] = minus2(p, this.middle);
      const z = x * x + y * y;
      [x, y, x * x, x * y, y * y, x * z, y * z, z, z * z].forEach((v, k) => {
        this.sums[9 * (i + 1) + k] = this.sums[9 * i + k]! + v;
      });
    });
  }

  private readonly run = new Float64Array(9);

  private of(from: number, to: number, many: number): Float64Array {
    for (let k = 0; k < many; k++) this.run[k] = this.sums[9 * (to + 1) + k]! - this.sums[9 * from + k]!;
    return this.run;
  }

  /** The line by least squares across it: the sum of squared misses, and its position. */
  line(from: number, to: number): { missed: number; at: Point2; way: Point2 } {
    const n = to - from + 1;
    const r = this.of(from, to, 5);
    const [x, y, xx, xy, yy] = [r[0]!, r[1]!, r[2]!, r[3]!, r[4]!];
    const [sxx, sxy, syy] = [xx - (x * x) / n, xy - (x * y) / n, yy - (y * y) / n];
    const missed = (sxx + syy) / 2 - Math.hypot((sxx - syy) / 2, sxy);
    const angle = Math.atan2(2 * sxy, sxx - syy) / 2;
    let way: Point2 = [Math.cos(angle), Math.sin(angle)];
    const chord = minus2(this.points[to]!, this.points[from]!);
    if (way[0] * chord[0] + way[1] * chord[1] < 0) way = [-way[0], -way[1]];
    return { missed: Math.max(0, missed), at: [x / n + this.middle[0], y / n + this.middle[1]], way };
  }

  /** The circle by linear least squares (Kåsa 1976): the sum of squared misses, and its position. */
  circle(from: number, to: number): { missed: number; centre: Point2; radius: number } | null {
    const n = to - from + 1;
    const r = this.of(from, to, 9);
    const [x, y, xx, xy, yy, xz, yz, z, zz] = [r[0]!, r[1]!, r[2]!, r[3]!, r[4]!, r[5]!, r[6]!, r[7]!, r[8]!];
    const [a, b, c] = [xx - (x * x) / n, xy - (x * y) / n, yy - (y * y) / n];
    const [p, q] = [xz - (x * z) / n, yz - (y * z) / n];
    const det = a * c - b * b;
    if (!(det > 1e-12 * (a + c) ** 2)) return null;
    const [u, v] = [(c * p - b * q) / det / 2, (a * q - b * p) / det / 2];
    const w = (z - 2 * u * x - 2 * v * y) / n;
    const square = w + u * u + v * v;
    if (!(square > 0)) return null;
    const missed = zz - (z * z) / n - 2 * u * p - 2 * v * q;
    return {
      missed: Math.max(0, missed) / (4 * square),
      centre: [u + this.middle[0], v + this.middle[1]],
      radius: Math.sqrt(square),
    };
  }
}
