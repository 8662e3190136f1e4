import { describe, expect, test } from 'vitest';
import { evaluateReadings, findOutliers, looksLikeSlip } from './evaluate';

const caliper = { resolution: 0.01, maxError: 0.03 };

describe('value and uncertainty', () => {
  test('three readings, worked by hand', () => {
    // Mean 31.70; s = 0.02; u² = 0.02²/3 + 0.01²/12 + 0.03²/3.
    const e = evaluateReadings([31.68, 31.7, 31.72], caliper);
    expect(e.value).toBeCloseTo(31.7, 12);
    expect(e.standardUncertainty).toBeCloseTo(Math.sqrt(0.0004 / 3 + 0.0001 / 12 + 0.0009 / 3), 12);
    // Welch-Satterthwaite: u⁴ / ((s/√3)⁴ / 2).
    expect(e.degreesOfFreedom).toBeCloseTo(e.standardUncertainty ** 4 / ((0.0004 / 3) ** 2 / 2), 6);
    expect(e.spread).toBeCloseTo(0.04, 12);
    expect(e.outliers).toEqual([]);
  });

  test('one reading takes the operator’s repeatability and infinite degrees of freedom', () => {
    const e = evaluateReadings([31.7], caliper);
    expect(e.standardUncertainty).toBeCloseTo(Math.sqrt(0.03 ** 2 + 0.0001 / 12 + 0.0009 / 3), 12);
    expect(e.degreesOfFreedom).toBeNull();
    expect(e.expandedUncertainty).toBeCloseTo(1.96 * e.standardUncertainty, 3);
  });

  test('readings that agree leave the instrument’s own doubt', () => {
    const e = evaluateReadings([31.7, 31.7, 31.7], caliper);
    expect(e.standardUncertainty).toBeCloseTo(Math.sqrt(0.0001 / 12 + 0.0003), 12);
    expect(e.degreesOfFreedom).toBeNull();
  });

  test('nothing and not-a-number are refused', () => {
    expect(() => evaluateReadings([], caliper)).toThrow('measure first');
    expect(() => evaluateReadings([1, Number.NaN], caliper)).toThrow('again');
  });
});

describe('outliers: modified z-score above 3.5 (Iglewicz and Hoaglin, 1993)', () => {
  test('one slip among agreeing readings is found, and still counted', () => {
    const readings = [31.7, 31.71, 31.7, 31.69, 37.1];
    expect(findOutliers(readings, 0.01)).toEqual([4]);
    expect(evaluateReadings(readings, caliper).value).toBeCloseTo(32.78, 10);
    expect(evaluateReadings(readings, caliper).advice.map(a => a.code)).toContain('outlier');
  });

  test('the deviation is never below the resolution: 0.05 off with 0.01 steps is no outlier', () => {
    // 0.6745 · 0.05 / 0.01 = 3.37, below the limit; 0.06 gives 4.05, above it.
    expect(findOutliers([31.7, 31.7, 31.7, 31.75], 0.01)).toEqual([]);
    expect(findOutliers([31.7, 31.7, 31.7, 31.76], 0.01)).toEqual([3]);
  });

  test('two readings cannot outvote each other', () => expect(findOutliers([1, 9], 0.01)).toEqual([]));
});

describe('advice', () => {
  const codes = (readings: number[], critical = true) =>
    evaluateReadings(readings, caliper, { critical }).advice.map(a => a.code);

  test('a critical dimension wants three readings', () => {
    expect(codes([31.7])).toEqual(['one-reading']);
    expect(codes([31.7, 31.71])).toEqual(['few-readings']);
    expect(codes([31.7, 31.71, 31.69])).toEqual([]);
    expect(codes([31.7], false)).toEqual([]);
  });

  test('a spread beyond 3·√(s0² + r²/12) asks for another', () => {
    const limit = 3 * Math.sqrt(0.03 ** 2 + 0.0001 / 12);
    expect(codes([31.7, 31.7 + limit - 0.005, 31.74])).not.toContain('spread');
    expect(codes([31.7, 31.7 + limit + 0.005, 31.75])).toContain('spread');
  });

  test('more digits than the instrument shows point at the wrong instrument', () => {
    expect(evaluateReadings([31.7], { resolution: 0.5, maxError: 0.2 }).advice.map(a => a.code)).toEqual([
      'too-fine',
    ]);
    expect(evaluateReadings([31.5], { resolution: 0.5, maxError: 0.2 }).advice).toEqual([]);
  });
});

