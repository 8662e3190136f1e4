import type { KeysOf } from '../define-recipe';
import { step } from '../fields';
import { hasFlats, hasKey, isRound } from './sizes';

export const guide = [
  step(
    'flats',
    'Across the flats',
    'outside-jaws',
    'Flat on flat, not over the corners; each pair once. On a D from the flat to the far side.',
    { needed: hasFlats },
  ),
  step('shaft', 'Shaft, diameter', 'outside-jaws', 'Over the round part; turn it between readings.', {
    needed: isRound,
  }),
  step('key_width', 'Key, width', 'outside-jaws', 'The key itself, taken out if it comes out.', {
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
    { needed: p => p.through !== true, bounds: 'socketDepth' },
  ),
];

export type Asked = KeysOf<typeof guide>;
