import { CHAMFER, WALL } from '../advice';
import type { ValuesOf } from '../define-recipe';
import { choice, length } from '../fields';

export const ENDS = ['A', 'B'] as const;
export type End = (typeof ENDS)[number];
export const low = <E extends End>(end: E) => end.toLowerCase() as Lowercase<E>;
export const FITS = ['over', 'into'] as const;
export type Fit = (typeof FITS)[number];
export const MEASURES = ['Round', 'Width', 'Depth'] as const;
export type Measure = (typeof MEASURES)[number];
export const LABEL = { Round: 'diameter', Width: 'width', Depth: 'depth' } as const;
/** The name of the object's end: a tube that we go over, a mouth that we go into. */
const WORD = { over: 'duct', into: 'mouth' } as const;
/** The dimension that is read for it. */
export const key = <F extends Fit, M extends Measure, E extends End>(fit: F, measure: M, end: E) =>
  `${WORD[fit]}_${LABEL[measure]}_${low(end)}` as const;

export const parameters = [
  ...ENDS.flatMap(end => [
    choice(
      `section${end}`,
      `End ${end} is`,
      end === 'A'
        ? { round: 'round', rounded: 'a rounded rectangle' }
        : { rounded: 'a rounded rectangle', round: 'round' },
    ),
    choice(`fit${end}`, `End ${end} goes`, { over: 'over a duct', into: 'into a mouth' }),
    ...FITS.flatMap(fit =>
      MEASURES.map(measure =>
        length(
          `${fit}${measure}${end}`,
          `End ${end}, ${LABEL[measure]}`,
          [4, 400],
          `${key(fit, measure, end)}.model`,
        ),
      ),
    ),
    length(`corner${end}`, `End ${end}, radius of its corners`, [0, 190], `corner_${low(end)}`),
    length(`length${end}`, `End ${end}, length`, [2, 200], '20'),
  ]),
  length('middle', 'Between the ends', [1, 400], '40'),
  length('shiftRight', 'End B lies to the right by', [-200, 200], '0', { group: 'more' }),
  length('shiftBack', 'End B lies to the back by', [-200, 200], '0', { group: 'more' }),
  length('wall', 'Wall', [0.8, 20], '2', { sensible: WALL }),
  length('stop', 'Stop reaches in by', [0.4, 20], '1.5', { group: 'more' }),
  length('leadIn', 'Lead-in chamfers', [0, 4], '0.6', { group: 'more', sensible: CHAMFER }),
];

export type P = ValuesOf<typeof parameters>;
