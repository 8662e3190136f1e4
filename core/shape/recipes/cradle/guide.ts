import type { KeysOf } from '../define-recipe';
import { step } from '../fields';

export const guide = [
  step(
    'slab_width',
    'Slab, width',
    'outside-jaws',
    'Where the cradle’s sides will grip; at both ends, since slabs taper.',
  ),
  step(
    'slab_thickness',
    'Slab, thickness',
    'outside-jaws',
    'At its edge, where the lips reach over; not over buttons.',
  ),
  step('slab_height', 'Slab, height', 'outside-jaws', 'Along which it slides in.'),
  step('screw', 'Screw, over its thread', 'outside-jaws', 'The screws you have.', {
    needed: p => p.stand === 'wall',
  }),
];

export type Asked = KeysOf<typeof guide>;
