import { PLATE, WALL } from '../advice';
import type { ValuesOf } from '../define-recipe';
import { choice, flag, length } from '../fields';

export const parameters = [
  choice('style', 'It is', { leaf: 'a hinge leaf', lug: 'a lug on a new base' }),
  length('pinBore', 'Bore for the pin', [0.8, 80], 'pin.model'),
  length('length', 'Length along the pin', [3, 300], 'between - 0.4'),
  length('wall', 'Wall around the pin', [0.8, 40], '2.4', { sensible: WALL }),
  length('plate', 'Plate thickness', [1, 40], '3', { sensible: PLATE }),
  length('reach', 'Plate reaches from the pin', [4, 300], '28'),
  length('pinHeight', 'Pin over the seat', [2, 300], 'pin_height'),
  length('baseLong', 'Base, across the pin', [6, 400], 'pinBore * 2 + 34'),
  length('baseWide', 'Base, along the pin', [3, 400], 'length'),
  length('root', 'Fillet at the root', [0.4, 40], '4'),
  length('holes', 'Screw holes, each plate', [0, 8], '2', { measure: 'count' }),
  length('screwHole', 'Screw hole', [0.8, 20], 'screw + 0.5'),
  choice('barrel', 'Its barrel is', { whole: 'in one', knuckles: 'in knuckles' }),
  length('knuckles', 'Knuckles', [2, 8], '2', { measure: 'count' }),
  length('gap', 'Gap between knuckles', [0.8, 200], 'knuckle.model'),
  flag('second', 'A second plate, at an angle', false),
  length('angle', 'Angle between the plates', [70, 180], '90', { measure: 'angle' }),
  length('reachB', 'Second plate reaches from the pin', [4, 300], 'reach'),
  length('rise', 'Pin higher above the plate by', [0, 80], '0', { group: 'more' }),
];

export type P = ValuesOf<typeof parameters>;
