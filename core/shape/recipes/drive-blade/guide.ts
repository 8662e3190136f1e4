import type { KeysOf } from '../define-recipe';
import { step } from '../fields';
import type { P } from './parameters';
import { bothTips, hasRib, hasSocket, isBlade, isFork } from './sizes';

export const guide = [
  step(
    'slot',
    'Slot or socket, across its flats',
    'inside-jaws',
    'The tips of the inside jaws, deep in it: slots are worn at their mouths.',
    { needed: (p: P) => !isFork(p) },
  ),
  step('slot_length', 'Slot, length', 'inside-jaws', 'The long way.', { needed: isBlade }),
  step('tang', 'Flat that it goes over, thickness', 'jaw-tips', 'Deep down, where it is not rounded over.', {
    needed: isFork,
  }),
  step(
    'bore',
    'Bore, inside',
    'inside-jaws',
    'In which the shank runs; the largest of several readings.',
    {},
  ),
  step('slot_depth', 'Slot or flat, depth', 'depth-rod', 'From its rim to its bottom.', {
    bounds: 'tipLength',
  }),
  step('keyway', 'Keyway, width', 'inside-jaws', 'Where the rib runs, at both its ends.', {
    needed: hasRib,
  }),
  step('slot_b', 'Other end: slot or square, width', 'inside-jaws', 'Deep in it, as for the first.', {
    needed: bothTips,
  }),
  step('slot_b_length', 'Other end: slot, length', 'inside-jaws', 'The long way.', {
    needed: p => p.headShape === 'blade',
  }),
  step('spindle', 'Spindle that turns it, across its flats', 'outside-jaws', 'What goes into the head.', {
    needed: hasSocket,
  }),
];

export type Asked = KeysOf<typeof guide>;
