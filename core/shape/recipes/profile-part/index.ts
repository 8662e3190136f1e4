import type { MateSpec } from '../../mates';
import { CHAMFER } from '../advice';
import { choice, flag, holes, length, outline, step } from '../fields';
import type { Recipe } from '../recipe';
import { drawing, objectDrawing } from './drawings';
import { refuse } from './refuse';
import { FITTING, type Fitting, has } from './sizes';
import { solid, surfaces } from './solid';

const mate = (by: Fitting, name: string, more: Partial<MateSpec>): MateSpec => ({
  id: by,
  name,
  dimension: `seat_${by}`,
  parameter: FITTING[by],
  side: 'outside',
  want: 'snug',
  flexibleWant: 'snug',
  active: has[by],
  ...more,
});

/** A plate, block or end piece of any outline, pulled up from the bed. */
export const profilePart: Recipe = {
  id: 'profile-part',
  version: 1,
  family: 'replacement',
  title: 'Profile part',
  purpose:
    'Any outline of lines and arcs, pulled up: an end piece, a plate, a block, with holes, pocket and lip.',
  guide: [
    step(
      'seat_width',
      'Seat, widest across',
      'inside-jaws',
      'Left to right, where it is widest. Of an old part: outside, where it is not worn.',
      { critical: true },
    ),
    step('seat_height', 'Seat, highest', 'inside-jaws', 'Square to the width, where it is highest.', {
      critical: true,
    }),
    step(
      'seat_around',
      'Around the seat',
      'tape',
      'Lay a strip of paper once around, mark where it meets itself, and measure it flat.',
      { critical: true, needed: has.around },
    ),
    step('seat_depth', 'Depth of the seat', 'depth-rod', 'From its face down to where the part must stop.'),
  ],
  mates: [
    mate('width', 'Width in its seat', { form: 'flats' }),
    mate('height', 'Height in its seat', { form: 'flats' }),
    mate('around', 'All round in its seat', { around: true, flexibleWant: 'stretch' }),
  ],
  parameters: [
    outline('outline', 'Outline', '0, 0; seat_width, 0; seat_width, seat_height; 0, seat_height', {
      read: { width: 'seat_width', height: 'seat_height' },
    }),
    choice('fits', 'Fits by', {
      width: 'its width',
      height: 'its height',
      around: 'its girth (flexible)',
    }),
    length('widthSize', 'Width, as made', [1, 500], 'seat_width.model', { shown: has.width }),
    length('heightSize', 'Height, as made', [1, 500], 'seat_height.model', { shown: has.height }),
    length('aroundSize', 'Girth ÷ π, as made', [1, 500], 'seat_around.model', { shown: has.around }),
    length('thickness', 'Thickness', [0.6, 300], 'seat_depth'),
    holes('holes', 'Holes', ''),
    flag('pocket', 'Pocket', false),
    outline('pocketOutline', 'Pocket, outline', '6, 3; 24, 3; 24, 6; 6, 6', { shown: has.pocket }),
    length('pocketDepth', 'Pocket, depth', [0.2, 300], 'thickness / 2', { shown: has.pocket }),
    flag('lip', 'Lip around the top', false),
    length('lipHeight', 'Lip, height', [0.4, 100], '3', { shown: has.lip }),
    length('lipWidth', 'Lip, width', [0.6, 50], '1.6', { shown: has.lip }),
    flag('top', 'Another outline at the top', false),
    outline(
      'topOutline',
      'Outline at the top',
      '2, 2; seat_width - 2, 2; seat_width - 2, seat_height - 2; 2, seat_height - 2',
      { shown: has.top },
    ),
    length('straight', 'Straight up to', [0, 300], 'thickness / 2', { shown: has.top }),
    length('leadIn', 'Lead-in chamfer', [0, 5], '0.4', { group: 'more', sensible: CHAMFER }),
  ],
  refuse,
  drawing,
  objectDrawing,
  solid,
  surfaces,
  checks: () => [],
  demo: {
    name: 'a rubbing strip’s end piece',
    sizes: { seat_width: 30, seat_height: 21, seat_around: 89.12, seat_depth: 12 },
    parameters: {
      outline: '0, 0; 30, 0; 30, 6; 0, 6 via 15, 21',
      fits: 'width',
      widthSize: 29.8,
      heightSize: 20.8,
      aroundSize: 28.2,
      thickness: 12,
      holes: '15, 11, 4.2',
      pocket: false,
      pocketOutline: '6, 3; 24, 3; 24, 6; 6, 6',
      pocketDepth: 5,
      lip: false,
      lipHeight: 3,
      lipWidth: 1.6,
      top: false,
      topOutline: '3, 1; 27, 1; 27, 6; 3, 6 via 15, 18',
      straight: 6,
      leadIn: 0.4,
    },
  },
};
