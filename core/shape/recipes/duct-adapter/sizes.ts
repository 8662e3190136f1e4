import type { Outline } from '../../kernels/kernel';
import { offsetOutline } from '../../offset';
import { circleLikeRectangle, roundedRectangle, shifted, widestStep } from '../../section';
import type { Point2 } from '../../vector';
import { lengthOf, type Parameters } from '../parameters';

/**
 * From one section to another: round or a rounded rectangle at each end, over or into what is there. End A stands
 * on the bed; the wall runs straight from each edge of the one section to the same edge of the other.
 */
export type End = 'A' | 'B';
export const ENDS = ['A', 'B'] as const;
export type Fit = 'over' | 'into';
export const FITS = ['over', 'into'] as const;
export const isRound = (end: End) => (p: Parameters) => p[`section${end}`] === 'round';
export const isBoxed = (end: End) => (p: Parameters) => p[`section${end}`] === 'rounded';
export const fitOf = (p: Parameters, end: End) => p[`fit${end}`] as Fit;

export interface EndSizes {
  fit: Fit;
  mate: Outline;
  /** Outside, inside at the mouth, and the way on, which a tube that goes in stops at. */
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
export function sizesOf(p: Parameters): Sizes {
  const shift: Point2 = [lengthOf(p, 'shiftRight'), lengthOf(p, 'shiftBack')];
  return {
    A: endOf(p, 'A', [0, 0]),
    B: endOf(p, 'B', shift),
    middle: lengthOf(p, 'middle'),
    wall: lengthOf(p, 'wall'),
    leadIn: lengthOf(p, 'leadIn'),
    shift,
  };
}

export const mateName = (p: Parameters, end: End, way: 'Round' | 'Width' | 'Depth') =>
  `${fitOf(p, end)}${way}${end}`;

function endOf(p: Parameters, end: End, at: Point2): EndSizes {
  const fit = fitOf(p, end);
  const wall = lengthOf(p, 'wall');
  const plain = isRound(end)(p)
    ? circleLikeRectangle(lengthOf(p, mateName(p, end, 'Round')))
    : roundedRectangle(
        lengthOf(p, mateName(p, end, 'Width')),
        lengthOf(p, mateName(p, end, 'Depth')),
        lengthOf(p, `corner${end}`),
      );
  const mate = shifted(plain, at);
  const over = fit === 'over';
  return {
    fit,
    mate,
    outer: over ? offsetOutline(mate, wall) : mate,
    inner: over ? mate : offsetOutline(mate, -wall),
    way: offsetOutline(mate, over ? -lengthOf(p, 'stop') : -wall),
    length: lengthOf(p, `length${end}`),
  };
}

/** How far the walls go aside between the ends; more than the middle is high overhangs. */
export const asideOf = (s: Sizes): number =>
  Math.max(widestStep(s.A.outer, s.B.outer), widestStep(s.A.way, s.B.way));
