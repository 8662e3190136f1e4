import { describe, expect, test } from 'vitest';
import { box } from '../../testing/solids';
import { bedFit, extentAt, footprintOf, leastRectangle } from './footprint';
import { posed } from './pose';

const BED = { width: 210, depth: 210 };
const bar = (length: number) => footprintOf(box([length, 20, 5]));

describe('a bar on a bed', () => {
  test('20 wide it fits on 210 × 210 up to 210 √2 − 20', () => {
    const longest = 210 * Math.SQRT2 - 20;
    const fits = bedFit(bar(longest - 0.02), BED);
    expect(fits.fits).toBe(true);
    expect(fits.turn % 90).toBeCloseTo(45, 1);
    const [w, d] = extentAt(bar(longest - 0.02), fits.turn);
    expect(Math.max(w, d)).toBeLessThan(210 + 1e-6);
    expect(bedFit(bar(longest + 0.1), BED)).toMatchObject({ fits: false });
  });
  test('as it is where that fits, and says how much is missing where none does', () => {
    expect(bedFit(bar(200), BED)).toEqual({ fits: true, turn: 0, over: -10 });
    const found = bedFit(bar(300), BED);
    // At 45° it covers (300 + 20) / √2 each way.
    expect(found.over).toBeCloseTo(320 / Math.SQRT2 - 210, 3);
  });
  test('a longer bed one way is used', () => {
    expect(bedFit(bar(280), { width: 100, depth: 300 })).toMatchObject({ fits: true });
  });
});

test('the least rectangle of a leaning bar is the bar', () => {
  const leaning = posed(box([60, 20, 5]), { down: [0, 0, -1], turn: 33 });
  const { length, width } = leastRectangle(footprintOf(leaning));
  expect(length).toBeCloseTo(60, 6);
  expect(width).toBeCloseTo(20, 6);
});
