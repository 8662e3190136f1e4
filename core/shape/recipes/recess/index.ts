import { BALL, DEMO_BALL } from '../../demo-bodies';
import { defineRecipe } from '../define-recipe';
import { checks } from './checks';
import { drawing, objectDrawing } from './drawings';
import { guide } from './guide';
import { type P, parameters } from './parameters';
import { refuse } from './refuse';
import { places, solid } from './solid';

const isBlock = (p: P) => p.form === 'block';
const hasFingers = (p: P) => p.fingers !== 'none';
const isPutUp = (p: P) => p.mount !== 'none';

/** Holds an object that was scanned and lets it go, see sizes.ts. */
export const recess = defineRecipe({
  id: 'recess',
  version: 1,
  family: 'mount',
  title: 'Recess for a scanned object',
  purpose:
    'Holds an object of any shape, as a scan or its file has it, and lets it go straight up: a block, a plate or a holster.',
  guide,
  mates: {
    opening: {
      name: 'Object in its recess',
      dimension: 'width',
      parameter: 'opening',
      side: 'inside',
      want: 'drop-on',
      form: 'flats',
    },
  },
  parameters,
  shown: {
    long: isBlock,
    finger: hasFingers,
    fingerDeep: hasFingers,
    screw: isPutUp,
    plate: isPutUp,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  checks,
  demo: {
    name: 'a bow ball',
    sizes: { width: BALL, length: BALL, high: BALL },
    parameters: {
      object: DEMO_BALL,
      lies: 'drawn',
      turn: 0,
      form: 'block',
      opening: 44.7,
      sunk: 24,
      draft: 1.5,
      mouth: 1,
      floor: 2.4,
      edge: 4,
      long: 56,
      drain: 0,
      fingers: 'none',
      finger: 20,
      fingerDeep: 6,
      mount: 'none',
      screw: 4.5,
      plate: 4,
    },
  },
});
