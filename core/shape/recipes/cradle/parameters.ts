import { PLATE, WALL } from '../advice';
import type { ValuesOf } from '../define-recipe';
import { choice, length } from '../fields';
import type { Parameters } from '../parameters';

/**
 * When it holds by the top and bottom edges it may be narrower than its slab, which slides in from the side; only on a
 * wall.
 */
export const gripsEnds = (p: Parameters): boolean => p.grips === 'ends' && p.stand === 'wall';

export const parameters = [
  choice('stand', 'It stands', { wall: 'on a wall', foot: 'on a foot' }),
  choice('grips', 'It grips', {
    sides: 'the left and right edges',
    ends: 'the top and bottom edges',
  }),
  length('pocketWidth', 'Pocket, width', [6, 400], 'slab_width.model'),
  length('pocketHeight', 'Pocket, height of the slab', [6, 400], 'slab_height.model'),
  length('pocketThickness', 'Pocket, thickness', [1.5, 150], 'slab_thickness.model'),
  length('height', 'Sides, along the edges they grip', [6, 400], 'slab_height * 0.6', {
    defaultFor: p => (gripsEnds(p) ? 'slab_width * 0.6' : 'slab_height * 0.6'),
  }),
  length('lip', 'Lips reach over by', [0.6, 30], '2'),
  length('window', 'Opening in the floor, for a plug', [0, 390], 'slab_width * 0.5', {
    defaultFor: p => (gripsEnds(p) ? 'slab_height * 0.5' : 'slab_width * 0.5'),
  }),
  length('screwHole', 'Screw hole (0 is none)', [0, 20], 'screw + 0.5'),
  length('lean', 'Leans back by', [0, 40], '15', { measure: 'angle' }),
  length('footFront', 'Foot in front', [0, 200], '15'),
  length('footBehind', 'Foot behind', [0, 200], '25'),
  length('slabWeight', 'Slab weighs, g', [1, 5000], '150', { measure: 'count' }),
  length('slabHigh', 'Slab, height', [5, 600], 'slab_height', { group: 'more' }),
  length('clearLeft', 'Left side open over', [0, 380], '0'),
  length('clearLeftFrom', 'Left opening begins at', [0, 380], '10'),
  length('clearRight', 'Right side open over', [0, 380], '0'),
  length('clearRightFrom', 'Right opening begins at', [0, 380], '10'),
  length('footThickness', 'Foot, thickness', [1.6, 40], '4', { group: 'more' }),
  length('wall', 'Sides', [1.2, 30], '2.4', { group: 'more', sensible: WALL }),
  length('back', 'Back', [1.2, 30], '3', { group: 'more', sensible: PLATE }),
  length('stop', 'Floor', [1.2, 40], '2.4', { group: 'more' }),
];

export type P = ValuesOf<typeof parameters>;
