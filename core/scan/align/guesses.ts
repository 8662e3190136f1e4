import type { Point3 } from '../../shape/vector';
import { basisOf, dot, point3 } from '../../shape/vector';
import type { Cloud } from './closest';
import { degreesBetween, type Pose, posed, turnOnto } from './pose';

/**
 * Poses in which one surface may match another, by votes of pairs of points (point pair features; Drost, Ulrich, Navab
 * and Ilic, “Model globally, match locally”, 2010). Nothing need be known about how the two lie. Lengths mm.
 */

/** Steps of the angles, degrees, and the number of turns about a normal into which votes are sorted. */
const ANGLE = 12;
const ANGLES = 180 / ANGLE;
const TURNS = 30;
/** Points of the moving surface that vote, and how many of each one's best votes are kept. */
const [VOTERS, KEPT] = [90, 3];
/** Pairs that are all alike (on one flat) tell little: of more than this many, only some vote. */
const MOST_ALIKE = 400;
/** Poses nearer than this are one: degrees, and as a share of the size. */
const [ONE_TURN, ONE_SHIFT] = [14, 0.06];

export interface Guess {
  pose: Pose;
  votes: number;
}

/** @param step spacing of the clouds' points, mm @param size of the larger one, mm */
export function guesses(fixed: Cloud, moving: Cloud, step: number, size: number): Guess[] {
  const table = tableOf(fixed, step, size);
  const n = fixed.points.length / 3;
  const m = moving.points.length / 3;
  const votes = new Float32Array(n * TURNS);
  const found: Guess[] = [];
  const every = Math.max(1, Math.floor(m / VOTERS));
  const pair = new Float64Array(2);
  for (let r = 0; r < m; r += every) {
    votes.fill(0);
    for (let o = 0; o < m; o++) {
      if (o === r || !featureOf(moving, r, o, step, table.distances, pair)) continue;
      const from = table.first[pair[0]!]!;
      const many = table.first[pair[0]! + 1]! - from;
      if (many === 0) continue;
      const stride = Math.max(1, Math.floor(many / MOST_ALIKE));
      // Rare pairs tell more.
      const weight = stride / Math.sqrt(many);
      for (let k = 0; k < many; k += stride) {
        const turn = pair[1]! - table.turns[from + k]!;
        const bin = Math.floor(((turn / (2 * Math.PI) + 2) % 1) * TURNS) % TURNS;
        votes[table.of[from + k]! * TURNS + bin]! += weight;
      }
    }
    for (const at of topOf(votes, KEPT)) {
      const [f, bin] = [Math.floor(at / TURNS), at % TURNS];
      const turn = ((bin + 0.5) / TURNS) * 2 * Math.PI;
      found.push({ pose: poseFrom(fixed, f, moving, r, turn), votes: votes[at]! });
    }
  }
  return clustered(found, size, middleOfCloud(moving));
}

interface Table {
  first: Uint32Array;
  of: Uint32Array;
  turns: Float32Array;
  distances: number;
}

function tableOf(cloud: Cloud, step: number, size: number): Table {
  const n = cloud.points.length / 3;
  const distances = Math.ceil(size / step) + 2;
  const first = new Uint32Array(distances * ANGLES ** 3 + 1);
  const pair = new Float64Array(2);
  const each = (visit: (i: number) => void) => {
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++) if (i !== j && featureOf(cloud, i, j, step, distances, pair)) visit(i);
  };
  each(() => first[pair[0]! + 1]!++);
  for (let k = 1; k < first.length; k++) first[k]! += first[k - 1]!;
  const next = first.slice();
  const of = new Uint32Array(first.at(-1)!);
  const turns = new Float32Array(of.length);
  each(i => {
    const at = next[pair[0]!]!++;
    of[at] = i;
    turns[at] = pair[1]!;
  });
  return { first, of, turns, distances };
}

/**
 * Writes a pair's key, and the turn of the second about the first's normal. @returns false where the pair tells nothing
 */
