import type { KeysOf } from '../define-recipe';
import { step } from '../fields';
import { hasKnuckles, isLug } from './sizes';

export const guide = [
  step('pin', 'Pin, outside', 'outside-jaws', 'Where it is not worn; turn it between readings.'),
  step('between', 'Room along the pin', 'inside-jaws', 'Between the lugs that the leaf goes between.'),
  step('screw', 'Screw, over its thread', 'outside-jaws', 'The screws you have.'),
  step('knuckle', 'Other leaf’s knuckle, width', 'outside-jaws', 'Along the pin; the widest of them.', {
    needed: hasKnuckles,
  }),
  step(
    'pin_height',
    'Pin’s middle over the seat',
    'step',
    'From the seat to the pin’s top, less half the pin.',
    {
      needed: isLug,
    },
  ),
];

export type Asked = KeysOf<typeof guide>;
