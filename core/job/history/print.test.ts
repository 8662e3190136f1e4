import { expect, test } from 'vitest';
import { asSlicedWords, modelAsSliced } from './print';

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
