import { type Point3, point3 } from '../../shape/vector';
import type { ScanSurface } from '../scan-surface';
import type { Surfels } from '../surfels';
import { type Cloud, pairingOf, settledPose, Target } from './closest';
import { type Guess, guesses, middleOfCloud, spreadOf } from './guesses';
import { degreesBetween, nudgedAbout, type Pose, posed, poseOfPairs } from './pose';

/**
 * Aligns one scan with another. Closest points alone cannot reveal a wrong answer, which fits equally well where it
 * fits. Poses are therefore judged by how much of the scan overlaps the other, and a pose is refused when another does
 * equally well. Lengths mm.
 */

export type Alignment =
  | { ok: true; pose: Pose; rms: number; overlap: number }
  | { ok: false; code: 'low-overlap' | 'ambiguous' | 'no-match' | 'pairs'; message: string };

/** Pairs this near always count, as a share of the best distance between the scans. */
const LEAST_SHARE = 0.6;
/** Number of points that are paired during the search, and at the end. */
const [FEW, MANY] = [700, 20_000];
/** Number of points of the clouds whose pairs vote. */
const VOTING = 750;
/** Number of guesses that are tried, and of those that are examined closely. */
const [TRIED, CLOSELY] = [40, 6];
/** A smaller overlap of the moving scan is chance. Tried on scans of known objects. */
const LEAST_OVERLAP = 0.3;
/** A pose that does as well as this, compared with the best, is another answer. */
const AS_GOOD = 0.93;
/** Poses farther apart are different ones: degrees, and as a share of the size. */
const [OTHER_TURN, OTHER_SHIFT] = [4, 0.02];

export interface AlignAsked {
  /** Places on the fixed scan and the same places on the moving one: a start where nothing else helps. */
  pairs?: readonly (readonly [fixed: Point3, moving: Point3])[] | null;
  /** Where to begin, instead of guessing. */
  starts?: readonly Pose[] | null;
  /** Of equally good poses any one will do: a symmetric thing looks the same in all of them. */
  anyOfEqual?: boolean;
}

export function aligned(
  fixed: ScanSurface,
  moving: ScanSurface,
  { pairs = null, starts: given = null, anyOfEqual = false }: AlignAsked = {},
): Alignment {
  const size = Math.max(
    spreadOf(cloudOf(fixed.surfels(0), VOTING)),
    spreadOf(cloudOf(moving.surfels(0), VOTING)),
  );
  const target = new Target(cloudOf(fixed.surfels(0), Infinity));
  const few = cloudOf(moving.surfels(0), FEW);
  const fuzz = Math.hypot(fixed.fuzz, moving.fuzz);
  const near = Math.max(4 * fuzz, 1.5 * fixed.surfels(0).cell);
  let starts: Guess[];
  if (pairs) {
    if (pairs.length < 3 || isOnALine(pairs.map(p => p[0])))
      return {
        ok: false,
        code: 'pairs',
        message: 'Three pairs at least, not all on one line: pick another place that both scans show.',
      };
    starts = [{ pose: poseOfPairs(pairs), votes: 1 }];
  } else starts = given?.map(pose => ({ pose, votes: 1 })) ?? guessed(fixed, moving, size);
  const middle = middleOfCloud(few);
  const tried = distinct(
    starts.slice(0, TRIED).flatMap(({ pose }) => {
      const found = settledPose(
        target,
        few,
        pose,
        [0.12 * size, 0.08 * size, 0.05 * size, 0.03 * size, 2 * near],
        12,
        LEAST_SHARE * near,
      );
      return found ? [{ pose: found, share: shareOn(target, few, found, near) }] : [];
    }),
    middle,
    size,
  );
  const best = distinct(
    tried.slice(0, CLOSELY).flatMap(({ pose }) => {
      const found = settledPose(target, few, pose, [2 * near, near], 25, LEAST_SHARE * near);
      return found ? [{ pose: found, share: shareOn(target, few, found, near) }] : [];
    }),
    middle,
    size,
  );
  const [first, second] = best;
  if (!first)
    return { ok: false, code: 'no-match', message: 'No place was found where the scans lie on each other.' };
  if (first.share < LEAST_OVERLAP)
    return {
      ok: false,
      code: 'low-overlap',
      message: `At best ${percent(first.share)} of the moving scan lies on the other: scan again so that both show more of the same, or pick three pairs of places.`,
    };
  if (second && !pairs && !anyOfEqual && second.share > AS_GOOD * first.share)
    return {
      ok: false,
      code: 'ambiguous',
      message: `The scans fit in two poses as well, ${degreesBetween(first.pose, second.pose).toFixed(0)}° apart (${percent(first.share)} and ${percent(second.share)} on each other): what they share looks the same from there. Pick three pairs of places that only fit one way.`,
    };
  return finished(target, fixed, moving, first.pose, near, anyOfEqual);
}

