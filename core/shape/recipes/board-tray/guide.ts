import type { KeysOf } from '../define-recipe';
import { step } from '../fields';
import { onPosts } from './sizes';

export const guide = [
  step('tube', 'Tube, inside', 'inside-jaws', 'As deep as the jaws reach, at two places; keep the smallest.'),
  step('board_width', 'Board, width', 'outside-jaws', 'Edge to edge, not over what stands out.'),
  step('board_thickness', 'Board, thickness', 'outside-jaws', 'At its bare edge, beside the solder.'),
  step('board_length', 'Board, length', 'outside-jaws', 'With its plugs, if they stand out.'),
  step('board_screw', 'Screws of the board, over their thread', 'outside-jaws', 'The screws you have.', {
    needed: onPosts,
  }),
  step(
    'holes_across',
    'Its holes, apart across',
    'inside-jaws',
    'From middle to middle: between their near sides, and add one hole.',
    { needed: onPosts },
  ),
  step('holes_along', 'Its holes, apart along', 'inside-jaws', 'In the same way, along the board.', {
    needed: onPosts,
  }),
];

export type Asked = KeysOf<typeof guide>;
