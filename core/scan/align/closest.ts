import { solved } from '../../quantity/linear';
import type { Point3 } from '../../shape/vector';
import { NearestPoints } from '../nearest';
import { composed, type Pose, turnAbout } from './pose';

/**
 * Iterated closest points (Besl and McKay 1992), to the planes of the fixed surface (Chen and Medioni 1991), without
 * the worst pairs. Lengths mm.
 */

export interface Cloud {
  /** x, y, z each. */
  points: ArrayLike<number>;
  /** Unit vectors. */
  normals: ArrayLike<number>;
}

/** The cloud that others are aligned with. */
export class Target {
  readonly tree: NearestPoints;
  constructor(readonly cloud: Cloud) {
    this.tree = new NearestPoints(cloud.points);
  }
}

export interface Pairing {
  /** Distances to the plane of the nearest point, for the pairs kept. */
  offs: number[];
  /** The number of moving points that were tested. */
  asked: number;
}

/** The normals of a pair agree within 45°. */
const SAME_WAY = Math.SQRT1_2;

/**
 * @param most points farther apart are not a pair, mm @param visit called for each pair: point, normal, distance to its
 * plane
 */
function paired(
  target: Target,
  moving: Cloud,
  { turn: m, shift }: Pose,
  most: number,
  visit: (p: Point3, n: Point3, off: number) => void,
): void {
  const { points: q, normals: n } = target.cloud;
  const { points: p, normals: k } = moving;
  for (let i = 0; i < p.length; i += 3) {
    const [a, b, c] = [p[i]!, p[i + 1]!, p[i + 2]!];
    const x = m[0]! * a + m[1]! * b + m[2]! * c + shift[0];
    const y = m[3]! * a + m[4]! * b + m[5]! * c + shift[1];
    const z = m[6]! * a + m[7]! * b + m[8]! * c + shift[2];
    const at = target.tree.nearest(x, y, z, most);
    if (at < 0) continue;
    const [nx, ny, nz] = [n[3 * at]!, n[3 * at + 1]!, n[3 * at + 2]!];
    const [d, e, f] = [k[i]!, k[i + 1]!, k[i + 2]!];
    const alike =
      nx * (m[0]! * d + m[1]! * e + m[2]! * f) +
      ny * (m[3]! * d + m[4]! * e + m[5]! * f) +
      nz * (m[6]! * d + m[7]! * e + m[8]! * f);
    if (alike < SAME_WAY) continue;
    const off = nx * (x - q[3 * at]!) + ny * (y - q[3 * at + 1]!) + nz * (z - q[3 * at + 2]!);
    visit([x, y, z], [nx, ny, nz], off);
  }
}

export function pairingOf(target: Target, moving: Cloud, pose: Pose, most: number): Pairing {
  const offs: number[] = [];
  paired(target, moving, pose, most, (_p, _n, off) => offs.push(off));
  return { offs, asked: moving.points.length / 3 };
}

/** Fewest pairs that determine a pose. */
const FEWEST = 12;

/** One step. @param about a point near the middle, which turns least */
function stepped(
  target: Target,
  moving: Cloud,
  pose: Pose,
  most: number,
  least: number,
): { pose: Pose; by: number } | null {
  const pairs: { p: Point3; n: Point3; off: number }[] = [];
  paired(target, moving, pose, most, (p, n, off) => pairs.push({ p, n, off }));
  if (pairs.length < FEWEST) return null;
  const sizes = Float64Array.from(pairs, x => Math.abs(x.off)).sort();
  // Three times the median: pairs farther apart belong to what the other scan did not see. But where most pairs agree,
  // the few that do not may be all that determines the pose: a key on a round tube.
  // little that does not may be all that holds it: a key on a round tube.
  const limit = Math.max(least, 4.4 * sizes[sizes.length >> 1]!);
  const mid = [0, 1, 2].map(i => pairs.reduce((s, x) => s + x.p[i as 0]!, 0) / pairs.length);
  const a = Array.from({ length: 6 }, () => new Array<number>(6).fill(0));
  const b = new Array<number>(6).fill(0);
  const row = new Float64Array(6);
  for (const { p, n, off } of pairs) {
    if (Math.abs(off) > limit) continue;
    const [x, y, z] = [p[0] - mid[0]!, p[1] - mid[1]!, p[2] - mid[2]!];
    row.set([y * n[2] - z * n[1], z * n[0] - x * n[2], x * n[1] - y * n[0], n[0], n[1], n[2]]);
    for (let j = 0; j < 6; j++) {
      b[j]! -= row[j]! * off;
      for (let k = 0; k < 6; k++) a[j]![k]! += row[j]! * row[k]!;
    }
  }
  // What no pair determines (a ball turns, a plane slides) stays where it is.
  const stiff = a.reduce((sum, r, i) => sum + r[i]!, 0);
  for (let j = 0; j < 6; j++) a[j]![j]! += 1e-7 * stiff + 1e-12;
  const found = solved(a, b);
  if (!found) return null;
  const by = found as [number, number, number, number, number, number];
  const turn = turnAbout([by[0], by[1], by[2]]);
  const spun = [0, 1, 2].map(
    i =>
      mid[i]! -
      (turn[3 * i]! * mid[0]! + turn[3 * i + 1]! * mid[1]! + turn[3 * i + 2]! * mid[2]!) +
      by[i + 3]!,
  );
  const next = composed({ turn, shift: [spun[0]!, spun[1]!, spun[2]!] }, pose);
  return { pose: next, by: Math.hypot(...by) };
}

/**
 * @param bounds the largest distance of a pair, round by round; the last one is used until nothing moves
 * @param least pairs this near always count, mm
 */
export function settledPose(
  target: Target,
  moving: Cloud,
  start: Pose,
  bounds: readonly number[],
  rounds: number,
  least: number,
): Pose | null {
  let pose = start;
  for (let round = 0; round < rounds; round++) {
    const step = stepped(target, moving, pose, bounds[Math.min(round, bounds.length - 1)]!, least);
    if (!step) return null;
    pose = step.pose;
    if (round >= bounds.length && step.by < 1e-5) break;
  }
  return pose;
}
