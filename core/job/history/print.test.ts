import { expect, test } from 'vitest';
import { asSlicedWords, modelAsSliced, ranAt, SliceOf } from './print';

test('what the slicing program was told, in the words of the logbook', () => {
  expect(asSlicedWords({})).toBe('');
  expect(asSlicedWords({ lineWidth: 0.42, passes: 1, temperature: 235, holes: 0.1, outsides: -0.05 })).toBe(
    'line 0.42, 1 pass, 235 °C, outsides −0.05 where it was sliced, holes +0.1 where it was sliced',
  );
});

test('a correction of holes makes a hole, and nothing else, what the printer got', () => {
  const sliced = { holes: 0.1, outsides: -0.05 };
  expect(modelAsSliced(20, 'inside', { sliced })).toBeCloseTo(20.1, 9);
  expect(modelAsSliced(20, 'outside', { sliced })).toBeCloseTo(19.95, 9);
  expect(modelAsSliced(20, 'inside', {})).toBe(20);
});

test('a print ran so many hours up to when it was finished; what was not said is not made up', () => {
  const finished = '2026-03-02T00:30:00.000Z';
  expect(ranAt({ finished, hours: 1.5 })).toEqual({ from: '2026-03-01T23:00:00.000Z', to: finished });
  expect(ranAt({ finished, hours: null })).toBeNull();
  expect(ranAt({ finished: null, hours: 2 })).toBeNull();
});

test('a slice of before carried one surface, one of now several', () => {
  expect(SliceOf.parse('skirt')).toEqual(['skirt']);
  expect(SliceOf.parse(['skirt', 'lip'])).toEqual(['skirt', 'lip']);
  expect(SliceOf.parse(null)).toBeNull();
  expect(SliceOf.safeParse([]).success).toBe(false);
});
