import { eigs } from 'mathjs';
import { cross, dot, moved, type Point3, point3 } from '../../shape/vector';

/** A turn and a shift: `turn` row by row, nine numbers. Lengths mm. */
export interface Pose {
  turn: readonly number[];
  shift: Point3;
}

export const AT_REST: Pose = { turn: [1, 0, 0, 0, 1, 0, 0, 0, 1], shift: [0, 0, 0] };

export const turned = ({ turn: m }: Pose, v: Point3): Point3 =>
  point3(i => m[3 * i]! * v[0] + m[3 * i + 1]! * v[1] + m[3 * i + 2]! * v[2]);

export const posed = (pose: Pose, p: Point3): Point3 => moved(turned(pose, p), pose.shift);

/** First `b`, then `a`. */
export function composed(a: Pose, b: Pose): Pose {
  const column = (j: 0 | 1 | 2): Point3 =>
    turned(
      a,
      point3(i => b.turn[3 * i + j]!),
    );
  const columns = [column(0), column(1), column(2)];
  const turn = Array.from({ length: 9 }, (_, k) => columns[k % 3]![Math.floor(k / 3) as 0 | 1 | 2]);
  return { turn, shift: posed(a, b.shift) };
}

export function backwards({ turn: m, shift }: Pose): Pose {
  const turn = Array.from({ length: 9 }, (_, k) => m[3 * (k % 3) + Math.floor(k / 3)]!);
  const back = turned({ turn, shift }, shift);
  return { turn, shift: [-back[0], -back[1], -back[2]] };
}

/** Degrees between two turns. */
export function degreesBetween(a: Pose, b: Pose): number {
  const trace = a.turn.reduce((sum, x, i) => sum + x * b.turn[i]!, 0);
  return (Math.acos(Math.max(-1, Math.min(1, (trace - 1) / 2))) * 180) / Math.PI;
}

/** Turned about an axis through the origin by radians (Rodrigues). */
export function turnAbout(omega: Point3): number[] {
  const angle = Math.hypot(...omega);
  if (angle < 1e-12) return [...AT_REST.turn];
  const [x, y, z] = point3(i => omega[i] / angle);
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const t = 1 - c;
  return [
    t * x * x + c,
    t * x * y - s * z,
    t * x * z + s * y,
    t * x * y + s * z,
    t * y * y + c,
    t * y * z - s * x,
    t * x * z - s * y,
    t * y * z + s * x,
    t * z * z + c,
  ];
}

/** The rotation that takes one unit vector onto another, and a second one as near as possible. */
export function turnOnto(from: { z: Point3; x: Point3 }, to: { z: Point3; x: Point3 }): number[] {
  const frame = ({ z, x }: { z: Point3; x: Point3 }) => {
    const flat = moved(x, z, -dot(x, z));
    const long = Math.hypot(...flat) || 1;
    const u = point3(i => flat[i] / long);
    return [u, cross(z, u), z] as const;
  };
  const [f, t] = [frame(from), frame(to)];
  return Array.from({ length: 9 }, (_, k) => {
    const [i, j] = [Math.floor(k / 3) as 0 | 1 | 2, (k % 3) as 0 | 1 | 2];
    return t[0][i] * f[0][j] + t[1][i] * f[1][j] + t[2][i] * f[2][j];
  });
}

/**
 * The pose that takes points onto their partners by least squares (Horn 1987). @param pairs at least three, not on one
 * line
 */
export function poseOfPairs(pairs: readonly (readonly [to: Point3, from: Point3])[]): Pose {
  const mean = (k: 0 | 1) => point3(i => pairs.reduce((sum, p) => sum + p[k][i], 0) / pairs.length);
  const [to, from] = [mean(0), mean(1)];
  const s = (i: 0 | 1 | 2, j: 0 | 1 | 2) =>
    pairs.reduce((sum, [q, p]) => sum + (p[i] - from[i]) * (q[j] - to[j]), 0);
  const [xx, xy, xz] = [s(0, 0), s(0, 1), s(0, 2)];
  const [yx, yy, yz] = [s(1, 0), s(1, 1), s(1, 2)];
  const [zx, zy, zz] = [s(2, 0), s(2, 1), s(2, 2)];
  const n = [
    [xx + yy + zz, yz - zy, zx - xz, xy - yx],
    [yz - zy, xx - yy - zz, xy + yx, zx + xz],
    [zx - xz, xy + yx, yy - xx - zz, yz + zy],
    [xy - yx, zx + xz, yz + zy, zz - xx - yy],
  ];
  const { eigenvectors } = eigs(n) as { eigenvectors: { value: number; vector: number[] }[] };
  const largest = [...eigenvectors].sort((a, b) => b.value - a.value)[0]!.vector;
  const long = Math.hypot(...largest);
  const [w, x, y, z] = largest.map(q => q / long) as [number, number, number, number];
  const turn = [
    w * w + x * x - y * y - z * z,
    2 * (x * y - w * z),
    2 * (x * z + w * y),
    2 * (x * y + w * z),
    w * w - x * x + y * y - z * z,
    2 * (y * z - w * x),
    2 * (x * z - w * y),
    2 * (y * z + w * x),
    w * w - x * x - y * y + z * z,
  ];
  const shift = moved(to, turned({ turn, shift: [0, 0, 0] }, from), -1);
  return { turn, shift };
}

/** A pose turned about a place by radians, and shifted. */
export function nudgedAbout(pose: Pose, about: Point3, omega: Point3, shift: Point3): Pose {
  const spin: Pose = { turn: turnAbout(omega), shift: [0, 0, 0] };
  const back = turned(spin, about);
  return composed({ turn: spin.turn, shift: point3(i => about[i] - back[i] + shift[i]) }, pose);
}
