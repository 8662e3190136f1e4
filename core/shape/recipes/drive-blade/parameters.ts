import type { ValuesOf } from '../define-recipe';
import { choice, flag, length } from '../fields';

export const parameters = [
  choice('tip', 'Its tip is', {
    blade: 'a blade',
    square: 'a square',
    hexagon: 'a hexagon',
    fork: 'a fork, over a flat',
  }),
  length('thickness', 'Tip, across its flats', [1, 80], 'slot.model'),
  length('bladeWidth', 'Blade, width', [1.5, 120], 'slot_length - 0.4'),
  length('forkSlot', 'Fork, slot', [1, 80], 'tang.model'),
  length('tipLength', 'Tip, length', [1, 120], 'slot_depth - 0.5'),
  length('shank', 'Shank, across', [2, 150], 'bore.model'),
  length('shankLength', 'Shank, length', [2, 250], '25'),
  flag('stepped', 'A second round section', false),
  length('stepAcross', 'Second section, across', [1.5, 150], 'shank * 0.95'),
  length('stepLength', 'Second section, length', [1, 250], '10'),
  flag('rib', 'A rib along the shank', false),
  length('ribWidth', 'Rib, width', [0.8, 60], 'keyway.model'),
  length('ribOut', 'Rib stands out by', [0.4, 60], '1.5'),
  length('ribLength', 'Rib, length down from the shank’s end', [1, 250], 'shankLength / 2'),
  choice('headShape', 'Its other end is', {
    hexagon: 'a hexagon head',
    round: 'a round head',
    blade: 'another blade',
    square: 'another square',
  }),
  length('head', 'Head, across', [5, 200], '24', {
    // Wider than the shank, and than any socket in it.
    defaultFor: p => {
      const sunk = { none: '0', slot: 'socketLong * 1.15 + 6' }[String(p.socket)] ?? 'socketSize * 1.5 + 6';
      return `max(24; shank * 1.25 + 4; ${sunk})`;
    },
  }),
  length('headHeight', 'Head, height', [2, 100], '10'),
  choice('socket', 'Socket in the head', {
    none: 'none',
    slot: 'a slot',
    square: 'a square',
    hexagon: 'a hexagon',
  }),
  length('socketSize', 'Socket, across its flats', [1, 120], 'spindle.model'),
  length('socketLong', 'Socket’s slot, length', [1.5, 150], 'socketSize * 2'),
  length('socketDepth', 'Socket, depth', [1, 150], 'headHeight * 0.7'),
  length('thicknessB', 'Other tip, across its flats', [1, 80], 'slot_b.model'),
  length('bladeWidthB', 'Other blade, width', [1.5, 120], 'slot_b_length - 0.4'),
  length('tipLengthB', 'Other tip, length', [1, 120], 'tipLength'),
];

export type P = ValuesOf<typeof parameters>;
