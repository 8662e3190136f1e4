import type { KeysOf } from '../define-recipe';
import { step } from '../fields';
import { inTurns, isCoupler, isPlug, odd } from './sizes';

export const guide = [
  step(
    'neck',
    'Neck, over its ridges',
    'outside-jaws',
    'Across opposite ridges; turn it and keep the largest.',
    { needed: inTurns },
  ),
  step(
    'socket',
    'Neck, over its grooves inside',
    'inside-jaws',
    'The tips of the inside jaws in opposite grooves; rock them and keep the largest.',
    { needed: isPlug },
  ),
  step(
    'pitch',
    'From one turn to the next',
    'span',
    'Over several turns, divided by their number: a single turn is read badly.',
    { needed: odd('') },
  ),
  step('ridge_height', 'Ridge, height', 'depth-rod', 'From the crest down to the neck between two turns.', {
    needed: odd(''),
  }),
  step('neck_height', 'Neck, height', 'step', 'From its rim to what the cover must not touch.', {
    bounds: 'length',
  }),
  step('neck_b', 'Neck B, over its ridges', 'outside-jaws', 'The other neck, across opposite ridges.', {
    needed: isCoupler,
  }),
  step('pitch_b', 'B, from one turn to the next', 'span', 'Over several turns, divided by their number.', {
    needed: odd('B', isCoupler),
  }),
];

export type Asked = KeysOf<typeof guide>;
