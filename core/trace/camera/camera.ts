import { turnAbout, turned } from '../../scan/align/pose';
import type { Point2, Point3 } from '../../shape/vector';

/**
 * A camera over a sheet: pinhole with a lens (Brown 1971: two radial terms, two tangential), and the sheet as printed.
 * World: mm, x to the right and y down the sheet as the reader sees it, `height` above it. Picture: pixels, with
 * integers at pixel centres.
 */
export type Camera = Float64Array;

/** Indices of its numbers. Turn and shift take the world, with z down into the table, to the camera. */
export const [F, CX, CY, K1, K2, P1, P2, SX, SY, SKEW, TURN, SHIFT] = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 13];
export const NUMBERS = 16;

/** Where a place of the world appears. */
export type Projection = (x: number, y: number, height: number) => Point2;

/** Where the ray through a pixel is at a height over the sheet. */
export type Ray = (u: number, v: number, height: number) => Point2;

const turnOf = (c: Camera): number[] => turnAbout([c[TURN]!, c[TURN + 1]!, c[TURN + 2]!]);

/** The true position of a place printed on the sheet: printers stretch and shear slightly. */
export const printedAt = (c: Camera, [x, y]: Point2): Point2 => [c[SX]! * x + c[SKEW]! * y, c[SY]! * y];

export function projection(c: Camera): Projection {
  const m = turnOf(c);
  const [f, cx, cy, k1, k2, p1, p2] = [c[F]!, c[CX]!, c[CY]!, c[K1]!, c[K2]!, c[P1]!, c[P2]!];
  const [tx, ty, tz] = [c[SHIFT]!, c[SHIFT + 1]!, c[SHIFT + 2]!];
  return (x, y, height) => {
    const Z = m[6]! * x + m[7]! * y - m[8]! * height + tz;
    const a = (m[0]! * x + m[1]! * y - m[2]! * height + tx) / Z;
    const b = (m[3]! * x + m[4]! * y - m[5]! * height + ty) / Z;
    const r2 = a * a + b * b;
    const radial = 1 + k1 * r2 + k2 * r2 * r2;
    return [
      cx + f * (a * radial + 2 * p1 * a * b + p2 * (r2 + 2 * a * a)),
      cy + f * (b * radial + p1 * (r2 + 2 * b * b) + 2 * p2 * a * b),
    ];
  };
}

/** The lens inverted, by steps that get ten times smaller each: no phone lens needs more. */
const UNBENDING = 12;

export function ray(c: Camera): Ray {
  const m = turnOf(c);
  const [f, cx, cy, k1, k2, p1, p2] = [c[F]!, c[CX]!, c[CY]!, c[K1]!, c[K2]!, c[P1]!, c[P2]!];
  const [tx, ty, tz] = [c[SHIFT]!, c[SHIFT + 1]!, c[SHIFT + 2]!];
  // The eye, in the world.
  const ex = -(m[0]! * tx + m[3]! * ty + m[6]! * tz);
  const ey = -(m[1]! * tx + m[4]! * ty + m[7]! * tz);
  const ez = -(m[2]! * tx + m[5]! * ty + m[8]! * tz);
  return (u, v, height) => {
    const [ad, bd] = [(u - cx) / f, (v - cy) / f];
    let [a, b] = [ad, bd];
    for (let i = 0; i < UNBENDING; i++) {
      const r2 = a * a + b * b;
      const radial = 1 + k1 * r2 + k2 * r2 * r2;
      const [na, nb] = [
        (ad - 2 * p1 * a * b - p2 * (r2 + 2 * a * a)) / radial,
        (bd - p1 * (r2 + 2 * b * b) - 2 * p2 * a * b) / radial,
      ];
      const moved = Math.abs(na - a) + Math.abs(nb - b);
      [a, b] = [na, nb];
      if (moved < 1e-10) break;
    }
    const wx = m[0]! * a + m[3]! * b + m[6]!;
    const wy = m[1]! * a + m[4]! * b + m[7]!;
    const wz = m[2]! * a + m[5]! * b + m[8]!;
    const far = (-height - ez) / wz;
    return [ex + far * wx, ey + far * wy];
  };
}

/** The eye: its place over the sheet, and its height. */
export function eyeOf(c: Camera): { at: Point2; height: number } {
  const m = turnOf(c);
  const back = [0, 1, 2].map(
    i => -(m[i]! * c[SHIFT]! + m[3 + i]! * c[SHIFT + 1]! + m[6 + i]! * c[SHIFT + 2]!),
  );
  return { at: [back[0]!, back[1]!], height: -back[2]! };
}

/** The tilt of the picture relative to the sheet, degrees. */
export function tiltOf(c: Camera): number {
  const down: Point3 = turned({ turn: turnOf(c), shift: [0, 0, 0] }, [0, 0, 1]);
  return (Math.acos(Math.max(-1, Math.min(1, down[2]))) * 180) / Math.PI;
}
