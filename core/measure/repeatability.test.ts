import { expect, test } from 'vitest';
import { learnRepeatability } from './repeatability';

test('pooled within groups, shrunk towards what was believed: worked by hand', () => {
  // Two groups, s² = 0.0002 each with one degree of freedom; believed 0.03 with four: (4·0.0009 + 2·0.0002) / 6.
  const learned = learnRepeatability(
    [
      [10, 10.02],
      [50, 50.02],
    ],
    0.03,
    0.01,
  )!;
  expect(learned.sd).toBeCloseTo(Math.sqrt((4 * 0.0009 + 2 * 0.0002) / 6), 9);
  expect(learned).toMatchObject({ readings: 4, things: 2, degreesOfFreedom: 2 });
});

test('many readings outweigh the belief', () => {
  const groups = Array.from({ length: 200 }, (_, i) => [i + 20, i + 20.01]);
  expect(learnRepeatability(groups, 0.1, 0.01)!.sd).toBeLessThan(0.02);
});

test('a slip is not the hand’s spread, a lone reading says nothing, and steps bound it', () => {
  expect(learnRepeatability([[31.7]], 0.03, 0.01)).toBeNull();
  expect(learnRepeatability([[31.7, 31.7, 31.71, 99]], 0.03, 0.01)).toBeNull();
  const same = Array.from({ length: 500 }, () => [8, 8, 8]);
  expect(learnRepeatability(same, 0.03, 0.5)!.sd).toBeCloseTo(0.5 / Math.sqrt(12), 9);
});
