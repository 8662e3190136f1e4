import { boxOf, perimeterOf } from '../../curve';
import type { Outline } from '../../kernels/kernel';
import { offsetOutline, offsetTo } from '../../offset';
import { circle } from '../../outline';
import { type Hole, holesOfText, outlineOfText } from '../../outline-text';
import { lengthOf, type Parameters, textOf } from '../parameters';

/** The outline is read off the seat; the part's is moved evenly all round until its fitting size is the ledger's. */
export const has = {
  width: (p: Parameters) => p.fits === 'width',
  height: (p: Parameters) => p.fits === 'height',
  around: (p: Parameters) => p.fits === 'around',
  pocket: (p: Parameters) => p.pocket === true,
  lip: (p: Parameters) => p.lip === true,
  top: (p: Parameters) => p.top === true,
};

export const FITTING = { width: 'widthSize', height: 'heightSize', around: 'aroundSize' } as const;
export type Fitting = keyof typeof FITTING;
export const fittingOf = (p: Parameters) => p.fits as Fitting;

export interface Sizes {
  outer: Outline;
  /** How far the part's outline lies outside the written one, mm per side. */
  moved: number;
  thickness: number;
  /** Height over which the wall is straight from the bed. */
  straight: number;
  top?: Outline;
  leadIn: number;
  holes: { hole: Hole; outline: Outline }[];
  pocket?: { outline: Outline; depth: number };
  lip?: { inner: Outline; height: number };
}

/** @throws OutlineTextError, OffsetError */
export function sizesOf(p: Parameters): Sizes {
  const written = outlineOfText(textOf(p, 'outline'));
  const moved = movedBy(written, p);
  const outer = offsetOutline(written, moved);
  const thickness = lengthOf(p, 'thickness');
  const top = has.top(p) ? offsetOutline(outlineOfText(textOf(p, 'topOutline')), moved) : undefined;
  return {
    outer,
    moved,
    thickness,
    straight: top ? lengthOf(p, 'straight') : thickness,
    top,
    leadIn: lengthOf(p, 'leadIn'),
    holes: holesOfText(textOf(p, 'holes')).map(hole => ({
      hole,
      outline: circle([hole.x, hole.y], hole.diameter / 2),
    })),
    ...(has.pocket(p)
      ? { pocket: { outline: outlineOfText(textOf(p, 'pocketOutline')), depth: lengthOf(p, 'pocketDepth') } }
      : {}),
    ...(has.lip(p)
      ? {
          lip: {
            inner: offsetOutline(top ?? outer, -lengthOf(p, 'lipWidth')),
            height: lengthOf(p, 'lipHeight'),
          },
        }
      : {}),
  };
}

/** What it fits by, as an outline has it, mm. */
export const sizeOf = (outline: Outline, p: Parameters): number => {
  const [x0, y0, x1, y1] = boxOf(outline);
  if (has.width(p)) return x1 - x0;
  return has.height(p) ? y1 - y0 : perimeterOf(outline) / Math.PI;
};

/** Per side, mm. @throws OffsetError */
export const movedBy = (written: Outline, p: Parameters): number =>
  offsetTo(written, o => sizeOf(o, p), lengthOf(p, FITTING[fittingOf(p)])).moved;
