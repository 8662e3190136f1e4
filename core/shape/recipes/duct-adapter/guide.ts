import type { KeysOf } from '../define-recipe';
import { step } from '../fields';
import { ENDS, FITS, type Fit, key, LABEL, low, MEASURES } from './parameters';
import { active, isBoxed } from './sizes';

const HOW: Record<Fit, string> = {
  over: 'Over its outside, where our end will sit; a long side bows in: in its middle as well.',
  into: 'Its inside, as deep as the jaws reach; rock them and keep the largest.',
};

export const guide = ENDS.flatMap(end => [
  ...FITS.flatMap(fit =>
    MEASURES.map(measure =>
      step(
        key(fit, measure, end),
        `${fit === 'over' ? 'Duct' : 'Mouth'} ${end}, ${LABEL[measure]}`,
        fit === 'over' ? 'outside-jaws' : 'inside-jaws',
        HOW[fit],
        { needed: active(fit, measure, end) },
      ),
    ),
  ),
  step(
    `corner_${low(end)}`,
    `Radius of the corners, ${end}`,
    'span',
    'Lay coins or drills into the corner until one fits: half of its diameter.',
    { needed: isBoxed(end) },
  ),
]);

export type Asked = KeysOf<typeof guide>;
