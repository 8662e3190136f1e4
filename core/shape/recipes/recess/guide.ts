import type { KeysOf } from '../define-recipe';
import { step } from '../fields';

export const guide = [
  step(
    'width',
    'Its width, front to back as it lies',
    'outside-jaws',
    'The widest place that lies in the recess; jaws along its length, turned a little between readings.',
  ),
  step('length', 'Its length, left to right', 'outside-jaws', 'Over everything, as it lies.', {
    needed: p => p.form === 'block',
  }),
  step('high', 'Its height as it lies', 'outside-jaws', 'From what it lies on to its highest place.'),
];

export type Asked = KeysOf<typeof guide>;
