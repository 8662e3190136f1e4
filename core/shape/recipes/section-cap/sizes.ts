import { boxOf, perimeterOf } from '../../curve';
import type { Outline } from '../../kernels/kernel';
import { offsetTo } from '../../offset';
import { outlineOfText } from '../../outline-text';
import { ellipse, roundedRectangle } from '../../section';
import { lengthOf, type Parameters, textOf } from '../parameters';

/**
 * A cap over, or a plug into, an opening that is not round. The end is on the bed, skirt or plug stand up from
 * it. Stiff, it fits by width and depth; flexible, by its girth.
 */
export const is = {
  over: (p: Parameters) => p.goes === 'over',
  into: (p: Parameters) => p.goes === 'into',
  across: (p: Parameters) => p.fits === 'across',
  around: (p: Parameters) => p.fits === 'around',
  outline: (p: Parameters) => p.section === 'outline',
  rounded: (p: Parameters) => p.section === 'rounded',
};
export type Goes = 'over' | 'into';
export const goesOf = (p: Parameters) => p.goes as Goes;

export interface Sizes {
  goes: Goes;
  /** The mating outline. */
  mate: Outline;
  end: number;
  depth: number;
  wall: number;
  leadIn: number;
  flange: number;
  /** A ridge all round: its height, and the height of its middle over the end. */
  ridge: { rise: number; at: number } | null;
}

export const RIDGE_WIDTH = 1;

/** @throws OutlineTextError, OffsetError */
export function sizesOf(p: Parameters): Sizes {
  const rise = lengthOf(p, 'ridge');
  return {
    goes: goesOf(p),
    mate: mateOutline(p),
    end: lengthOf(p, 'endThickness'),
    depth: lengthOf(p, 'depth'),
    wall: lengthOf(p, 'wall'),
    leadIn: lengthOf(p, 'leadIn'),
    flange: lengthOf(p, 'flange'),
    ridge: rise > 0 ? { rise, at: lengthOf(p, 'ridgeAt') } : null,
  };
}

const wordOf = (p: Parameters) => (is.over(p) ? 'rim' : 'bore');
export const sizeName = (p: Parameters, way: 'Width' | 'Depth' | 'Around') => `${wordOf(p)}${way}Size`;

function mateOutline(p: Parameters): Outline {
  const shape = (width: number, depth: number) =>
    is.rounded(p) ? roundedRectangle(width, depth, lengthOf(p, 'corner')) : ellipse(width, depth);
  if (is.across(p) && !is.outline(p))
    return shape(lengthOf(p, sizeName(p, 'Width')), lengthOf(p, sizeName(p, 'Depth')));
  const written = is.outline(p)
    ? outlineOfText(textOf(p, 'outline'))
    : shape(lengthOf(p, 'shapeWidth'), lengthOf(p, 'shapeDepth'));
  return is.across(p)
    ? offsetTo(written, widthOf, lengthOf(p, sizeName(p, 'Width'))).outline
    : offsetTo(written, girthOf, lengthOf(p, sizeName(p, 'Around'))).outline;
}

export const widthOf = (outline: Outline): number => {
  const [x0, , x1] = boxOf(outline);
  return x1 - x0;
};
export const girthOf = (outline: Outline): number => perimeterOf(outline) / Math.PI;
