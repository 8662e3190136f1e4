import { expect, test } from 'vitest';
import { threadFigure } from './figure';

const keys = { diameter: 'd', span: 's', ridgeHeight: 'h', ridgeWidth: 'w' };

test.each([
  ['external', 'major', 44],
  ['external', 'minor', 32],
  ['internal', 'minor', 32],
  ['internal', 'major', 44],
] as const)(
  '%s by its %s: every dimension is on the figure, the diameter where it is reached',
  (side, measured, size) => {
    const { dimensions, frame } = threadFigure({ ...keys, side, measured });
    expect(dimensions.map(d => d.key).sort()).toEqual(['d', 'h', 's', 'w']);
    const diameter = dimensions.find(d => d.key === 'd')!;
    expect(diameter.to[1] - diameter.from[1]).toBe(size);
    expect(frame.every(Number.isFinite)).toBe(true);
  },
);

test('what is not measured is not dimensioned', () => {
  const figure = threadFigure({
    ...keys,
    ridgeHeight: null,
    ridgeWidth: null,
    side: 'external',
    measured: 'major',
  });
  expect(figure.dimensions).toHaveLength(2);
});
