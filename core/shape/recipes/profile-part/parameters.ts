import { CHAMFER, WALL } from '../advice';
import type { ValuesOf } from '../define-recipe';
import { choice, flag, holes, length, outline } from '../fields';

export const parameters = [
  outline('outline', 'Outline', '0, 0; seat_width, 0; seat_width, seat_height; 0, seat_height', {
    read: { width: 'seat_width', height: 'seat_height' },
  }),
  choice('fits', 'Fits by', {
    width: 'its width',
    height: 'its height',
    around: 'its girth (flexible)',
  }),
  length('widthSize', 'Width, as made', [1, 500], 'seat_width.model'),
  length('heightSize', 'Height, as made', [1, 500], 'seat_height.model'),
  length('aroundSize', 'Girth ÷ π, as made', [1, 500], 'seat_around.model'),
  length('thickness', 'Thickness', [0.6, 300], 'seat_depth'),
  holes('holes', 'Holes', ''),
  flag('pocket', 'Pocket', false),
  choice('pocketShape', 'The pocket is', {
    own: 'an outline of its own',
    wall: 'the outline less a wall',
  }),
  length('pocketWall', 'Wall around the pocket', [0.4, 200], '2', { sensible: WALL }),
  outline('pocketOutline', 'Pocket, outline', '6, 3; 24, 3; 24, 6; 6, 6'),
  length('pocketDepth', 'Pocket, depth', [0.2, 300], 'thickness / 2'),
  flag('lip', 'Lip around the top', false),
  length('lipHeight', 'Lip, height', [0.4, 100], '3'),
  length('lipWidth', 'Lip, width', [0.6, 50], '1.6'),
  flag('top', 'Another outline at the top', false),
  outline(
    'topOutline',
    'Outline at the top',
    '2, 2; seat_width - 2, 2; seat_width - 2, seat_height - 2; 2, seat_height - 2',
  ),
  length('straight', 'Straight up to', [0, 300], 'thickness / 2'),
  length('leadIn', 'Lead-in chamfer', [0, 5], '0.4', { group: 'more', sensible: CHAMFER }),
];

export type P = ValuesOf<typeof parameters>;
