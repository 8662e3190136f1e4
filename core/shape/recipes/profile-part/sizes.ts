import { boxOf, perimeterOf } from '../../curve';
import type { Outline } from '../../kernels/kernel';
import { offsetOutline, offsetTo } from '../../offset';
import { circle } from '../../outline';
import { type Hole, holesOfText, outlineOfText } from '../../outline-text';
import type { P } from './parameters';

/** The outline is read off the seat; the part's outline is offset evenly until its fitting size is the ledger's. */
export const has = {
  width: (p: P) => p.fits === 'width',
  height: (p: P) => p.fits === 'height',
  around: (p: P) => p.fits === 'around',
  pocket: (p: P) => p.pocket,
  pocketOutline: (p: P) => p.pocket && p.pocketShape === 'own',
  pocketWall: (p: P) => p.pocket && p.pocketShape === 'wall',
  lip: (p: P) => p.lip,
  top: (p: P) => p.top,
};

export const FITTING = { width: 'widthSize', height: 'heightSize', around: 'aroundSize' } as const;
export type Fitting = keyof typeof FITTING;
export const fittingOf = (p: P) => p.fits;

export interface Sizes {
  outer: Outline;
  /** How far the part's outline is outside the written one, mm per side. */
  moved: number;
  thickness: number;
  /** Height over which the wall is straight from the bed. */
  straight: number;
  top?: Outline;
  leadIn: number;
  holes: { hole: Hole; outline: Outline }[];
  /** Where its wall follows a tapering part, `top` is its outline there. */
  pocket?: { outline: Outline; depth: number; top?: Outline };
  lip?: { inner: Outline; height: number };
}

/** @throws OutlineTextError, OffsetError */
export function sizesOf(p: P): Sizes {
  const written = outlineOfText(p.outline);
  const moved = movedBy(written, p);
  const outer = offsetOutline(written, moved);
  const thickness = p.thickness;
  const top = has.top(p) ? offsetOutline(outlineOfText(p.topOutline), moved) : undefined;
  return {
    outer,
    moved,
    thickness,
    straight: top ? p.straight : thickness,
    top,
    leadIn: p.leadIn,
    holes: holesOfText(p.holes).map(hole => ({
      hole,
      outline: circle([hole.x, hole.y], hole.diameter / 2),
    })),
    ...(has.pocket(p)
      ? {
          pocket: {
            outline: has.pocketWall(p) ? offsetOutline(outer, -p.pocketWall) : outlineOfText(p.pocketOutline),
            depth: p.pocketDepth,
            ...(has.pocketWall(p) && top ? { top: offsetOutline(top, -p.pocketWall) } : {}),
          },
        }
      : {}),
    ...(has.lip(p)
      ? {
          lip: {
            inner: offsetOutline(top ?? outer, -p.lipWidth),
            height: p.lipHeight,
          },
        }
      : {}),
  };
}

/** Its fitting size, measured on an outline, mm. */
export const sizeOf = (outline: Outline, p: P): number => {
  const [x0, y0, x1, y1] = boxOf(outline);
  if (has.width(p)) return x1 - x0;
  return has.height(p) ? y1 - y0 : perimeterOf(outline) / Math.PI;
};

/** Per side, mm. @throws OffsetError */
export const movedBy = (written: Outline, p: P): number =>
  offsetTo(written, o => sizeOf(o, p), p[FITTING[fittingOf(p)]]).moved;
