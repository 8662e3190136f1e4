import { DEMO_FENDER } from '../../demo-bodies';
import { defineRecipe } from '../define-recipe';
import { checks } from './checks';
import { drawing, objectDrawing } from './drawings';
import { guide } from './guide';
import { isPosts, type P, parameters } from './parameters';
import { refuse } from './refuse';
import { places, solid } from './solid';

const isPad = (p: P) => p.form === 'pad';

/** A foot up to a scanned surface, see sizes.ts. */
export const contourFoot = defineRecipe({
  id: 'contour-foot',
  version: 1,
  family: 'mount',
  title: 'Foot that follows a surface',
  purpose:
    'Stands between something flat and a curved surface as a scan has it: a pad, a saddle, or posts on a plate.',
  guide,
  mates: {
    height: {
      name: 'Foot under the surface',
      dimension: 'rise',
      parameter: 'height',
      side: 'outside',
      want: 'glue',
      form: 'flats',
      lying: true,
    },
  },
  parameters,
  shown: {
    long: p => !isPosts(p),
    wide: isPad,
    corner: isPad,
    posts: isPosts,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  checks,
  demo: {
    name: 'a round fender on its shelf',
    sizes: { rise: 20 },
    parameters: {
      object: DEMO_FENDER,
      lies: 'drawn',
      turn: 0,
      right: 0,
      back: 0,
      form: 'pad',
      height: 19.8,
      surface: 20,
      long: 40,
      wide: 30,
      corner: 4,
      posts: '-14, -9, 8; 14, -9, 8; -14, 9, 8; 14, 9, 8',
      plate: 3,
      beyond: 0,
      holes: '',
      leanRight: 0,
      leanBack: 0,
    },
  },
});
