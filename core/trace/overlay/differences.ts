import { type Curve, lengthOfCurve, pointAt } from '../../shape/curve';
import type { Point2 } from '../../shape/vector';
import type { Doubt, Outlines, Sized } from '../doubt';
import { circleOf } from '../outline';
import type { Picked } from '../sizes';
import {
  backBy,
  farOf,
  type LaidSide,
  laidBy,
  laidOn,
  type Nudge,
  nudged,
  type Pose2,
  settled,
  sizeOf,
} from './laid-on';
import type { Rings, Side } from './sides';

/**
 * Differences between a traced outline and a part. Lengths mm; above 0 the photographed thing has more material than
 * the part.
 */

/** One side, rounding or circle of the outline, against the nearest line of the part. */
export interface PieceOff extends Picked {
  /** On average along it, with its ± of 95 %; null where the part has no line near it. */
  off: Sized | null;
  /** The largest difference, of either sign; 0 where there is none. */
  most: number;
}

/** A short piece of the outline. */
export interface Spot {
  from: Point2;
  to: Point2;
  /** NaN where the part has no line near it. */
  off: number;
}

export interface Laid {
  side: Side;
  pose: Pose2;
  /** The part's lines, placed on the traced outline. */
  rings: Rings;
  pieces: PieceOff[];
  /** Differences along the whole outline, for display. */
  spots: Spot[];
  /** Share of the traced outline with a line of the part near it. */
  overlap: number;
  /** Average over that share, with its ± of 95 %. */
  mean: Sized | null;
  /** Openings of the part that the photo does not show: their centres and sizes. */
  missing: { at: Point2; width: number }[];
}

/** Sampling of the outline, mm, and the fewest samples of a piece. */
const [STEP, LEAST] = [0.7, 7];
/** A piece's ends are rounded over: this share of it is left out of its average. */
const END = 0.08;
/** After a small change, alignment takes this many rounds. */
const AGAIN = 6;

export interface LaidHow {
  /** Left out, the best fitting side. */
  side?: Side;
  /** Left out, the best fit. */
  nudge?: Nudge;
}

/** @returns null where the part has no outline */
export function differences(
  doubt: Doubt,
  shadows: Record<Side, Rings>,
  { side, nudge }: LaidHow = {},
): Laid | null {
  const found = laidOn(placesOn(doubt.outlines), shadows, side ? [side] : undefined);
  if (!found) return null;
  const { on, pose } = found;
  return nudge
    ? laidAt(doubt, on, nudged(pose, nudge, middleOf(on.rings)), false)
    : laidAt(doubt, on, pose, true);
}

/** @param fits whether it is placed by the best fit, and so would move with another outline */
function laidAt(doubt: Doubt, on: LaidSide, pose: Pose2, fits: boolean): Laid {
  const { outlines } = doubt;
  const picked = piecesOf(outlines);
  const far = farOf(sizeOf(placesOn(outlines).flat()));
  const offAt = (p: Point2): number | null => {
    const near = on.index.nearest(p);
    return near && near.distance <= far ? (on.index.holds(p) ? -1 : 1) * near.distance : null;
  };
  const average = (offs: readonly (number | null)[]): number | null => {
    const known = offs.filter(o => o !== null);
    return known.length < offs.length / 2 || known.length === 0
      ? null
      : known.reduce((s, o) => s + o, 0) / known.length;
  };
  const sized = doubt.ofAll(moved => {
    // Whatever its uncertainty moves is aligned differently too.
    const again = moved === outlines || !fits ? pose : settled(placesOn(moved).flat(), on.index, pose, AGAIN);
    const lay = laidBy(again);
    const offs = picked.map(piece => alongPiece(moved, piece, END).map(p => offAt(lay(p))));
    return [average(offs.flat()), ...offs.map(average)];
  });
  const lay = laidBy(pose);
  const pieces = picked.map((piece, i): PieceOff => {
    const offs = alongPiece(outlines, piece, 0).map(p => offAt(lay(p)) ?? 0);
    const most = offs.reduce((worst, off) => (Math.abs(off) > Math.abs(worst) ? off : worst), 0);
    return { ...piece, off: sized[i + 1] ?? null, most };
  });
  const spots = picked.flatMap(piece => {
    const places = alongPiece(outlines, piece, 0);
    return places.slice(1).map((to, k): Spot => {
      const from = places[k]!;
      const off = offAt(lay([(from[0] + to[0]) / 2, (from[1] + to[1]) / 2]));
      return { from, to, off: off ?? Number.NaN };
    });
  });
  const back = backBy(pose);
  const rings = on.rings.map(ring => ring.map(back));
  return {
    side: on.side,
    pose,
    rings,
    pieces,
    spots,
    overlap: spots.filter(s => !Number.isNaN(s.off)).length / Math.max(1, spots.length),
    mean: sized[0] ?? null,
    missing: missingOf(rings, outlines, far),
  };
}

function middleOf(rings: Rings): Point2 {
  const all = rings.flat();
  const middle = (k: 0 | 1) => (Math.min(...all.map(p => p[k])) + Math.max(...all.map(p => p[k]))) / 2;
  return [middle(0), middle(1)];
}

/** Rings of the part without any traced line near them. */
function missingOf(rings: Rings, outlines: Outlines, far: number): Laid['missing'] {
  const traced = placesOn(outlines).flat();
  return rings.flatMap(ring => {
    const near = (p: Point2) => traced.some(q => Math.hypot(p[0] - q[0], p[1] - q[1]) <= far);
    if (ring.length === 0 || ring.filter(near).length > ring.length / 2) return [];
    const [xs, ys] = [ring.map(p => p[0]), ring.map(p => p[1])];
    const at = middleOf([ring]);
    return [{ at, width: Math.min(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)) }];
  });
}

const piecesOf = (outlines: Outlines): Picked[] =>
  outlines.flatMap((curves, loop): Picked[] =>
    circleOf(curves) ? [{ loop, piece: null }] : curves.map((_, piece) => ({ loop, piece })),
  );

/** Places along every line. */
const placesOn = (outlines: Outlines): Point2[][] =>
  outlines.map(curves => curves.flatMap(c => along(c, 0).slice(1)));

const alongPiece = (outlines: Outlines, { loop, piece }: Picked, end: number): Point2[] => {
  const curves = outlines[loop] ?? [];
  if (piece === null) return curves.flatMap(c => along(c, 0));
  const curve = curves[piece];
  return curve ? along(curve, end) : [];
};

function along(curve: Curve, end: number): Point2[] {
  const count = Math.max(LEAST, Math.ceil(lengthOfCurve(curve) / STEP));
  return Array.from({ length: count + 1 }, (_, i) => pointAt(curve, end + ((1 - 2 * end) * i) / count));
}
