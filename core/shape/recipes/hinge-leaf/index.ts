import { PLATE, WALL } from '../advice';
import { choice, flag, length, step } from '../fields';
import type { Recipe } from '../recipe';
import { drawing, objectDrawing } from './drawings';
import { refuse } from './refuse';
import { hasKnuckles, hasSecond, isLeaf, isLug, surfaces } from './sizes';
import { solid } from './solid';

export const hingeLeaf: Recipe = {
  id: 'hinge-leaf',
  version: 2,
  family: 'replacement',
  title: 'Lug or hinge leaf',
  purpose:
    'A barrel for a pin on a plate with screw holes, whole or in knuckles, straight or at an angle; or only the lug that broke off, on a new base.',
  guide: [
    step('pin', 'Pin, outside', 'outside-jaws', 'Where it is not worn; turn it between readings.', {
      critical: true,
    }),
    step('between', 'Room along the pin', 'inside-jaws', 'Between the lugs that the leaf goes between.'),
    step('screw', 'Screw, over its thread', 'outside-jaws', 'The screws you have.'),
    step('knuckle', 'Other leaf’s knuckle, width', 'outside-jaws', 'Along the pin; the widest of them.', {
      critical: true,
      needed: hasKnuckles,
    }),
    step(
      'pin_height',
      'Pin’s middle over the seat',
      'step',
      'From the seat to the pin’s top, less half the pin.',
      {
        needed: isLug,
      },
    ),
  ],
  mates: [
    {
      id: 'pin',
      name: 'Barrel over pin',
      dimension: 'pin',
      parameter: 'pinBore',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'slide',
      lying: true,
      active: () => true,
    },
    {
      id: 'gap',
      name: 'Gap for the other knuckle',
      dimension: 'knuckle',
      parameter: 'gap',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'slide',
      form: 'flats',
      active: hasKnuckles,
    },
  ],
  parameters: [
    choice('style', 'It is', { leaf: 'a hinge leaf', lug: 'a lug on a new base' }),
    length('pinBore', 'Bore for the pin', [0.8, 80], 'pin.model'),
    length('length', 'Length along the pin', [3, 300], 'between - 0.4'),
    length('wall', 'Wall around the pin', [0.8, 40], '2.4', { sensible: WALL }),
    length('plate', 'Plate thickness', [1, 40], '3', { sensible: PLATE }),
    length('reach', 'Plate reaches from the pin', [4, 300], '28', { shown: isLeaf }),
    length('pinHeight', 'Pin over the seat', [2, 300], 'pin_height', { shown: isLug }),
    length('baseLong', 'Base, across the pin', [6, 400], 'pinBore * 2 + 34', { shown: isLug }),
    length('baseWide', 'Base, along the pin', [3, 400], 'length', { shown: isLug }),
    length('root', 'Fillet at the root', [0.4, 40], '4', { shown: isLug }),
    length('holes', 'Screw holes, each plate', [0, 8], '2', { measure: 'count' }),
    length('screwHole', 'Screw hole', [0.8, 20], 'screw + 0.5'),
    choice('barrel', 'Its barrel is', { whole: 'in one', knuckles: 'in knuckles' }, { shown: isLeaf }),
    length('knuckles', 'Knuckles', [2, 8], '2', { measure: 'count', shown: hasKnuckles }),
    length('gap', 'Gap between knuckles', [0.8, 200], 'knuckle.model', { shown: hasKnuckles }),
    flag('second', 'A second plate, at an angle', false, { shown: isLeaf }),
    length('angle', 'Angle between the plates', [70, 180], '90', { measure: 'angle', shown: hasSecond }),
    length('reachB', 'Second plate reaches from the pin', [4, 300], 'reach', { shown: hasSecond }),
    length('rise', 'Pin higher above the plate by', [0, 80], '0', { group: 'more', shown: isLeaf }),
  ],
  refuse,
  drawing,
  objectDrawing,
  solid,
  surfaces,
  checks: () => [],
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
};
