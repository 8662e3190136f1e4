import type { MateSpec } from '../../mates';
import { CHAMFER } from '../advice';
import { choice, flag, length, step } from '../fields';
import type { Recipe } from '../recipe';
import { drawing, objectDrawing } from './drawings';
import { refuse } from './refuse';
import { hasFlats, hasFlutes, hasKey, isRound } from './sizes';
import { solid, surfaces } from './solid';

const flatsMate: MateSpec = {
  id: 'flats',
  name: 'Socket over flats',
  dimension: 'flats',
  parameter: 'socketFlats',
  side: 'inside',
  want: 'snug',
  flexibleWant: 'snug',
  form: 'flats',
  active: hasFlats,
};

export const socketKnob: Recipe = {
  id: 'socket-knob',
  version: 2,
  family: 'replacement',
  title: 'Socket knob',
  purpose: 'Turns a shaft or a bolt head by hand: hexagon, square, D, two flats, round or with a key.',
  guide: [
    step(
      'flats',
      'Across the flats',
      'outside-jaws',
      'Flat on flat, not over the corners; each pair once. On a D from the flat to the far side.',
      { critical: true, needed: hasFlats },
    ),
    step('shaft', 'Shaft, diameter', 'outside-jaws', 'Over the round part; turn it between readings.', {
      critical: true,
      needed: isRound,
    }),
    step('key_width', 'Key, width', 'outside-jaws', 'The key itself, taken out if it comes out.', {
      critical: true,
      needed: hasKey,
    }),
    step(
      'over_key',
      'Over shaft and key',
      'outside-jaws',
      'From the far side of the shaft to the top of the key.',
      { needed: hasKey },
    ),
    step(
      'stub',
      'Length that stands out',
      'step',
      'From the end of the shaft to what the knob must not touch.',
    ),
  ],
  mates: [
    flatsMate,
    {
      id: 'shaft',
      name: 'Socket over shaft',
      dimension: 'shaft',
      parameter: 'socketRound',
      side: 'inside',
      want: 'snug',
      flexibleWant: 'snug',
      active: isRound,
    },
    {
      id: 'key',
      name: 'Key in its slot',
      dimension: 'key_width',
      parameter: 'keyWidth',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'snug',
      form: 'flats',
      active: hasKey,
    },
  ],
  parameters: [
    choice('socket', 'Socket', {
      hexagon: 'hexagon',
      square: 'square',
      round: 'round',
      dee: 'D, one flat',
      'two-flats': 'two flats',
      key: 'round with a key',
    }),
    length('socketFlats', 'Across its flats', [1, 120], 'flats.model', { shown: hasFlats }),
    length('socketRound', 'Across its round', [1, 120], 'shaft.model', { shown: isRound }),
    length('keyWidth', 'Slot for the key', [0.8, 60], 'key_width.model', { shown: hasKey }),
    length('overKey', 'From far side to slot’s floor', [1.5, 160], 'over_key + 0.4', { shown: hasKey }),
    flag('through', 'Goes right through', false),
    length('socketDepth', 'Socket depth', [1, 120], 'stub - 0.5', { shown: p => p.through !== true }),
    choice('grip', 'Grip', { lobes: 'with lobes', flutes: 'round, with flutes', round: 'round' }),
    length('gripDiameter', 'Grip, across', [6, 250], '44'),
    length('lobes', 'Lobes', [3, 12], '5', { measure: 'count', shown: p => p.grip === 'lobes' }),
    length('flutes', 'Flutes', [6, 48], '16', { measure: 'count', shown: hasFlutes }),
    length('fluteDepth', 'Flutes, depth', [0.3, 12], '1', { shown: hasFlutes }),
    length('height', 'Height', [2, 150], '14'),
    flag('setScrew', 'Set screw from the side', false),
    length('screwHole', 'Its hole', [1, 20], '2.5', { shown: p => p.setScrew === true }),
    length('screwHeight', 'Its height', [1, 140], 'socketDepth / 2', { shown: p => p.setScrew === true }),
    length('leadIn', 'Lead-in at the mouth', [0, 4], '0.6', { group: 'more', sensible: CHAMFER }),
  ],
  refuse,
  drawing,
  objectDrawing,
  solid,
  surfaces,
  checks: () => [],
  demo: {
    name: 'a foot-stretcher’s worn hexagon bolt',
    sizes: { flats: 13, shaft: 16, key_width: 5, over_key: 18, stub: 10 },
    parameters: {
      socket: 'hexagon',
      socketFlats: 13.3,
      socketRound: 16.3,
      keyWidth: 5.2,
      overKey: 18.4,
      through: false,
      socketDepth: 9.5,
      grip: 'lobes',
      gripDiameter: 50,
      lobes: 5,
      flutes: 16,
      fluteDepth: 1,
      height: 14,
      setScrew: false,
      screwHole: 2.5,
      screwHeight: 4.5,
      leadIn: 0.6,
    },
  },
};