describe('slips and forms', () => {
  const codes = (readings: number[], turns?: number[]) =>
    evaluateReadings(readings, caliper, { turns }).advice.map(a => a.code);

  test('one reading in inches, one with its point slipped, one a radius', () => {
    expect(codes([31.7, 31.72, 1.25])).toEqual(['other-unit']);
    expect(evaluateReadings([31.7, 1.248], caliper).advice[0]!.message).toContain('in inches');
    expect(evaluateReadings([31.7, 317], caliper).advice[0]!.message).toContain('its point has slipped');
    expect(evaluateReadings([31.7, 15.85, 31.71], caliper).advice[0]!.message).toContain('a radius');
    // A factor of three is not a known slip: the reading is an outlier, and no more is said.
    expect(codes([31.7, 31.71, 31.7, 95.1])).toEqual(['outlier']);
  });

  test('readings that all end alike were not read to the last digit', () => {
    expect(codes([31.7, 31.7, 31.6])).toContain('too-coarse');
    expect(codes([31.7, 31.7])).not.toContain('too-coarse');
    expect(codes([31.7, 31.71, 31.7])).not.toContain('too-coarse');
  });

  test('form is the spread of the positions, noise that within one: worked by hand', () => {
    const turns = [0, 0, 90, 90];
    const e = evaluateReadings([31.7, 31.72, 31.9, 31.92], caliper, { turns });
    expect(e.value).toBeCloseTo(31.81, 9);
    expect(e.form).toBeCloseTo(0.2, 9);
    // s = 0.0141 within each position, two of each: s² (1/2 + 1/2) / 2².
    expect(e.budget[0]).toMatchObject({ degreesOfFreedom: 2 });
    expect(e.budget[0]!.u).toBeCloseTo(Math.sqrt(0.0002) / 2, 9);
    const pooled = evaluateReadings([31.7, 31.72, 31.9, 31.92], caliper, { turns, repeatability: 0.03 });
    expect(pooled.budget[0]).toMatchObject({ degreesOfFreedom: 12 });
    expect(pooled.budget[0]!.u).toBeCloseTo(Math.sqrt((10 * 0.03 ** 2 + 2 * 0.0002) / 12) / 2, 9);
    expect(codes([31.7, 31.72, 31.9, 31.92], turns)).toContain('out-of-round');
  });

  test('GUM H.1.3.2: five readings, their scatter pooled to 13 nm, are known to 5.8 nm', () => {
    // JCGM 100:2008 takes s_p = 13 nm from 25 comparisons, and u = 13 nm / √5.
    const agree = [215, 215, 215, 215, 215].map(x => x * 1e-6);
    const e = evaluateReadings(agree, { resolution: 1e-9, maxError: 0 }, { repeatability: 13e-6 });
    // Readings that agree by chance do not reduce it below what its ten degrees of freedom allow.
    expect(e.standardUncertainty).toBeCloseTo((13e-6 * Math.sqrt(10 / 14)) / Math.sqrt(5), 9);
    expect(e.degreesOfFreedom).toBeCloseTo(14, 3);
  });

  test('a second reading never makes a good number useless', () => {
    const one = evaluateReadings([31.7], caliper, { repeatability: 0.03 });
    for (const second of [31.7, 31.73, 31.8, 31.83]) {
      const two = evaluateReadings([31.7, second], caliper, { repeatability: 0.03 });
      // By the t distribution with one degree of freedom it was twelve times their scatter.
      expect(two.expandedUncertainty, String(second)).toBeLessThan(3 * one.expandedUncertainty);
    }
  });

  test('readings in inches have the steps that the instrument shows in inches', () => {
    const inch = (text: number) => text * 25.4;
    const coded = (values: number[], inches: boolean[]) =>
      evaluateReadings(values, caliper, { inches }).advice.map(a => a.code);
    expect(coded([inch(2.51), inch(2.305)], [true, true])).not.toContain('too-fine');
    expect(coded([inch(2.5105)], [true])).not.toContain('too-fine');
    expect(coded([inch(2.5103)], [true])).toContain('too-fine');
    expect(coded([inch(2.51)], [false])).toContain('too-fine');
  });

  test('half a turn round is the same diameter; one position shows no form', () => {
    expect(evaluateReadings([31.7, 31.8], caliper, { turns: [0, 180] }).form).toBeNull();
    expect(evaluateReadings([31.7, 31.8], caliper, { turns: [0] }).form).toBeNull();
  });

  test('a value is questioned beside the last one, and only then', () => {
    expect(looksLikeSlip(317, 31.7)?.instead).toBeCloseTo(31.7, 9);
    expect(looksLikeSlip(1.248, 31.7)?.instead).toBeCloseTo(31.7, 1);
    expect(looksLikeSlip(3.17, 31.7)?.instead).toBeCloseTo(31.7, 9);
    expect(looksLikeSlip(33, 31.7)).toBeNull();
    expect(looksLikeSlip(317, 0)).toBeNull();
  });
});
