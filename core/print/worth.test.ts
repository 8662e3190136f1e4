import { expect, test } from 'vitest';
import { sliceSaves } from './worth';

test('a slice goes first where the part takes long or is likely to be wrong', () => {
  // Two hours for the part, ten minutes for the slice: worth it at even odds, but not when success is nearly certain.
  expect(sliceSaves(0.5, 10, 120)).toBeCloseTo(0.5 * 135 - 15, 9);
  expect(sliceSaves(0.95, 10, 120)).toBeLessThan(0);
  expect(sliceSaves(0.5, 10, 12)).toBeLessThan(0);
});
