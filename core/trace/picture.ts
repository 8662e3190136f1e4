import type { Point2 } from '../shape/vector';

/** A decoded picture: red, green, blue, alpha, a byte each, row by row from the top left. */
export interface Picture {
  width: number;
  height: number;
  data: Uint8ClampedArray | Uint8Array;
}

/** sRGB (IEC 61966-2-1) to linear light, 0 to 1: edges are found in linear light, never in a file's values. */
const LIGHT = Float32Array.from({ length: 256 }, (_, i) => {
  const v = i / 255;
  return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
});

/** Linear light to the byte of a file. */
export const byteOf = (light: number): number => {
  const l = Math.max(0, Math.min(1, light));
  return Math.round(255 * (l <= 0.0031308 ? 12.92 * l : 1.055 * l ** (1 / 2.4) - 0.055));
};

/** Light between pixels, for each colour, written into `out`; false outside the picture. */
export function lightAt({ width, height, data }: Picture, [u, v]: Point2, out: Float64Array): boolean {
  if (!(u >= 0 && v >= 0 && u < width - 1 && v < height - 1)) return false;
  const [i, j] = [Math.floor(u), Math.floor(v)];
  const [a, b] = [u - i, v - j];
  const at = 4 * (j * width + i);
  const below = at + 4 * width;
  for (let k = 0; k < 3; k++)
    out[k] =
      (1 - b) * ((1 - a) * LIGHT[data[at + k]!]! + a * LIGHT[data[at + 4 + k]!]!) +
      b * ((1 - a) * LIGHT[data[below + k]!]! + a * LIGHT[data[below + 4 + k]!]!);
  return true;
}

/** Brightness as the file holds it, 0 to 255 (ITU-R BT.601). */
export function greyOf({ width, height, data }: Picture): Float32Array {
  const out = new Float32Array(width * height);
  for (let i = 0; i < out.length; i++)
    out[i] = 0.299 * data[4 * i]! + 0.587 * data[4 * i + 1]! + 0.114 * data[4 * i + 2]!;
  return out;
}

/** The mean of each block of pixels. */
export function reduced({ width, height, data }: Picture, by: number): Picture {
  const [w, h] = [Math.floor(width / by), Math.floor(height / by)];
  const out = new Uint8ClampedArray(4 * w * h);
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++)
      for (let k = 0; k < 4; k++) {
        let sum = 0;
        for (let b = 0; b < by; b++)
          for (let a = 0; a < by; a++) sum += data[4 * ((j * by + b) * width + i * by + a) + k]!;
        out[4 * (j * w + i) + k] = sum / (by * by);
      }
  return { width: w, height: h, data: out };
}
