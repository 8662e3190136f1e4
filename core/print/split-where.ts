import type { BuiltPart } from '../shape/built-part';
import type { Kernels } from '../shape/kernels/kernel';
import type { MateSurface } from '../shape/mates';
import { boundsOf } from '../shape/mesh/mesh';
import { sectionAcross } from '../shape/mesh/section';
import type { SolidSpec } from '../shape/solid-key';
import { dot, type Point3 } from '../shape/vector';
import { type Attempt, JOINTS, type Joint, rebuilt, splitAttempt } from './attempt';
import { bedFit, footprintOf } from './footprint';

/** Where a part that is too large for its bed is best cut in two, so that mates, loads and the joint suffer least. */

export interface SplitAsked {
  bed: { width: number; depth: number; height: number };
  /** The places with the highest stress: a cut keeps away from them. */
  weak: readonly Point3[];
}

/** Number of cuts tried along each axis. */
const PLACES = 23;
/** Nearer to an end than this share a cut gains nothing. */
const END = 0.06;
/** Only the best few are built. */
const MOST_BUILT = 9;
/** Penalties of a cut; the lower, the better. Common practice, no source. */
const AGAINST = { mate: 100, weak: 30, away: 15, thin: 20, loop: 4, uneven: 10 };

const AXES: readonly Point3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** The best cut whose pieces all fit on the bed; null where none of those tried does. */
export function splitFor(
  part: SolidSpec,
  { whole, surfaces, pieces }: Pick<BuiltPart, 'whole' | 'surfaces' | 'pieces'>,
  { bed, weak }: SplitAsked,
  kernels: Kernels,
): Attempt | null {
  if (pieces.length > 0) return null;
  const { min, max } = boundsOf(whole);
  const cuts = AXES.flatMap((axis, a) => {
    const long = max[a]! - min[a]!;
    const places = Array.from({ length: PLACES }, (_, i) => {
      const share = END + ((1 - 2 * END) * i) / (PLACES - 1);
      const at = min[a]! + share * long;
      const on: Point3 = [axis[0] * at, axis[1] * at, axis[2] * at];
      const { loops } = sectionAcross(whole, on, axis);
      const area = loops.reduce((sum, l) => sum + l.area, 0);
      return { axis: a as 0 | 1 | 2, at, share, area, loops: loops.length };
    });
    const largest = Math.max(...places.map(p => p.area));
    return places.map(place => {
      const hurt = surfaces.filter(s => goesThrough(s, axis, place.at)).length;
      const near = weak.some(w => Math.abs(dot(w, axis) - place.at) < AGAINST.away);
      const against =
        AGAINST.mate * hurt +
        (near ? AGAINST.weak : 0) +
        AGAINST.thin * (1 - place.area / largest) +
        AGAINST.loop * place.loops +
        AGAINST.uneven * Math.abs(2 * place.share - 1);
      return { ...place, against };
    });
  });
  cuts.sort((a, b) => a.against - b.against);
  /** By axis: a half of this length did not fit. */
  const tooLong = new Map<number, number>();
  let built = 0;
  for (const { axis, at } of cuts) {
    const longer = Math.max(at - min[axis], max[axis] - at);
    if (built >= MOST_BUILT || longer >= (tooLong.get(axis) ?? Infinity)) continue;
    if (!halvesMayFit(min, max, axis, at, bed)) continue;
    built++;
    for (const joint of Object.keys(JOINTS) as Joint[]) {
      const attempt = splitAttempt(axis, at, joint, part);
      // Where every cut goes through a surface, the least bad one is better than none, and the checks say so.
      const made = rebuilt(part, attempt, kernels, ['cut-through-mate']);
      if (!made) continue;
      const fits = made.pieces.every(
        ({ mesh }) => bedFit(footprintOf(mesh), bed).fits && boundsOf(mesh).max[2] <= bed.height,
      );
      if (fits) return { ...attempt, label: `Split it ${wordsFor(axis, at)}, ${JOINTS[joint].words}` };
      tooLong.set(axis, longer);
      break;
    }
  }
  return null;
}

const wordsFor = (axis: number, at: number): string =>
  `${['upright, into left and right', 'upright, into front and back', 'level'][axis]} at ${at.toFixed(0)} mm`;

/** Whether a cut goes through a surface that must fit. */
function goesThrough({ axis, at, from, to, size }: MateSurface, across: Point3, where: number): boolean {
  const along = dot(axis, across);
  const wide = (size / 2) * Math.sqrt(Math.max(0, 1 - along * along));
  const ends = [from, to].map(t => dot(at, across) + (t - dot(at, axis)) * along);
  return where > Math.min(...ends) - wide && where < Math.max(...ends) + wide;
}

/** Whether the boxes of both halves could fit on the bed in any orientation: otherwise it is not worth building. */
function halvesMayFit(
  min: readonly number[],
  max: readonly number[],
  axis: number,
  at: number,
  { width, depth, height }: SplitAsked['bed'],
): boolean {
  const room = [width, depth, height].sort((a, b) => a - b);
  // Diagonally slightly more fits on the bed.
  const most = Math.max(Math.hypot(width, depth), height);
  return [at - min[axis]!, max[axis]! - at].every(half => {
    const box = [0, 1, 2].map(i => (i === axis ? half : max[i]! - min[i]!)).sort((a, b) => a - b);
    return box[0]! <= room[0]! && box[1]! <= room[1]! * Math.SQRT2 && box[2]! <= most;
  });
}
