import type { KeysOf } from '../define-recipe';
import { step } from '../fields';

export const guide = [
  step(
    'rise',
    'From what the foot stands on to the surface',
    'depth-rod',
    'At the foot’s middle; of posts, at the first; beside a hole that is there.',
  ),
];

export type Asked = KeysOf<typeof guide>;
