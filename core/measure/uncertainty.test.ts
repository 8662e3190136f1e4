import { describe, expect, test } from 'vitest';
import { combine, coverageFactor, effectiveDegreesOfFreedom } from './uncertainty';

describe('JCGM 100:2008 (GUM), annex H.1: calibration of an end gauge', () => {
  // Table H.1 and H.1.6, nm: the components of u(l) and their degrees of freedom.
  const components = [
    { name: 'standard', u: 25, degreesOfFreedom: 18 },
    { name: 'difference', u: 9.7, degreesOfFreedom: 25.6 },
    { name: 'expansion difference', u: 2.9, degreesOfFreedom: 50 },
    { name: 'temperature difference', u: 16.6, degreesOfFreedom: 2 },
  ];

  test('combined standard uncertainty is 32 nm', () => {
    expect(combine(components)).toBeCloseTo(31.7, 1);
  });

  test('effective degrees of freedom are 16, t99 is 2.92, U99 is 93 nm', () => {
    const dof = effectiveDegreesOfFreedom(components);
    expect(Math.floor(dof)).toBe(16);
    expect(coverageFactor(0.99, dof)).toBeCloseTo(2.92, 2);
    // The guide rounds u to 32 before it multiplies.
    expect(32 * coverageFactor(0.99, dof)).toBeCloseTo(93, 0);
  });
});

describe('JCGM 100:2008, table G.2: t for 95 %', () => {
  test.each([
    [1, 12.71],
    [2, 4.3],
    [3, 3.18],
    [5, 2.57],
    [10, 2.23],
    [20, 2.09],
    [50, 2.01],
    [100, 1.984],
  ])('%i degrees of freedom: %f', (dof, t) => expect(coverageFactor(0.95, dof)).toBeCloseTo(t, 2));

  test('infinite degrees of freedom: 1.960', () =>
    expect(coverageFactor(0.95, Number.POSITIVE_INFINITY)).toBeCloseTo(1.96, 3));
});

test('degrees of freedom are infinite when no part was estimated from readings', () => {
  expect(effectiveDegreesOfFreedom([{ name: 'a', u: 1, degreesOfFreedom: Number.POSITIVE_INFINITY }])).toBe(
    Number.POSITIVE_INFINITY,
  );
});
