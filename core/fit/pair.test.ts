import { describe, expect, test } from 'vitest';
import { gauss, seeded } from '../bench/random';
import { bondHolds, bondRule } from './bond';
import { proposePair } from './pair';

const female = {
  offset: { mean: -0.22, sd: 0.05 },
  scale: { mean: 0.998, sd: 0.001 },
  covariance: -0.00002,
  repeatability: 0.03,
};
const male = { offset: { mean: 0.06, sd: 0.04 }, scale: { mean: 0.998, sd: 0 }, repeatability: 0.03 };
const want = { min: 0.2, max: 0.45, unit: 'mm' as const };

describe('two prints that go together', () => {
  const pair = proposePair({ size: 20, want, female, male });
  test('both sides are compensated', () => {
    expect(0.998 * pair.male.model + 0.06).toBeCloseTo(20, 9);
    expect(0.998 * pair.female.model - 0.22).toBeCloseTo(20 + 0.325, 2);
  });

  test('a hundred thousand pairs drawn at random fit as often as it says', () => {
    const random = seeded(7);
    let right = 0;
    const draws = 100_000;
    for (let n = 0; n < draws; n++) {
      // Scale and offset of the hole are negatively correlated, as its covariance says.
      const scale = gauss(random, 0.998, 0.001);
      const offset = gauss(
        random,
        -0.22 + (-0.00002 / 1e-6) * (scale - 0.998),
        Math.sqrt(0.05 ** 2 - 0.0004),
      );
      const hole = scale * pair.female.model + offset + gauss(random, 0, 0.03);
      const peg = 0.998 * pair.male.model + gauss(random, 0.06, 0.04) + gauss(random, 0, 0.03);
      if (hole - peg >= want.min && hole - peg <= want.max) right++;
    }
    expect(pair.pRight).toBeCloseTo(right / draws, 2);
  });

  test('the doubt is shared out, and both count', () => {
    const sure = proposePair({ size: 20, want, female, male: { ...male, offset: { mean: 0.06, sd: 0 } } });
    expect(sure.pRight).toBeGreaterThan(pair.pRight);
    expect(sure.femaleShare).toBeGreaterThan(pair.femaleShare);
  });

  test('a joint has a size', () => {
    expect(() => proposePair({ size: 0, want, female, male })).toThrow(/above 0/);
  });
});

describe('bonds', () => {
  test('each polymer has its glue or none, fillers included', () => {
    expect(bondRule('glue', 'PLA-CF')!.takes).toBe('well');
    expect(bondRule('glue', 'PP')!.takes).toBe('badly');
    expect(bondRule('tape', 'PP')!.with).toContain('peels');
    expect(bondRule('seal', 'PC')!.with).toContain('neutral');
    expect(bondRule('glue', 'unobtainium')).toBeNull();
  });
  test('a joint carries its area, less where it must be roughened, nothing where it peels', () => {
    expect(bondHolds('glue', 400, bondRule('glue', 'PLA')!)).toBe(200);
    expect(bondHolds('glue', 400, bondRule('glue', 'PETG')!)).toBeCloseTo(120, 9);
    expect(bondHolds('glue', 400, bondRule('glue', 'PP')!)).toBe(0);
  });
});
