import { CHAMFER } from '../advice';
import type { ValuesOf } from '../define-recipe';
import { choice, flag, length } from '../fields';

export const parameters = [
  choice('socket', 'Socket', {
    hexagon: 'hexagon',
    square: 'square',
    round: 'round',
    dee: 'D, one flat',
    'two-flats': 'two flats',
    key: 'round with a key',
  }),
  length('socketFlats', 'Across its flats', [1, 120], 'flats.model'),
  length('socketRound', 'Across its round', [1, 120], 'shaft.model'),
  length('keyWidth', 'Slot for the key', [0.8, 60], 'key_width.model'),
  length('overKey', 'From far side to slot’s floor', [1.5, 160], 'over_key + 0.4'),
  flag('through', 'Goes right through', false),
  length('socketDepth', 'Socket depth', [1, 120], 'stub - 0.5'),
  choice('grip', 'Grip', { lobes: 'with lobes', flutes: 'round, with flutes', round: 'round' }),
  length('gripDiameter', 'Grip, across', [6, 250], '44', {
    // Large enough to leave a wall around the socket's corners.
    defaultFor: p =>
      p.socket === 'hexagon'
        ? 'max(44; socketFlats * 1.7 + 8)'
        : p.socket === 'square' || p.socket === 'two-flats'
          ? 'max(44; socketFlats * 2.2 + 8)'
          : p.socket === 'key'
            ? 'max(44; overKey * 2 + 10)'
            : 'max(44; socketRound * 1.5 + 8)',
  }),
  length('lobes', 'Lobes', [3, 12], '5', { measure: 'count' }),
  length('flutes', 'Flutes', [6, 48], '16', { measure: 'count' }),
  length('fluteDepth', 'Flutes, depth', [0.3, 12], '1'),
  length('height', 'Height', [2, 150], '14', {
    defaultFor: p => (p.through === true ? '14' : 'max(14; socketDepth + 3)'),
  }),
  flag('setScrew', 'Set screw from the side', false),
  length('screwHole', 'Its hole', [1, 20], '2.5'),
  length('screwHeight', 'Its height', [1, 140], 'socketDepth / 2'),
  length('leadIn', 'Lead-in at the mouth', [0, 4], '0.6', { group: 'more', sensible: CHAMFER }),
];

export type P = ValuesOf<typeof parameters>;
