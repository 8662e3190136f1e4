import { polygonArea, polygonCentroid } from 'd3-polygon';
import { Matrix, solve } from 'ml-matrix';
import type { Point2 } from '../../shape/vector';
import { RingIndex } from './ring-index';
import { type Rings, SIDES, type Side } from './sides';

/** A rotation by radians about the origin, then a shift: from the traced outline onto the part. */
export interface Pose2 {
  turn: number;
  x: number;
  y: number;
}

export const laidBy =
  ({ turn, x, y }: Pose2) =>
  ([px, py]: Point2): Point2 => [
    Math.cos(turn) * px - Math.sin(turn) * py + x,
    Math.sin(turn) * px + Math.cos(turn) * py + y,
  ];

/** The inverse: from the part to the traced outline. */
export const backBy =
  ({ turn, x, y }: Pose2) =>
  ([px, py]: Point2): Point2 => [
    Math.cos(turn) * (px - x) + Math.sin(turn) * (py - y),
    -Math.sin(turn) * (px - x) + Math.cos(turn) * (py - y),
  ];

/** The part moved over the picture by hand: across, up, and rotated by degrees about one of its places. */
export interface Nudge {
  across: number;
  up: number;
  turn: number;
}

export function nudged(pose: Pose2, { across, up, turn }: Nudge, about: Point2): Pose2 {
  // Moving the part one way over the outline means moving the outline the other way over the part.
  const by = (-turn * Math.PI) / 180;
  const shifted = { ...pose, x: 0, y: 0 };
  const [dx, dy] = laidBy(shifted)([-across, -up]);
  return turnedAbout({ ...pose, x: pose.x + dx, y: pose.y + dy }, about, by, [0, 0]);
}

/** A part from one of its sides, ready for alignment. */
export interface LaidSide {
  side: Side;
  rings: Rings;
  index: RingIndex;
}

/** Number of angles that are tried, and of traced places that are compared for each. */
const [TURNS, ROUGH] = [72, 90];
/** How many of those are refined. */
const FOLLOWED = 3;
/** A place farther off than this share of its size has no counterpart and does not count. */
const FAR = 0.06;
const ROUNDS = 40;
/** Smaller moves count as none, mm. */
const STILL = 1e-5;

export const sizeOf = (points: readonly Point2[]): number => {
  const extent = (k: 0 | 1) => Math.max(...points.map(p => p[k])) - Math.min(...points.map(p => p[k]));
  return Math.hypot(extent(0), extent(1));
};

/** How far off a place may be and still have a counterpart, mm. @param size of the whole */
export const farOf = (size: number): number => Math.max(1, FAR * size);

/**
 * Aligns a traced outline with the side of a part that it fits best, in any orientation: rotations about the centres of
 * both are tried, and the best ones refined by least squares of the distances, without far ones.
 * @param traced places along all its lines, the outer one first
 * @returns null where the part has no outline
 */
export function laidOn(
  traced: readonly (readonly Point2[])[],
  shadows: Record<Side, Rings>,
  sides: readonly Side[] = SIDES,
): { on: LaidSide; pose: Pose2 } | null {
  const all = traced.flat();
  const every = Math.max(1, Math.floor(all.length / ROUGH));
  const some = all.filter((_, i) => i % every === 0);
  let best: { on: LaidSide; pose: Pose2; cost: number } | null = null;
  for (const side of sides) {
    const on: LaidSide = { side, rings: shadows[side], index: new RingIndex(shadows[side]) };
    for (const start of startsOn(traced, some, on)) {
      const pose = settled(some, on.index, start);
      const cost = costOf(some, on.index, pose);
      // Where two sides are equal to the micron, the first of them is taken.
      if (!best || cost < 0.999 * best.cost - 1e-6) best = { on, pose, cost };
    }
  }
  return best && { on: best.on, pose: settled(all, best.on.index, best.pose) };
}

