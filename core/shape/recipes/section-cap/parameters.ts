import { CHAMFER, WALL } from '../advice';
import type { ValuesOf } from '../define-recipe';
import { choice, length, outline } from '../fields';

export const GOES = ['over', 'into'] as const;
export type Goes = (typeof GOES)[number];
export const MEASURES = ['Width', 'Depth', 'Around'] as const;
export type Measure = (typeof MEASURES)[number];
const WORD = { over: 'rim', into: 'bore' } as const;
const READ = { Width: 'width', Depth: 'depth', Around: 'around' } as const;
/** The dimension that is read, and the number that follows from it. */
export const key = <G extends Goes, M extends Measure>(goes: G, measure: M) =>
  `${WORD[goes]}_${READ[measure]}` as const;
export const sizeName = <G extends Goes, M extends Measure>(goes: G, measure: M) =>
  `${WORD[goes]}${measure}Size` as const;

export const parameters = [
  choice('section', 'It is', {
    rounded: 'a rounded rectangle',
    ellipse: 'an oval',
    outline: 'another outline',
  }),
  choice('goes', 'The cap goes', { over: 'over the rim', into: 'into the opening' }),
  choice('fits', 'It fits by', { across: 'width and depth', around: 'its girth (flexible)' }),
  ...GOES.flatMap(goes =>
    MEASURES.map(measure =>
      length(
        sizeName(goes, measure),
        `${goes === 'over' ? 'Skirt' : 'Plug'}, ${{ Width: 'width', Depth: 'depth', Around: 'girth ÷ π' }[measure]}`,
        [3, 400],
        `${key(goes, measure)}.model`,
      ),
    ),
  ),
  outline('outline', 'Outline', '-30, -17; 30, -17 round 8; 30, 17 round 8; -30, 17'),
  length('shapeWidth', 'Its shape, width', [3, 400], 'rim_width', {
    defaultFor: p => (p.goes === 'into' ? 'bore_width' : 'rim_width'),
  }),
  length('shapeDepth', 'Its shape, depth', [3, 400], 'rim_depth', {
    defaultFor: p => (p.goes === 'into' ? 'bore_depth' : 'rim_depth'),
  }),
  length('corner', 'Radius of the corners', [0, 200], 'corner_radius'),
  length('depth', 'Skirt or plug, depth', [1, 200], 'section_height - 0.2'),
  length('wall', 'Wall (0: a solid plug)', [0, 30], '1.6', { sensible: WALL }),
  length('endThickness', 'End thickness', [0.4, 50], '2'),
  length('flange', 'Flange stands out by', [0, 40], '3'),
  length('ridge', 'Click ridge stands out by (0 is none)', [0, 5], '0', { group: 'more' }),
  length('ridgeAt', 'Ridge over the end', [0.5, 200], 'depth / 2', {
    group: 'more',
  }),
  length('leadIn', 'Lead-in chamfer', [0, 5], '0.6', { group: 'more', sensible: CHAMFER }),
];

export type P = ValuesOf<typeof parameters>;
