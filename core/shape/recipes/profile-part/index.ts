import { defineRecipe } from '../define-recipe';
import { drawing, objectDrawing } from './drawings';
import { guide } from './guide';
import { parameters } from './parameters';
import { refuse } from './refuse';
import { FITTING, type Fitting, has } from './sizes';
import { places, solid } from './solid';

const mate = <B extends Fitting>(by: B, name: string) =>
  ({
    name,
    dimension: `seat_${by}`,
    parameter: FITTING[by],
    side: 'outside',
    want: 'snug',
    flexibleWant: 'snug',
    active: has[by],
  }) as const;

/** A plate, block or end piece of any outline, extruded from the bed. */
export const profilePart = defineRecipe({
  id: 'profile-part',
  version: 1,
  family: 'replacement',
  title: 'Profile part',
  purpose:
    'Any outline of lines and arcs, pulled up: an end piece, a plate, a block, with holes, pocket and lip.',
  guide,
  mates: {
    width: { ...mate('width', 'Width in its seat'), form: 'flats' },
    height: { ...mate('height', 'Height in its seat'), form: 'flats' },
    around: { ...mate('around', 'All round in its seat'), around: true, flexibleWant: 'stretch' },
  },
  parameters,
  shown: {
    widthSize: has.width,
    heightSize: has.height,
    aroundSize: has.around,
    pocketShape: has.pocket,
    pocketWall: has.pocketWall,
    pocketOutline: has.pocketOutline,
    pocketDepth: has.pocket,
    lipHeight: has.lip,
    lipWidth: has.lip,
    topOutline: has.top,
    straight: has.top,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
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
      pocketShape: 'own',
      pocketWall: 2,
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
});
