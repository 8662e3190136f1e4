import { choice, length } from '../recipes/fields';
import type { ParameterSpec, Parameters } from '../recipes/parameters';

/** Parameters that several additions share. Names are short: the addition's own name is put in front of them. */
type When = (p: Parameters) => boolean;

export const place = (usual: string, label = 'Sits on', shown?: When): ParameterSpec => ({
  kind: 'place',
  name: 'place',
  label,
  group: 'main',
  default: usual,
  ...(shown ? { shown } : {}),
});

/** The origin of a new addition: a lead-in at one end does not move the face's middle. */
export const FROM_MIDDLE = { from: 'middle' } as const;

/** Its place on the face: from the middle of the face, or from the part's origin. */
export const position = (shown?: When): ParameterSpec[] => [
  length('x', 'To the right', [-400, 400], '0', { shown }),
  length('y', 'Upwards on the face', [-400, 400], '0', { shown }),
  choice(
    'from',
    'Counted from',
    {
      face: 'the middle of its flat',
      middle: 'the middle of the face, chamfers and all',
      part: 'the part’s own zero',
    },
    { group: 'more', shown },
  ),
];

export const turning = (label = 'Turned on the face', usual = '0'): ParameterSpec =>
  length('turn', label, [-360, 360], usual, { measure: 'angle', group: 'more' });

/** Several copies. */
export const copies = (): ParameterSpec[] => {
  const row: When = p => p.copies === 'row' || p.copies === 'grid';
  const grid: When = p => p.copies === 'grid';
  const ring: When = p => p.copies === 'ring';
  return [
    choice(
      'copies',
      'How many',
      { one: 'one', row: 'a row', grid: 'a grid', ring: 'around a circle' },
      { group: 'more' },
    ),
    length('count', 'In the row, or around', [2, 60], '2', {
      measure: 'count',
      group: 'more',
      shown: p => p.copies !== 'one',
    }),
    length('pitch', 'From one to the next', [0.5, 400], '10', { group: 'more', shown: row }),
    choice(
      'runs',
      'The row runs',
      { right: 'to the right', up: 'upwards on the face' },
      { group: 'more', shown: row },
    ),
    length('rows', 'Rows', [2, 30], '2', { measure: 'count', group: 'more', shown: grid }),
    length('rowPitch', 'From row to row', [0.5, 400], '10', { group: 'more', shown: grid }),
    length('step', 'From one to the next, 0 for evenly', [-180, 180], '0', {
      measure: 'angle',
      group: 'more',
      shown: ring,
    }),
  ];
};