/** @param some an even selection of the traced places */
function startsOn(
  traced: readonly (readonly Point2[])[],
  some: readonly Point2[],
  { rings, index }: LaidSide,
): Pose2[] {
  const [outer] = traced;
  const around = outerOf(rings);
  if (!outer || !around) return [];
  const [from, to] = [middleOf(outer), middleOf(around)];
  const tried = Array.from({ length: TURNS }, (_, k) => {
    const turn = (2 * Math.PI * k) / TURNS;
    const [x, y] = laidBy({ turn, x: 0, y: 0 })(from);
    const pose = { turn, x: to[0] - x, y: to[1] - y };
    return { pose, cost: costOf(some, index, pose) };
  });
  // Only local minima are refined: their neighbours lead to the same place.
  const dips = tried.filter(
    ({ cost }, k) => cost <= tried[(k + 1) % TURNS]!.cost && cost <= tried[(k + TURNS - 1) % TURNS]!.cost,
  );
  return dips
    .toSorted((a, b) => a.cost - b.cost)
    .slice(0, FOLLOWED)
    .map(t => t.pose);
}

/** The ring that surrounds all others. */
const outerOf = (rings: Rings): readonly Point2[] | undefined =>
  rings.toSorted((a, b) => areaOf(b) - areaOf(a))[0];
const areaOf = (ring: readonly Point2[]) =>
  Math.abs(polygonArea(ring.map(([x, y]): [number, number] => [x, y])));
const middleOf = (ring: readonly Point2[]): Point2 =>
  polygonCentroid(ring.map(([x, y]): [number, number] => [x, y]));

/** Mean of the squared distances, each limited to the bound. */
function costOf(places: readonly Point2[], index: RingIndex, pose: Pose2): number {
  const far = farOf(sizeOf(places));
  const lay = laidBy(pose);
  let sum = 0;
  for (const p of places) sum += Math.min(far, index.nearest(lay(p))?.distance ?? far) ** 2;
  return sum / Math.max(1, places.length);
}

/** Refined by least squares of the distances (Gauss and Newton), from a nearby pose. */
export function settled(places: readonly Point2[], index: RingIndex, start: Pose2, rounds = ROUNDS): Pose2 {
  const far = farOf(sizeOf(places));
  let pose = start;
  for (let round = 0; round < rounds; round++) {
    const normal = Matrix.zeros(3, 3);
    const right = Matrix.zeros(3, 1);
    const lay = laidBy(pose);
    const [mx, my] = lay(meanOf(places));
    for (const place of places) {
      const p = lay(place);
      const near = index.nearest(p);
      if (!near || near.distance > far || near.distance < 1e-9) continue;
      const [nx, ny] = [(p[0] - near.at[0]) / near.distance, (p[1] - near.at[1]) / near.distance];
      // How a small rotation about the centre and a small shift change the distance.
      const row = [nx * -(p[1] - my) + ny * (p[0] - mx), nx, ny];
      for (let i = 0; i < 3; i++) {
        right.set(i, 0, right.get(i, 0) - row[i]! * near.distance);
        for (let j = 0; j < 3; j++) normal.set(i, j, normal.get(i, j) + row[i]! * row[j]!);
      }
    }
    // A disc can rotate freely: a small term keeps it where it is.
    for (let i = 0; i < 3; i++) normal.set(i, i, normal.get(i, i) * (1 + 1e-9) + 1e-9);
    const [turn = 0, x = 0, y = 0] = solve(normal, right).to1DArray();
    pose = turnedAbout(pose, [mx, my], turn, [x, y]);
    if (Math.hypot(x, y) + Math.abs(turn) * far < STILL) break;
  }
  return pose;
}

function turnedAbout({ turn, x, y }: Pose2, [mx, my]: Point2, by: number, [dx, dy]: Point2): Pose2 {
  const [c, s] = [Math.cos(by), Math.sin(by)];
  return {
    turn: turn + by,
    x: mx + c * (x - mx) - s * (y - my) + dx,
    y: my + s * (x - mx) + c * (y - my) + dy,
  };
}

const meanOf = (places: readonly Point2[]): Point2 => [
  places.reduce((s, p) => s + p[0], 0) / places.length,
  places.reduce((s, p) => s + p[1], 0) / places.length,
];
