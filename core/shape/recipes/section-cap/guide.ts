import type { KeysOf } from '../define-recipe';
import { step } from '../fields';
import { GOES, type Goes, key, MEASURES, type Measure } from './parameters';
import { is, read } from './sizes';

const HOW: Record<Goes, Record<Measure, [hold: 'outside-jaws' | 'inside-jaws' | 'tape', how: string]>> = {
  over: {
    Width: ['outside-jaws', 'Over the wider side, square to it; not over a seam.'],
    Depth: ['outside-jaws', 'Over the narrower side, in the middle, where a long side bows in.'],
    Around: ['tape', 'A strip of paper once around, marked where it meets itself, then measured flat.'],
  },
  into: {
    Width: ['inside-jaws', 'The wider side; rock the jaws and keep the largest.'],
    Depth: ['inside-jaws', 'The narrower side, in the middle.'],
    Around: ['tape', 'A strip of paper pressed once around inside, marked, then measured flat.'],
  },
};

export const guide = [
  ...GOES.flatMap(goes =>
    MEASURES.map(measure => {
      const [hold, how] = HOW[goes][measure];
      const label = `${goes === 'over' ? 'Rim' : 'Opening'}, ${{ Width: 'wide', Depth: 'deep', Around: 'all round' }[measure]}`;
      return step(key(goes, measure), label, hold, how, {
        needed: read(goes, measure),
      });
    }),
  ),
  step(
    'corner_radius',
    'Radius of its corners',
    'span',
    'Lay coins or drills into the corner until one fits: half of its diameter.',
    { needed: is.rounded },
  ),
  step('section_height', 'Depth that may be used', 'step', 'From the mouth to what the cap must not touch.', {
    bounds: 'depth',
  }),
];

export type Asked = KeysOf<typeof guide>;
