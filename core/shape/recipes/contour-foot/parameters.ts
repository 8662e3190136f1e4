import { DEMO_FENDER } from '../../demo-bodies';
import { SIDES_DOWN } from '../../model';
import type { ValuesOf } from '../define-recipe';
import { choice, holes, length, model } from '../fields';

export const parameters = [
  model('object', 'The surface', DEMO_FENDER),
  choice('lies', 'Over the foot it lies', SIDES_DOWN),
  length('turn', 'Turned, seen from above', [-360, 360], '0', { measure: 'angle' }),
  length('right', 'Its place, right of the surface’s middle', [-400, 400], '0'),
  length('back', 'Its place, behind the surface’s middle', [-400, 400], '0'),
  choice('form', 'The foot is', {
    pad: 'a pad or saddle',
    round: 'a round pad',
    posts: 'posts on a plate',
  }),
  length('height', 'Height at the place that was measured', [1.5, 300], 'rise.model'),
  length('surface', 'The surface is there, high', [1.5, 300], 'rise'),
  length('long', 'Left to right', [6, 300], '40'),
  length('wide', 'Front to back', [6, 300], '30'),
  length('corner', 'Corners, radius', [0, 100], '4', { group: 'more' }),
  holes('posts', 'Posts: to the right, to the back, diameter', '-14, -9, 8; 14, -9, 8; -14, 9, 8; 14, 9, 8'),
  length('plate', 'Plate below, thick (0 is none)', [0, 40], '3'),
  length('beyond', 'Plate beyond the foot', [0, 80], '0'),
  holes('holes', 'Holes: to the right, to the back, diameter', ''),
  length('leanRight', 'Holes lean to the right by', [-60, 60], '0', { measure: 'angle', group: 'more' }),
  length('leanBack', 'Holes lean back by', [-60, 60], '0', { measure: 'angle', group: 'more' }),
];

export type P = ValuesOf<typeof parameters>;

export const isPosts = (p: P) => p.form === 'posts';