/** With all that was seen, as closely as possible. */
function finished(
  target: Target,
  fixed: ScanSurface,
  moving: ScanSurface,
  start: Pose,
  near: number,
  anyOfEqual: boolean,
): Alignment {
  const many = cloudOf(moving.surfels(0), MANY);
  const pose = settledPose(target, many, start, [near, near], 20, LEAST_SHARE * near) ?? start;
  if (!anyOfEqual && isLoose(target, many, pose, near))
    return {
      ok: false,
      code: 'ambiguous',
      message:
        'What the scans share can slide or turn along itself (a flat, a ball, a plain tube): their places on each other are not told. Scan more edges, or pick three pairs of places.',
    };
  const corners = cornersOf(moving, MANY);
  const { offs, asked } = pairingOf(target, corners, pose, near + fixed.spacing);
  const sizes = offs.map(Math.abs).sort((a, b) => a - b);
  const limit = 4.4 * (sizes[sizes.length >> 1] ?? 0);
  const kept = offs.filter(d => Math.abs(d) <= limit);
  const rms = Math.sqrt(kept.reduce((sum, d) => sum + d * d, 0) / kept.length);
  const overlap = offs.filter(d => Math.abs(d) <= 3 * rms).length / asked;
  return { ok: true, pose, rms, overlap };
}

function guessed(fixed: ScanSurface, moving: ScanSurface, size: number): Guess[] {
  let cell = size / 24;
  const level = () => [fixed.surfels(cell), moving.surfels(cell)] as const;
  while (Math.max(...level().map(s => s.count)) > 2 * VOTING && cell < size) cell *= 2;
  const [f, m] = level();
  const step = Math.max(f.cell, size / 40);
  return guesses(cloudOf(f, VOTING), cloudOf(m, VOTING), step, size);
}

/** The best of each distinct pose, the best first. */
function distinct(
  found: { pose: Pose; share: number }[],
  middle: Point3,
  size: number,
): { pose: Pose; share: number }[] {
  const kept: { pose: Pose; share: number }[] = [];
  for (const f of found.sort((a, b) => b.share - a.share)) {
    const isKnown = kept.some(
      k =>
        degreesBetween(k.pose, f.pose) < OTHER_TURN &&
        Math.hypot(...point3(i => posed(k.pose, middle)[i] - posed(f.pose, middle)[i])) < OTHER_SHIFT * size,
    );
    if (!isKnown) kept.push(f);
  }
  return kept;
}

function shareOn(target: Target, cloud: Cloud, pose: Pose, near: number): number {
  const { offs, asked } = pairingOf(target, cloud, pose, near);
  // Near to the plane as well as near: edges that only pass each other do not count.
  return offs.filter(d => Math.abs(d) < near / 2).length / asked;
}

/** Turned or shifted slightly and aligned again, a well-determined pose comes back. */
function isLoose(target: Target, cloud: Cloud, pose: Pose, near: number): boolean {
  const middle = middleOfCloud(cloud);
  const about = posed(pose, middle);
  const reach = spreadOf(cloud) / 2;
  const lean = (1.2 * near) / reach;
  const pushes: [Point3, Point3][] = [0, 1, 2].flatMap((i): [Point3, Point3][] => {
    const way = point3(k => (k === i ? 1 : 0));
    return [
      [[0, 0, 0], point3(k => 0.8 * near * way[k])],
      [point3(k => lean * way[k]), [0, 0, 0]],
    ];
  });
  return pushes.some(([omega, shift]) => {
    const pushed = nudgedAbout(pose, about, omega, shift);
    const back = settledPose(target, cloud, pushed, [1.6 * near, near], 25, LEAST_SHARE * near);
    if (!back) return false;
    const far = Math.hypot(...point3(k => posed(back, middle)[k] - about[k]));
    const turned = (degreesBetween(back, pose) * Math.PI * reach) / 180;
    return Math.max(far, turned) > 0.5 * near;
  });
}

const percent = (share: number) => `${(100 * share).toFixed(0)} %`;

function cloudOf(surfels: Surfels, most: number): Cloud {
  if (surfels.count <= most) return surfels;
  return picked(surfels.points, surfels.normals, surfels.count, most);
}

function cornersOf(scan: ScanSurface, most: number): Cloud {
  return picked(scan.mesh.positions, scan.normals, scan.corners, most);
}

function picked(points: ArrayLike<number>, normals: ArrayLike<number>, count: number, most: number): Cloud {
  const step = Math.max(1, count / most);
  const n = Math.floor(count / step);
  const pick = (from: ArrayLike<number>) =>
    Float64Array.from({ length: 3 * n }, (_, i) => from[3 * Math.floor(Math.floor(i / 3) * step) + (i % 3)]!);
  return { points: pick(points), normals: pick(normals) };
}

function isOnALine(points: readonly Point3[]): boolean {
  const [a] = points;
  const far = points.map(p => point3(i => p[i] - a![i])).sort((p, q) => Math.hypot(...q) - Math.hypot(...p));
  const way = far[0]!;
  const long = Math.hypot(...way);
  if (long < 1e-6) return true;
  return far.every(p => {
    const along = (p[0] * way[0] + p[1] * way[1] + p[2] * way[2]) / long;
    return Math.sqrt(Math.max(0, p[0] ** 2 + p[1] ** 2 + p[2] ** 2 - along ** 2)) < 0.05 * long;
  });
}
