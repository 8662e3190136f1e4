import { turnAbout } from '../scan/align/pose';
import { type Point2, type Point3, point3 } from '../shape/vector';
import {
  type Camera,
  CX,
  CY,
  F,
  K1,
  K2,
  NUMBERS,
  P1,
  P2,
  SHIFT,
  SKEW,
  SX,
  SY,
  TURN,
} from '../trace/camera/camera';

/** Camera matrix of a phone held over the sheet. @param over where it is held, mm, tilted by degrees */
export function heldCamera(
  width: number,
  height: number,
  { f35 = 50, high = 440, tilt = 10, way = 40, turn = 3, at = [5, -10] as Point2, lens = [0.06, -0.05] },
): Camera {
  const c = new Float64Array(NUMBERS);
  c[F] = (f35 * Math.hypot(width, height)) / 43.267;
  c[CX] = (width - 1) / 2 + 0.002 * width;
  c[CY] = (height - 1) / 2 - 0.003 * width;
  c[K1] = lens[0]!;
  c[K2] = lens[1]!;
  c[P1] = 4e-4;
  c[P2] = -3e-4;
  c[SX] = 1.002;
  c[SY] = 0.999;
  c[SKEW] = 0.0003;
  const deg = Math.PI / 180;
  const omega: Point3 = [tilt * deg * Math.cos(way * deg), tilt * deg * Math.sin(way * deg), turn * deg];
  const m = turnAbout(omega);
  // The centre of the picture looks at `at`.
  const seen = point3(i => m[3 * i]! * at[0] + m[3 * i + 1]! * at[1]);
  for (let i = 0; i < 3; i++) {
    c[TURN + i] = omega[i as 0];
    c[SHIFT + i] = -seen[i as 0] + (i === 2 ? high : 0);
  }
  return c;
}
