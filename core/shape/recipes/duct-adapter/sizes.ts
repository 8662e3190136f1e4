import type { Outline } from '../../kernels/kernel';
import { offsetOutline } from '../../offset';
import { circleLikeRectangle, roundedRectangle, shifted, widestStep } from '../../section';
import type { Point2 } from '../../vector';
import type { End, Fit, Measure, P } from './parameters';

/**
 * From one section to another: round or a rounded rectangle at each end, over or into an existing one. End A is on the
 * bed; the wall runs straight from each edge of one section to the same edge of the other.
 */
export const isRound = (end: End) => (p: P) => p[`section${end}` as const] === 'round';
export const isBoxed = (end: End) => (p: P) => p[`section${end}` as const] === 'rounded';
export const fitOf = (p: P, end: End) => p[`fit${end}` as const];

export interface EndSizes {
  fit: Fit;
  mate: Outline;
  /** Outside, inside at the mouth, and the passage beyond, where a tube that goes in stops. */
  outer: Outline;
  inner: Outline;
  way: Outline;
  length: number;
}

export interface Sizes {
  A: EndSizes;
  B: EndSizes;
  middle: number;
  wall: number;
  leadIn: number;
  shift: Point2;
}

/** @throws OffsetError */
export function sizesOf(p: P): Sizes {
  const shift: Point2 = [p.shiftRight, p.shiftBack];
  return {
    A: endOf(p, 'A', [0, 0]),
    B: endOf(p, 'B', shift),
    middle: p.middle,
    wall: p.wall,
    leadIn: p.leadIn,
    shift,
  };
}

/** Its mates, by how an end fits and how it is measured. */
export const active = (fit: Fit, measure: Measure, end: End) => (p: P) =>
  fitOf(p, end) === fit && (measure === 'Round' ? isRound(end) : isBoxed(end))(p);

export const mateName = (p: P, end: End, measure: Measure) => `${fitOf(p, end)}${measure}${end}` as const;

function endOf(p: P, end: End, at: Point2): EndSizes {
  const fit = fitOf(p, end);
  const wall = p.wall;
  const plain = isRound(end)(p)
    ? circleLikeRectangle(p[mateName(p, end, 'Round')])
    : roundedRectangle(
        p[mateName(p, end, 'Width')],
        p[mateName(p, end, 'Depth')],
        p[`corner${end}` as const],
      );
  const mate = shifted(plain, at);
  const over = fit === 'over';
  return {
    fit,
    mate,
    outer: over ? offsetOutline(mate, wall) : mate,
    inner: over ? mate : offsetOutline(mate, -wall),
    way: offsetOutline(mate, over ? -p.stop : -wall),
    length: p[`length${end}` as const],
  };
}

/** How far the walls move sideways between the ends; a wall that moves farther than the middle is high overhangs. */
export const asideOf = (s: Sizes): number =>
  Math.max(widestStep(s.A.outer, s.B.outer), widestStep(s.A.way, s.B.way));
