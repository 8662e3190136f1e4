import { PLATE, WALL } from '../advice';
import type { ValuesOf } from '../define-recipe';
import { choice, hand, length, words } from '../fields';

export const parameters = [
  choice('style', 'It is', {
    cover: 'a cover, closed',
    ring: 'a ring, open',
    plug: 'a plug',
    coupler: 'a coupler for two necks',
  }),
  words('standard', 'Standard thread (empty: as measured)', '', 40),
  length('coverThread', 'Thread, over its grooves', [6, 300], 'neck.model'),
  length('plugThread', 'Thread, over its ridges', [6, 300], 'socket.model'),
  length('pitchLength', 'Pitch', [0.8, 40], 'pitch'),
  hand('hand', 'Hand'),
  length('starts', 'Starts', [1, 6], '1', { measure: 'count' }),
  length('length', 'Thread, length', [3, 150], 'neck_height - 1'),
  length('ridge', 'Ridge, height', [0.4, 20], 'ridge_height'),
  length('foot', 'Ridge or groove, width at its foot', [0.5, 36], 'pitchLength * 0.6'),
  length('flanks', 'Angle between its flanks', [4, 90], '40', { measure: 'angle' }),
  length('rounding', 'Crest and root rounded, radius', [0, 12], '0'),
  words('standardB', 'B, standard thread (empty: as measured)', '', 40),
  length('coverThreadB', 'B, over its grooves', [6, 300], 'neck_b.model'),
  length('pitchLengthB', 'B, pitch', [0.8, 40], 'pitch_b'),
  hand('handB', 'B, hand'),
  length('lengthB', 'B, thread length', [3, 150], 'length'),
  length('ridgeB', 'B, ridge height', [0.4, 20], 'pitchLengthB * 0.3'),
  length('end', 'End, or what is between the necks', [1.2, 60], '3', { sensible: PLATE }),
  length('wall', 'Wall outside the thread', [0.8, 40], '3', { sensible: WALL }),
  length('bore', 'Way through the plug (0 is closed)', [0, 290], '0'),
  length('flutes', 'Flutes to grip by', [0, 40], '12', { measure: 'count', group: 'more' }),
  length('seal', 'Recess for a seal, deep', [0, 20], '0', {
    group: 'more',
  }),
];

export type P = ValuesOf<typeof parameters>;
