import type { KeysOf } from '../define-recipe';
import { step } from '../fields';
import { has } from './sizes';

export const guide = [
  step(
    'seat_width',
    'Seat, widest across',
    'inside-jaws',
    'Left to right, where it is widest. Of an old part: outside, where it is not worn.',
  ),
  step('seat_height', 'Seat, highest', 'inside-jaws', 'Square to the width, where it is highest.'),
  step(
    'seat_around',
    'Around the seat',
    'tape',
    'Lay a strip of paper once around, mark where it meets itself, and measure it flat.',
    { needed: has.around },
  ),
  step('seat_depth', 'Depth of the seat', 'depth-rod', 'From its face down to where the part must stop.'),
];

export type Asked = KeysOf<typeof guide>;
