import { describe, expect, test } from 'vitest';
import { proposeFit } from './propose';
import { clearanceWindow, strainAt } from './wants';

const plain = { offset: { mean: 0, sd: 0 }, scale: { mean: 1, sd: 0 }, repeatability: 0.04 };
const reading = { value: 31.7, u: 0.03 };
const snug = { min: 0.05, max: 0.2, unit: 'mm' as const };
const sum = (steps: { amount: number }[]) => steps.reduce((total, s) => total + s.amount, 0);

/** Abramowitz and Stegun 26.2.17, |error| < 7.5e-8: another way to Φ than the one the code takes. */
function phi(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z > 0 ? 1 - tail : tail;
}

describe('the number most likely to fit', () => {
  test('with even errors it is the window’s middle, and the ledger adds up', () => {
    const fit = proposeFit({
      side: 'inside',
      reading,
      want: snug,
      printer: { ...plain, offset: { mean: -0.22, sd: 0.14 } },
    });
    expect(fit.model).toBeCloseTo(31.7 + 0.125 + 0.22, 5);
    expect(fit.clearance).toBeCloseTo(0.125, 5);
    const sigma = Math.hypot(0.03, 0.14, 0.04);
    expect(fit.pRight).toBeCloseTo(phi(0.075 / sigma) - phi(-0.075 / sigma), 6);
    expect(sum(fit.ledger)).toBeCloseTo(fit.model, 12);
    expect(fit.ledger.map(s => s.step)).toEqual(['reading', 'allowance', 'compensation']);
  });

  test('an outside shrinks by allowance and by what it prints large', () => {
    const fit = proposeFit({
      side: 'outside',
      reading,
      want: snug,
      printer: { ...plain, offset: { mean: 0.05, sd: 0.08 } },
    });
    expect(fit.model).toBeCloseTo(31.7 - 0.125 - 0.05, 5);
    expect(fit.ledger[1]!.amount).toBeLessThan(0);
    expect(fit.ledger[2]!.amount).toBeCloseTo(-0.05, 5);
    expect(sum(fit.ledger)).toBeCloseTo(fit.model, 12);
  });

  test('a scale other than 1 with its covariance moves the best number off the naive one', () => {
    // With correlated scale and offset the uncertainty grows with size, so a smaller hole is surer.
    const printer = {
      offset: { mean: -0.1, sd: 0.06 },
      scale: { mean: 0.996, sd: 0.004 },
      covariance: 0.00022,
      repeatability: 0.03,
    };
    const fit = proposeFit({ side: 'inside', reading, want: snug, printer });
    const naive = (31.7 + 0.125 + 0.1) / 0.996;
    expect(fit.model).toBeLessThan(naive - 1e-5);
    const worth = (m: number) => {
      const sd = Math.sqrt((0.004 * m) ** 2 + 0.06 ** 2 + 2 * m * 0.00022 + 0.03 ** 2 + 0.03 ** 2);
      const c = 0.996 * m - 0.1 - 31.7;
      return phi((0.2 - c) / sd) - phi((0.05 - c) / sd);
    };
    // Brute force over a fine grid finds nothing better.
    for (let m = naive - 0.3; m < naive + 0.3; m += 0.002)
      expect(worth(m)).toBeLessThanOrEqual(worth(fit.model) + 1e-6);
    expect(fit.pRight).toBeCloseTo(worth(fit.model), 6);
    expect(sum(fit.ledger)).toBeCloseTo(fit.model, 12);
  });

  test('“better loose than tight” moves towards loose, and the other way round', () => {
    const ask = (prefer: 'none' | 'loose' | 'tight') =>
      proposeFit({
        side: 'inside',
        reading,
        want: snug,
        prefer,
        printer: { ...plain, offset: { mean: -0.22, sd: 0.14 } },
      });
    expect(ask('loose').model).toBeGreaterThan(ask('none').model + 0.02);
    expect(ask('tight').model).toBeLessThan(ask('none').model - 0.02);
    expect(ask('loose').pRight).toBeLessThan(ask('none').pRight);
  });

  test('without any doubt the middle is taken and the chance is 1', () => {
    const fit = proposeFit({
      side: 'inside',
      reading: { value: 31.7, u: 0 },
      want: snug,
      printer: { ...plain, repeatability: 0 },
    });
    expect(fit.pRight).toBe(1);
    expect(fit.clearance).toBeCloseTo(0.125, 2);
  });

  test('an empty window, a reading of 0 and a scale of 0 are refused', () => {
    expect(() =>
      proposeFit({ side: 'inside', reading, want: { min: 0.2, max: 0.2, unit: 'mm' }, printer: plain }),
    ).toThrow('window');
    expect(() =>
      proposeFit({ side: 'inside', reading: { value: 0, u: 0 }, want: snug, printer: plain }),
    ).toThrow('reading');
    expect(() =>
      proposeFit({ side: 'inside', reading, want: snug, printer: { ...plain, scale: { mean: 0, sd: 0 } } }),
    ).toThrow('scale');
  });
});

describe('strain windows', () => {
  test('a ring of 31.7 stretched by 1.5 to 4 % is drawn smaller: free = object / (1 + ε)', () => {
    const window = clearanceWindow({ min: 0.015, max: 0.04, unit: 'strain' }, 31.7, 'inside', 'ours');
    expect(window.max).toBeCloseTo(31.7 / 1.015 - 31.7, 9);
    expect(window.min).toBeCloseTo(31.7 / 1.04 - 31.7, 9);
  });

  test('a soft plug squeezed into a bore is drawn larger: free = bore / (1 − ε)', () => {
    const window = clearanceWindow({ min: 0.01, max: 0.03, unit: 'strain' }, 24, 'outside', 'ours');
    expect(window.max).toBeCloseTo(24 - 24 / 0.99, 9);
    expect(window.min).toBeCloseTo(24 - 24 / 0.97, 9);
  });

  test('a rubber boot over our rigid plug stretches from its own free size', () => {
    const window = clearanceWindow({ min: 0.02, max: 0.05, unit: 'strain' }, 24, 'outside', 'theirs');
    expect(window.min).toBeCloseTo(-1.2, 12);
    expect(window.max).toBeCloseTo(-0.48, 12);
  });

  test.each([
    ['inside', 'ours'],
    ['outside', 'ours'],
    ['inside', 'theirs'],
    ['outside', 'theirs'],
  ] as const)('strain and clearance are each other’s inverse: %s, %s soft', (side, soft) => {
    const { min } = clearanceWindow({ min: 0.01, max: 0.04, unit: 'strain' }, 31.7, side, soft);
    expect(strainAt(min, 31.7, side, soft)).toBeCloseTo(0.04, 12);
  });

  test('the proposal for a strain window lies inside it and beats its neighbours', () => {
    const fit = proposeFit({
      side: 'inside',
      reading,
      want: { min: 0.015, max: 0.04, unit: 'strain' },
      printer: { ...plain, offset: { mean: -0.22, sd: 0.14 } },
    });
    const strain = strainAt(fit.clearance, 31.7, 'inside', 'ours');
    expect(strain).toBeGreaterThan(0.015);
    expect(strain).toBeLessThan(0.04);
    expect(fit.pRight).toBeGreaterThan(0.97);
  });
});
