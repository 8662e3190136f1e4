import type { Point2 } from '../../shape/vector';

/** A corner has settled after this many rounds. */
const ROUNDS = 12;
const STILL = 0.002;
/** Farther from where it was searched, in half-widths of the window, it is another one. */
const AWAY = 0.6;

/**
 * Where four squares meet, to a few hundredths of a pixel: every gradient in the window is at right angles to the
 * direction from the corner (Förstner and Gülch 1987).
 * @param grey brightness, row by row
 * @param half of the window, px
 * @returns null where no corner is near
 */
export function cornerNear(grey: Float32Array, width: number, start: Point2, half: number): Point2 | null {
  const height = grey.length / width;
  let [u, v] = start;
  const sd = half / 2;
  for (let round = 0; round < ROUNDS; round++) {
    const [i, j] = [Math.round(u), Math.round(v)];
    if (i - half < 1 || j - half < 1 || i + half >= width - 1 || j + half >= height - 1) return null;
    let [xx, xy, yy, bx, by] = [0, 0, 0, 0, 0];
    for (let y = j - half; y <= j + half; y++)
      for (let x = i - half; x <= i + half; x++) {
        const k = y * width + x;
        const gx = (grey[k + 1]! - grey[k - 1]!) / 2;
        const gy = (grey[k + width]! - grey[k - width]!) / 2;
        const w = Math.exp(-((x - u) ** 2 + (y - v) ** 2) / (2 * sd * sd));
        xx += w * gx * gx;
        xy += w * gx * gy;
        yy += w * gy * gy;
        bx += w * (gx * gx * x + gx * gy * y);
        by += w * (gx * gy * x + gy * gy * y);
      }
    const det = xx * yy - xy * xy;
    // Gradients in one direction only: an edge, or nothing at all.
    if (!(det > 0.02 * ((xx + yy) / 2) ** 2) || xx + yy < 50) return null;
    const [nu, nv] = [(yy * bx - xy * by) / det, (xx * by - xy * bx) / det];
    const moved = Math.hypot(nu - u, nv - v);
    [u, v] = [nu, nv];
    if (Math.hypot(u - start[0], v - start[1]) > AWAY * half) return null;
    if (moved < STILL) return [u, v];
  }
  return [u, v];
}
