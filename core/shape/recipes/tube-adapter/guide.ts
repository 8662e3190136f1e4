import type { KeysOf } from '../define-recipe';
import { step } from '../fields';
import { ENDS, low } from './parameters';
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
