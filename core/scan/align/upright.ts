import { cross, dot, lengthOfVector, moved, type Point3, scaled } from '../../shape/vector';
import type { MirrorPlane } from '../symmetry';
import { type Pose, turned, turnOnto } from './pose';

/** Three places count as on one line below this, as a share of their distance. */
const ON_A_LINE = 0.02;
/** Places nearer than this coincide, mm: no scan tells them apart. */
const ONE_PLACE = 1e-6;

/**
 * Makes three places level at z = 0, with the object above them; the first one is the origin. Null where they are on
 * one line, or two of them coincide.
 * @param middle of the object
 */
export function levelPose([a, b, c]: readonly [Point3, Point3, Point3], middle: Point3): Pose | null {
  const [u, v] = [moved(b, a, -1), moved(c, a, -1)];
  if (Math.min(lengthOfVector(u), lengthOfVector(v)) < ONE_PLACE) return null;
  const n = cross(u, v);
  const long = lengthOfVector(n);
  if (long < ON_A_LINE * lengthOfVector(u) * lengthOfVector(v)) return null;
  const up = scaled(n, (dot(moved(middle, a, -1), n) < 0 ? -1 : 1) / long);
  return standing(up, a);
}

/** The plane of symmetry becomes x = 0; what was up stays up as far as possible. */
export function uprightPose({ normal, at }: MirrorPlane): Pose {
  const x = normal[0] < 0 ? scaled(normal, -1) : normal;
  const z: Point3 = Math.abs(normal[2]) < 0.9 ? [0, 0, 1] : [0, 1, 0];
  // `turnOnto` matches its first direction exactly: here that is the normal.
  const turn = turnOnto({ z: x, x: z }, { z: [1, 0, 0], x: [0, 0, 1] });
  const pose: Pose = { turn, shift: [0, 0, 0] };
  return { turn, shift: scaled(turned(pose, scaled(normal, at)), -1) };
}

/** A direction becomes up, and a place the origin. */
export function standing(up: Point3, at: Point3): Pose {
  const x: Point3 = Math.abs(up[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0];
  const turn = turnOnto({ z: up, x }, { z: [0, 0, 1], x });
  return { turn, shift: scaled(turned({ turn, shift: [0, 0, 0] }, at), -1) };
}
