import { defineRecipe } from '../define-recipe';
import { drawing, objectDrawing } from './drawings';
import { guide } from './guide';
import { parameters } from './parameters';
import { refuse } from './refuse';
import { hasKnuckles, hasSecond, isLeaf, isLug, places } from './sizes';
import { solid } from './solid';

export const hingeLeaf = defineRecipe({
  id: 'hinge-leaf',
  version: 2,
  family: 'replacement',
  title: 'Lug or hinge leaf',
  purpose:
    'A barrel for a pin on a plate with screw holes, whole or in knuckles, straight or at an angle; or only the lug that broke off, on a new base.',
  guide,
  mates: {
    pin: {
      name: 'Barrel over pin',
      dimension: 'pin',
      parameter: 'pinBore',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'slide',
    },
    gap: {
      name: 'Gap for the other knuckle',
      dimension: 'knuckle',
      parameter: 'gap',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'slide',
      form: 'flats',
      active: hasKnuckles,
    },
  },
  parameters,
  shown: {
    reach: isLeaf,
    pinHeight: isLug,
    baseLong: isLug,
    baseWide: isLug,
    root: isLug,
    barrel: isLeaf,
    knuckles: hasKnuckles,
    gap: hasKnuckles,
    second: isLeaf,
    angle: hasSecond,
    reachB: hasSecond,
    rise: isLeaf,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  demo: {
    name: 'a locker hinge',
    sizes: { pin: 5, between: 30, screw: 4, knuckle: 8, pin_height: 22 },
    parameters: {
      style: 'leaf',
      pinBore: 5.4,
      length: 29.6,
      wall: 2.4,
      plate: 3,
      reach: 28,
      pinHeight: 22,
      baseLong: 44,
      baseWide: 29.6,
      root: 4,
      holes: 2,
      screwHole: 4.5,
      barrel: 'whole',
      knuckles: 2,
      gap: 8.4,
      second: false,
      angle: 90,
      reachB: 28,
      rise: 0,
    },
  },
});