function featureOf(
  { points: p, normals: n }: Cloud,
  i: number,
  j: number,
  step: number,
  distances: number,
  out: Float64Array,
): boolean {
  const [dx, dy, dz] = [p[3 * j]! - p[3 * i]!, p[3 * j + 1]! - p[3 * i + 1]!, p[3 * j + 2]! - p[3 * i + 2]!];
  const far = Math.sqrt(dx * dx + dy * dy + dz * dz);
  const d = Math.floor(far / step);
  if (d < 1 || d >= distances) return false;
  const [ax, ay, az] = [n[3 * i]!, n[3 * i + 1]!, n[3 * i + 2]!];
  const [bx, by, bz] = [n[3 * j]!, n[3 * j + 1]!, n[3 * j + 2]!];
  const own = (ax * dx + ay * dy + az * dz) / far;
  const a = binOf(own);
  const b = binOf((bx * dx + by * dy + bz * dz) / far);
  const c = binOf(ax * bx + ay * by + az * bz);
  out[0] = ((d * ANGLES + a) * ANGLES + b) * ANGLES + c;
  const { x, y } = basisOf([ax, ay, az]);
  out[1] = Math.atan2(dx * y[0] + dy * y[1] + dz * y[2], dx * x[0] + dy * x[1] + dz * x[2]);
  return true;
}

const binOf = (cosine: number) =>
  Math.min(ANGLES - 1, Math.floor((Math.acos(Math.max(-1, Math.min(1, cosine))) * 180) / Math.PI / ANGLE));

function topOf(votes: Float32Array, count: number): number[] {
  const best: number[] = [];
  for (let i = 0; i < votes.length; i++) {
    if (votes[i]! <= 0 || (best.length === count && votes[i]! <= votes[best[count - 1]!]!)) continue;
    best.push(i);
    best.sort((a, b) => votes[b]! - votes[a]!);
    if (best.length > count) best.pop();
  }
  return best;
}

const at = (from: ArrayLike<number>, i: number): Point3 => [from[3 * i]!, from[3 * i + 1]!, from[3 * i + 2]!];

/** Point onto point, normal onto normal, and turned about it by the angle. */
function poseFrom(fixed: Cloud, f: number, moving: Cloud, r: number, turn: number): Pose {
  const [to, from] = [at(fixed.normals, f), at(moving.normals, r)];
  const { x } = basisOf(from);
  // The moving pair was turned `turn` farther than the fixed one.
  const { x: u, y: v } = basisOf(to);
  const onto = point3(i => Math.cos(-turn) * u[i] + Math.sin(-turn) * v[i]);
  const spun = turnOnto({ z: from, x }, { z: to, x: onto });
  const pose: Pose = { turn: spun, shift: [0, 0, 0] };
  const put = posed(pose, at(moving.points, r));
  const q = at(fixed.points, f);
  return { turn: spun, shift: point3(i => q[i] - put[i]) };
}

function clustered(found: Guess[], size: number, middle: Point3): Guess[] {
  const groups: Guess[] = [];
  for (const g of found.sort((a, b) => b.votes - a.votes)) {
    const place = posed(g.pose, middle);
    const same = groups.find(
      o =>
        degreesBetween(o.pose, g.pose) < ONE_TURN &&
        Math.hypot(...point3(i => posed(o.pose, middle)[i] - place[i])) < ONE_SHIFT * size,
    );
    if (same) same.votes += g.votes;
    else groups.push({ ...g });
  }
  return groups.sort((a, b) => b.votes - a.votes);
}

export function middleOfCloud({ points: p }: Cloud): Point3 {
  const sum: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < p.length; i++) sum[i % 3]! += p[i]!;
  return point3(i => (3 * sum[i]) / p.length);
}

/** How widely two clouds spread around their centres, mm: for steps that suit both. */
export function spreadOf(cloud: Cloud): number {
  const middle = middleOfCloud(cloud);
  let most = 0;
  for (let i = 0; i < cloud.points.length; i += 3) {
    const off = point3(k => cloud.points[i + k]! - middle[k]);
    most = Math.max(most, dot(off, off));
  }
  return 2 * Math.sqrt(most);
}
