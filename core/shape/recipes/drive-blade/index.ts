import type { MateSpec } from '../../mates';
import { choice, flag, length, step } from '../fields';
import type { Recipe } from '../recipe';
import { drawing, objectDrawing } from './drawings';
import { refuse } from './refuse';
import { bothTips, hasHead, hasRib, hasSocket, hasStep, isBlade, isFork, surfaces } from './sizes';
import { solid } from './solid';

const mate = (
  id: string,
  name: string,
  dimension: string,
  parameter: string,
  rest: Pick<MateSpec, 'side' | 'want' | 'active'> & Partial<MateSpec>,
): MateSpec => ({ id, name, dimension, parameter, flexibleWant: rest.want, ...rest });

export const driveBlade: Recipe = {
  id: 'drive-blade',
  version: 2,
  family: 'replacement',
  title: 'Drive key or blade',
  purpose:
    'Turns a slot, a square or a flat deep in a bore: sections in series, a rib, and a head, a socket or a second tip at its other end.',
  guide: [
    step(
      'slot',
      'Slot or socket, across its flats',
      'inside-jaws',
      'The tips of the inside jaws, deep in it: slots are worn at their mouths.',
      { critical: true, needed: p => !isFork(p) },
    ),
    step('slot_length', 'Slot, length', 'inside-jaws', 'The long way.', { needed: isBlade }),
    step(
      'tang',
      'Flat that it goes over, thickness',
      'jaw-tips',
      'Deep down, where it is not rounded over.',
      {
        critical: true,
        needed: isFork,
      },
    ),
    step('bore', 'Bore, inside', 'inside-jaws', 'In which the shank runs; the largest of several readings.', {
      critical: true,
    }),
    step('slot_depth', 'Slot or flat, depth', 'depth-rod', 'From its rim to its bottom.'),
    step('keyway', 'Keyway, width', 'inside-jaws', 'Where the rib runs, at both its ends.', {
      critical: true,
      needed: hasRib,
    }),
    step('slot_b', 'Other end: slot or square, width', 'inside-jaws', 'Deep in it, as for the first.', {
      critical: true,
      needed: bothTips,
    }),
    step('slot_b_length', 'Other end: slot, length', 'inside-jaws', 'The long way.', {
      needed: p => p.headShape === 'blade',
    }),
    step('spindle', 'Spindle that turns it, across its flats', 'outside-jaws', 'What goes into the head.', {
      critical: true,
      needed: hasSocket,
    }),
  ],
  mates: [
    mate('tip', 'Tip in its slot', 'slot', 'thickness', {
      side: 'outside',
      want: 'snug',
      form: 'flats',
      active: p => !isFork(p),
    }),
    mate('fork', 'Fork over the flat', 'tang', 'forkSlot', {
      side: 'inside',
      want: 'snug',
      form: 'flats',
      active: isFork,
    }),
    mate('shank', 'Shank in the bore', 'bore', 'shank', {
      side: 'outside',
      want: 'slide',
      active: () => true,
    }),
    mate('rib', 'Rib in its keyway', 'keyway', 'ribWidth', {
      side: 'outside',
      want: 'slide',
      form: 'flats',
      active: hasRib,
    }),
    mate('tipB', 'Other tip in its slot', 'slot_b', 'thicknessB', {
      side: 'outside',
      want: 'snug',
      form: 'flats',
      active: bothTips,
    }),
    mate('socket', 'Socket over the spindle', 'spindle', 'socketSize', {
      side: 'inside',
      want: 'snug',
      form: 'flats',
      active: hasSocket,
    }),
  ],
  parameters: [
    choice('tip', 'Its tip is', {
      blade: 'a blade',
      square: 'a square',
      hexagon: 'a hexagon',
      fork: 'a fork, over a flat',
    }),
    length('thickness', 'Tip, across its flats', [1, 80], 'slot.model', { shown: p => !isFork(p) }),
    length('bladeWidth', 'Blade, width', [1.5, 120], 'slot_length - 0.4', { shown: isBlade }),
    length('forkSlot', 'Fork, slot', [1, 80], 'tang.model', { shown: isFork }),
    length('tipLength', 'Tip, length', [1, 120], 'slot_depth - 0.5'),
    length('shank', 'Shank, across', [2, 150], 'bore.model'),
    length('shankLength', 'Shank, length', [2, 250], '25'),
    flag('stepped', 'A second round section', false),
    length('stepAcross', 'Second section, across', [1.5, 150], 'shank * 0.95', { shown: hasStep }),
    length('stepLength', 'Second section, length', [1, 250], '10', { shown: hasStep }),
    flag('rib', 'A rib along the shank', false),
    length('ribWidth', 'Rib, width', [0.8, 60], 'keyway.model', { shown: hasRib }),
    length('ribOut', 'Rib stands out by', [0.4, 60], '1.5', { shown: hasRib }),
    length('ribLength', 'Rib, length down from the shank’s end', [1, 250], 'shankLength / 2', {
      shown: hasRib,
    }),
    choice('headShape', 'Its other end is', {
      hexagon: 'a hexagon head',
      round: 'a round head',
      blade: 'another blade',
      square: 'another square',
    }),
    length('head', 'Head, across', [5, 200], '24', { shown: hasHead }),
    length('headHeight', 'Head, height', [2, 100], '10', { shown: hasHead }),
    choice(
      'socket',
      'Socket in the head',
      { none: 'none', slot: 'a slot', square: 'a square', hexagon: 'a hexagon' },
      { shown: hasHead },
    ),
    length('socketSize', 'Socket, across its flats', [1, 120], 'spindle.model', { shown: hasSocket }),
    length('socketLong', 'Socket’s slot, length', [1.5, 150], 'socketSize * 2', {
      shown: p => hasSocket(p) && p.socket === 'slot',
    }),
    length('socketDepth', 'Socket, depth', [1, 150], 'headHeight * 0.7', { shown: hasSocket }),
    length('thicknessB', 'Other tip, across its flats', [1, 80], 'slot_b.model', { shown: bothTips }),
    length('bladeWidthB', 'Other blade, width', [1.5, 120], 'slot_b_length - 0.4', {
      shown: p => p.headShape === 'blade',
    }),
    length('tipLengthB', 'Other tip, length', [1, 120], 'tipLength', { shown: bothTips }),
  ],
  refuse,
  drawing,
  objectDrawing,
  solid,
  surfaces,
  checks: () => [],
  demo: {
    name: 'the folding rack’s height crank',
    sizes: {
      slot: 5,
      slot_length: 9,
      tang: 4,
      bore: 12,
      slot_depth: 8,
      keyway: 3.2,
      slot_b: 6,
      slot_b_length: 10,
      spindle: 8,
    },
    parameters: {
      tip: 'blade',
      thickness: 4.85,
      bladeWidth: 8.6,
      forkSlot: 4.2,
      tipLength: 7.5,
      shank: 11.6,
      shankLength: 25,
      stepped: false,
      stepAcross: 11,
      stepLength: 10,
      rib: false,
      ribWidth: 3,
      ribOut: 1.5,
      ribLength: 12,
      headShape: 'hexagon',
      head: 24,
      headHeight: 10,
      socket: 'none',
      socketSize: 8.2,
      socketLong: 14,
      socketDepth: 7,
      thicknessB: 5.8,
      bladeWidthB: 9.6,
      tipLengthB: 8,
    },
  },
};
