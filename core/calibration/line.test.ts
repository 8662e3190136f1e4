import jStat from 'jstat';
import { describe, expect, test } from 'vitest';
import { believeLine, type LinePrior } from './line';

/** NIST StRD, linear regression, “Norris”: y then x, 36 observations, from memory; the certified values would show a slip. */
const NORRIS =
  `0.1 0.2 338.8 337.4 118.1 118.2 888.0 884.6 9.2 10.1 228.1 226.5 668.5 666.3 998.5 996.3 449.1 448.6
778.9 777.0 559.2 558.2 0.3 0.4 0.1 0.6 778.1 775.5 668.8 666.9 339.3 338.0 448.9 447.5 10.8 11.6 557.7 556.0
228.3 228.1 998.0 995.8 888.8 887.6 119.6 120.2 0.3 0.3 0.6 0.3 557.6 556.8 339.3 339.1 888.0 887.2 998.5 999.0
778.9 779.0 10.2 11.1 117.6 118.3 228.9 229.2 668.4 669.1 449.2 448.9 0.2 0.5`
    .split(/\s+/)
    .map(Number);

describe('the line as believed', () => {
  const norris = Array.from({ length: 36 }, (_, i) => ({ y: NORRIS[2 * i]!, x: NORRIS[2 * i + 1]!, u: 0 }));
  const flat: LinePrior = {
    offset: { mean: 0, sd: 1e5 },
    scale: { mean: 1, sd: 1e3 },
    scatter: { sd: 1, worth: 1e-9 },
  };
  test('with a flat prior it is NIST’s Norris to its certified digits, doubts and covariance included', () => {
    const belief = believeLine(norris, flat);
    expect(belief.offset.mean).toBeCloseTo(-0.262323073774029, 6);
    expect(belief.scale.mean).toBeCloseTo(1.00211681802045, 9);
    expect(belief.scatter).toBeCloseTo(0.884796396144373, 5);
    expect(belief.offset.sd).toBeCloseTo(0.232818234301152, 5);
    expect(belief.scale.sd).toBeCloseTo(0.429796848199937e-3, 7);
    // The covariance of a line's two numbers is −x̄·Var(slope).
    const middle = norris.reduce((sum, p) => sum + p.x, 0) / norris.length;
    expect(belief.covariance / (-middle * belief.scale.sd ** 2)).toBeCloseTo(1, 6);
  });

  test('an independent library agrees, and a sure point pulls as several doubtful ones', () => {
    const points = [
      { x: 4, y: 3.81, u: 0 },
      { x: 8, y: 7.8, u: 0 },
      { x: 12, y: 11.79, u: 0 },
      { x: 20, y: 19.75, u: 0 },
    ];
    const belief = believeLine(points, flat);
    const model = jStat.models.ols(
      points.map(p => p.y),
      points.map(p => [1, p.x]),
    );
    expect(belief.offset.mean).toBeCloseTo(model.coef[0]!, 4);
    expect(belief.scale.mean).toBeCloseTo(model.coef[1]!, 5);
    // With no scatter to speak of, u alone sets the weight: half the variance counts twice.
    const still: LinePrior = { ...flat, scatter: { sd: 1e-6, worth: 1e12 } };
    const read = (u: number) => points.map((p, i) => ({ ...p, u: i === 0 ? u : 0.02 }));
    const sure = believeLine(read(0.02 / Math.SQRT2), still);
    const twice = believeLine([{ ...points[0]!, u: 0.02 }, ...read(0.02)], still);
    expect(sure.scale.mean).toBeCloseTo(twice.scale.mean, 6);
    expect(sure.offset.mean).toBeCloseTo(twice.offset.mean, 4);
  });

  const usual: LinePrior = {
    offset: { mean: 0, sd: 0.3 },
    scale: { mean: 1, sd: 0.003 },
    scatter: { sd: 0.04, worth: 6 },
  };
  test('one size tells the offset; the scale stays what was believed', () => {
    const belief = believeLine([{ x: 20, y: 19.72, u: 0.02 }], usual);
    expect(belief.scale.mean).toBeCloseTo(1, 2);
    expect(belief.offset.mean + belief.scale.mean * 20).toBeCloseTo(19.72, 1);
    expect(belief.scatter).toBe(0.04);
    // By hand: the offset's prior at 20 has variance 0.09 + 0.0036, the reading 0.0016 + 0.0004.
    const sd = Math.sqrt(1 / (1 / (0.09 + 0.0036) + 1 / 0.002));
    const at20 = Math.sqrt(belief.offset.sd ** 2 + (20 * belief.scale.sd) ** 2 + 2 * 20 * belief.covariance);
    expect(at20).toBeCloseTo(sd, 9);
  });
  test('without a size the prior comes back', () => {
    const belief = believeLine([], usual);
    expect(belief.offset.mean).toBeCloseTo(0, 12);
    expect(belief.offset.sd).toBeCloseTo(0.3, 9);
    expect(belief.scale.sd).toBeCloseTo(0.003, 12);
    expect(belief.covariance).toBeCloseTo(0, 12);
  });
  test('a doubtful reading pulls less than a sure one', () => {
    const sure = [10, 20, 30].map(x => ({ x, y: x - 0.2, u: 0.01 }));
    const at = (u: number) => {
      const b = believeLine([...sure, { x: 20, y: 20.6, u }], usual);
      return b.offset.mean + b.scale.mean * 20;
    };
    expect(at(1)).toBeCloseTo(19.8, 2);
    expect(at(0.01)).toBeGreaterThan(19.9);
  });
});
