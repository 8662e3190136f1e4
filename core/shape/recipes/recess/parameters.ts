import { DEMO_BALL } from '../../demo-bodies';
import { SIDES_DOWN } from '../../model';
import type { ValuesOf } from '../define-recipe';
import { choice, length, model } from '../fields';

export const parameters = [
  model('object', 'The object', DEMO_BALL),
  choice('lies', 'It lies in the recess', SIDES_DOWN),
  length('turn', 'Turned, seen from above', [-360, 360], '0', { measure: 'angle' }),
  choice('form', 'Around it', {
    block: 'a block',
    plate: 'a block in its outline',
    holster: 'walls that follow it all the way down',
  }),
  length('opening', 'Recess, front to back', [4, 400], 'width.model'),
  length('sunk', 'The object lies in it, deep', [1, 300], 'high / 2'),
  length('draft', 'Walls lean back by', [0, 15], '1.5', {
    measure: 'angle',
    sensible: {
      least: 1,
      most: 8,
      usual: 1.5,
      below: 'the object drags along the whole wall on its way out',
      above: 'only the bottom of the recess still guides it',
    },
  }),
  length('mouth', 'Mouth widened, on each side', [0, 10], '1'),
  length('floor', 'Floor', [0.8, 60], '2.4'),
  length('edge', 'Wall beside it', [0.8, 60], '4'),
  length('long', 'Block, left to right', [8, 450], 'length + 2 * edge + 4'),
  length('drain', 'Hole through the floor (0 is none)', [0, 40], '0'),
  choice('fingers', 'Room for fingers', {
    none: 'none',
    ends: 'at both ends',
    left: 'at its left end',
    right: 'at its right end',
  }),
  length('finger', 'Room for fingers, wide', [8, 60], '20'),
  length('fingerDeep', 'Room for fingers, deep', [1, 200], 'sunk * 0.7'),
  choice('mount', 'It is put up', {
    none: 'as it stands',
    ears: 'by two ears, screwed down',
    back: 'by a plate behind it, screwed to a wall',
  }),
  length('screw', 'Screw holes', [2, 12], '4.5'),
  length('plate', 'Ears or plate, thick', [2, 20], '4', { group: 'more' }),
];

export type P = ValuesOf<typeof parameters>;
