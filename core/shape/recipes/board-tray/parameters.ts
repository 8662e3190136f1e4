import type { ValuesOf } from '../define-recipe';
import { choice, flag, length } from '../fields';

export const parameters = [
  choice('holds', 'The board sits', { rails: 'in rails', posts: 'on posts, screwed' }),
  length('outside', 'Tray, across', [12, 250], 'tube.model'),
  length('boardSlot', 'Between the rails', [6, 240], 'board_width.model'),
  length('edgeSlot', 'Slot for its edge', [0.8, 12], 'board_thickness.model'),
  length('pilot', 'Hole for the screw', [0.6, 8], 'board_screw.model'),
  length('postsAcross', 'Posts, apart across', [3, 230], 'holes_across'),
  length('postsAlong', 'Posts, apart along', [3, 280], 'holes_along'),
  length('post', 'Posts, across', [2, 20], 'pilot + 3.2'),
  length('postHeight', 'Posts, height', [0.8, 40], '4'),
  length('length', 'Length', [10, 300], 'board_length + endWall + 2'),
  length('below', 'Board below the tube’s middle by', [-60, 100], '1'),
  length('rail', 'Rails above the board', [0.6, 30], '2'),
  length('floor', 'Under the board, thickness', [1.2, 100], 'outside * 0.2'),
  length('endWall', 'End wall (0 is none)', [0, 40], '2'),
  length('pull', 'Opening in it, for cables', [0, 200], 'min(10; outside * 0.5)', { group: 'more' }),
  flag('tab', 'A tab to pull it out by', true),
  length('tabWidth', 'Tab, width', [4, 80], 'outside * 0.3', { group: 'more' }),
  length('tabLength', 'Tab, length', [3, 80], 'tabWidth * 0.8 + 4', { group: 'more' }),
  length('slots', 'Cable slots in the floor', [0, 8], '0', { measure: 'count' }),
  length('slotWidth', 'Cable slots, width', [1, 100], '6', { group: 'more' }),
  length('slotLength', 'Cable slots, length', [1, 120], '10', { group: 'more' }),
];

export type P = ValuesOf<typeof parameters>;
