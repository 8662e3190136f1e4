import { boxOf, perimeterOf } from '../../curve';
import type { Outline } from '../../kernels/kernel';
import { offsetTo } from '../../offset';
import { outlineOfText } from '../../outline-text';
import { ellipse, roundedRectangle } from '../../section';
import { type Goes, type Measure, type P, sizeName } from './parameters';

/**
 * A cap over, or a plug into, an opening that is not round. The end is on the bed; skirt or plug rises from it. A stiff
 * one fits by width and depth, a flexible one by its girth.
 */
export const is = {
  over: (p: P) => p.goes === 'over',
  into: (p: P) => p.goes === 'into',
  across: (p: P) => p.fits === 'across',
  around: (p: P) => p.fits === 'around',
  outline: (p: P) => p.section === 'outline',
  rounded: (p: P) => p.section === 'rounded',
};

/** Its mates, by what it goes over or into and how it is measured. */
export const active = (goes: Goes, measure: Measure) => (p: P) =>
  p.goes === goes &&
  (measure === 'Around' ? is.around(p) : is.across(p) && (measure === 'Width' || !is.outline(p)));
/** What is read, whether it mates or only gives the shape. */
export const read = (goes: Goes, measure: Measure) => (p: P) =>
  p.goes === goes &&
  (measure === 'Around' ? is.around(p) : !is.outline(p) || (measure === 'Width' && is.across(p)));

export interface Sizes {
  goes: Goes;
  /** The mating outline. */
  mate: Outline;
  end: number;
  depth: number;
  wall: number;
  leadIn: number;
  flange: number;
  /** A ridge all round: its height, and the height of its middle above the end. */
  ridge: { rise: number; at: number } | null;
}

export const RIDGE_WIDTH = 1;

/** @throws OutlineTextError, OffsetError */
export function sizesOf(p: P): Sizes {
  const rise = p.ridge;
  return {
    goes: p.goes,
    mate: mateOutline(p),
    end: p.endThickness,
    depth: p.depth,
    wall: p.wall,
    leadIn: p.leadIn,
    flange: p.flange,
    ridge: rise > 0 ? { rise, at: p.ridgeAt } : null,
  };
}

function mateOutline(p: P): Outline {
  const shape = (width: number, depth: number) =>
    is.rounded(p) ? roundedRectangle(width, depth, p.corner) : ellipse(width, depth);
  if (is.across(p) && !is.outline(p))
    return shape(p[sizeName(p.goes, 'Width')], p[sizeName(p.goes, 'Depth')]);
  const written = is.outline(p) ? outlineOfText(p.outline) : shape(p.shapeWidth, p.shapeDepth);
  return is.across(p)
    ? offsetTo(written, widthOf, p[sizeName(p.goes, 'Width')]).outline
    : offsetTo(written, girthOf, p[sizeName(p.goes, 'Around')]).outline;
}

export const widthOf = (outline: Outline): number => {
  const [x0, , x1] = boxOf(outline);
  return x1 - x0;
};
export const girthOf = (outline: Outline): number => perimeterOf(outline) / Math.PI;
