import type { KeysOf } from '../define-recipe';
import { step } from '../fields';
import { ENDS, low, type P } from './parameters';
import { fits, is } from './sizes';

export const guide = [
  ...ENDS.flatMap(end => [
    step(
      `tube_${low(end)}`,
      `Tube ${end}, outside`,
      'outside-jaws',
      'Two centimetres from its end, where it is still round; turn it between readings.',
      { needed: fits('over', end) },
    ),
    step(
      `groove_${low(end)}`,
      `Tube ${end}, in its groove`,
      'jaw-tips',
      'With the tips of the jaws, on the groove’s floor.',
      { needed: is.click(end) },
    ),
    step(
      `bore_${low(end)}`,
      `Bore ${end}, inside`,
      'inside-jaws',
      'As deep as the jaws reach; rock them and keep the largest.',
      { needed: fits('into', end) },
    ),
    step(
      `tube_far_${low(end)}`,
      `Tube ${end}, outside, farther from its end`,
      'outside-jaws',
      'As far from the tip as the jaws lie flat. Read the first one at the tip itself, since it tapers.',
      { needed: p => is.coned(end)(p as P) && fits('over', end)(p as P) },
    ),
    step(
      `bore_far_${low(end)}`,
      `Bore ${end}, inside, deeper in`,
      'inside-jaws',
      'As deep as the jaws reach. Read the first one at the mouth itself, since it tapers.',
      { needed: p => is.coned(end)(p as P) && fits('into', end)(p as P) },
    ),
    step(
      `apart_${low(end)}`,
      `End ${end}: between the two places`,
      'span',
      'Along the axis, from one pair of jaw marks to the other.',
      { needed: p => is.coned(end)(p as P) },
    ),
    step(
      `hose_${low(end)}`,
      `Hose ${end}, inside`,
      'inside-jaws',
      'Not pressed oval: cut the end square and let it hang free.',
      { needed: fits('barb', end) },
    ),
  ]),
  step(
    'bolt_circle',
    'Circle of the screws',
    'span',
    'Between the middles of two that face each other; or inside and outside of the two, halved.',
    { needed: is.flange },
  ),
];

export type Asked = KeysOf<typeof guide>;
