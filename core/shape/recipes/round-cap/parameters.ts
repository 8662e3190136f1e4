import { CHAMFER, WALL } from '../advice';
import type { ValuesOf } from '../define-recipe';
import { choice, flag, length } from '../fields';

export const parameters = [
  choice('style', 'Goes', { over: 'over the rim', into: 'into the bore', both: 'over and into' }),
  length('skirtDiameter', 'Skirt, inside diameter', [2, 400], 'rim.model'),
  length('skirtDepth', 'Skirt depth', [1, 300], 'rim_height - 0.2'),
  length('plugDiameter', 'Plug, outside diameter', [2, 400], 'bore.model'),
  length('plugDepth', 'Plug depth', [1, 300], '8'),
  length('wall', 'Skirt wall', [0.4, 30], '1.6', { sensible: WALL }),
  length('endThickness', 'End thickness', [0.4, 50], '2'),
  choice('lip', 'Snap lip', { none: 'none', skirt: 'inside the skirt', plug: 'around the plug' }),
  length('lipDiameter', 'Lip, inside diameter', [1, 400], 'groove.model'),
  length('beadDiameter', 'Bead, outside diameter', [1, 400], 'inner_groove.model'),
  length('lipFrom', 'Lip from the end’s inner face', [0.5, 200], 'groove_from + 0.2'),
  length('lipWidth', 'Lip width', [0.4, 50], 'groove_width - 0.6'),
  flag('tab', 'Pull tab', true),
  length('slots', 'Slots in the wall that gives', [0, 16], '0', { measure: 'count' }),
  choice('slotsIn', 'The slots cut', {
    wall: 'through the wall: fingers',
    lip: 'the lip only: the wall stays dust-tight',
  }),
  length('slotDepth', 'Slots, from the mouth', [1, 200], '6'),
  length('slotWidth', 'Slots, width', [0.5, 20], '1.2', { group: 'more' }),
  flag('strap', 'Strap with a ring', false),
  length('ringDiameter', 'Ring, inside diameter', [2, 400], 'neck.model'),
  length('strapLength', 'Strap, rim to ring', [4, 400], '40'),
  length('strapWidth', 'Strap and ring, width', [2, 60], '5', { group: 'more' }),
  length('strapThickness', 'Strap, thickness', [0.6, 20], '1.6', { group: 'more' }),
  length('tabLength', 'Tab length', [3, 100], '12', { group: 'more' }),
  length('tabWidth', 'Tab width', [3, 100], '12', { group: 'more' }),
  length('plugWall', 'Plug wall (0 is solid)', [0, 100], '1.6', { group: 'more' }),
  length('endDiameter', 'Flange diameter', [3, 500], 'plugDiameter + 6', { group: 'more' }),
  length('leadIn', 'Lead-in chamfer', [0, 5], '0.6', { group: 'more', sensible: CHAMFER }),
  length('outerFillet', 'Outer fillet', [0, 20], '1', { group: 'more' }),
];

export type P = ValuesOf<typeof parameters>;

/** The features that a set of parameters asks for. */
export const has = {
  skirt: (p: P) => p.style !== 'into',
  plug: (p: P) => p.style !== 'over',
  lip: (p: P) => p.lip === 'skirt' && p.style !== 'into',
  bead: (p: P) => p.lip === 'plug' && p.style !== 'over',
  ridge: (p: P) => has.lip(p) || has.bead(p),
  tab: (p: P) => p.tab,
  slots: (p: P) => p.slots > 0,
  /** Only the lip is divided: it gets softer, and the wall stays whole. */
  lipSlots: (p: P) => p.slots > 0 && p.slotsIn === 'lip' && has.ridge(p),
  wallSlots: (p: P) => p.slots > 0 && !has.lipSlots(p),
  strap: (p: P) => p.strap,
};

/** The wall that gives: the one with the ridge, otherwise the outer one. */
export const slottedWall = (p: P): 'skirt' | 'plug' => (has.bead(p) || !has.skirt(p) ? 'plug' : 'skirt');
