import { byteOf, type Picture } from '../trace/picture';
import type { FlatObject } from './flat-object';
import { gauss, seeded } from './random';

/** A simulated flatbed scan: the object lies on the glass, seen from below. Lengths mm. */
export interface FlatbedScene {
  object: FlatObject;
  /** As the file states it. */
  dpi: number;
  /** The glass, measured from its corner; the object's origin is in the middle of it. */
  size: readonly [number, number];
  /** How much light the object reflects, for each colour. */
  colour: readonly [number, number, number];
  /** True size over size in the file, in each direction. */
  scale: readonly [number, number];
  /** How far x in the file changes for each true y, radians. */
  skew: number;
  /** sd, px */
  blur: number;
  noise: number;
  seed: number;
}

const LID = 0.86;

/** Seen through the glass: x runs the other way. */
export function scannedFlat(scene: FlatbedScene): Picture {
  const { object, dpi, size, colour, scale, skew, blur, noise, seed } = scene;
  const [px, py] = [(25.4 / dpi) * scale[0], (25.4 / dpi) * scale[1]];
  const [width, height] = [Math.round(size[0] / px), Math.round(size[1] / py)];
  const random = seeded(seed);
  const data = new Uint8ClampedArray(4 * width * height).fill(255);
  const soft = Math.hypot(blur, 0.4) * Math.sqrt(px * py);
  for (let v = 0; v < height; v++)
    for (let u = 0; u < width; u++) {
      const y = (v + 0.5) * py - size[1] / 2;
      const x = -((u + 0.5) * px - size[0] / 2 + skew * y);
      // An edge blurred by the lens darkens with distance like the normal distribution.
      const share = covered(object.distance(x, y) / soft);
      for (let k = 0; k < 3; k++) {
        const light = share * colour[k as 0]! + (1 - share) * LID;
        data[4 * (v * width + u) + k] = byteOf(gauss(random, light, noise));
      }
    }
  return { width, height, data };
}

/** 1 well inside, 0 well outside (logistic for Φ, within 0.01: Bowling et al. 2009). */
const covered = (d: number) => 1 / (1 + Math.exp(0.07056 * d ** 3 + 1.5976 * d));
