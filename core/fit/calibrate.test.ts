import jStat from 'jstat';
import { describe, expect, test } from 'vitest';
import { biasAt, lineThrough, readCalibration, responseOf, writeCalibration } from './calibrate';

/** NIST StRD, linear regression, “Norris”: y then x, 36 observations, from memory; the certified values would show a slip. */
const NORRIS =
  `0.1 0.2 338.8 337.4 118.1 118.2 888.0 884.6 9.2 10.1 228.1 226.5 668.5 666.3 998.5 996.3 449.1 448.6
778.9 777.0 559.2 558.2 0.3 0.4 0.1 0.6 778.1 775.5 668.8 666.9 339.3 338.0 448.9 447.5 10.8 11.6 557.7 556.0
228.3 228.1 998.0 995.8 888.8 887.6 119.6 120.2 0.3 0.3 0.6 0.3 557.6 556.8 339.3 339.1 888.0 887.2 998.5 999.0
778.9 779.0 10.2 11.1 117.6 118.3 228.9 229.2 668.4 669.1 449.2 448.9 0.2 0.5`
    .split(/\s+/)
    .map(Number);

describe('the line', () => {
  test('NIST StRD Norris, to the certified digits', () => {
    const points = Array.from({ length: 36 }, (_, i) => ({ y: NORRIS[2 * i]!, x: NORRIS[2 * i + 1]! }));
    const line = lineThrough(points);
    expect(line.intercept).toBeCloseTo(-0.262323073774029, 10);
    expect(line.slope).toBeCloseTo(1.00211681802045, 12);
    expect(line.interceptSd).toBeCloseTo(0.232818234301152, 10);
    expect(line.slopeSd).toBeCloseTo(0.429796848199937e-3, 12);
    expect(line.residualSd).toBeCloseTo(0.884796396144373, 10);
  });

  test('an independent library agrees, and weights count as repeats', () => {
    const points = [
      { x: 4, y: 3.81 },
      { x: 8, y: 7.8 },
      { x: 12, y: 11.79 },
      { x: 20, y: 19.75 },
    ];
    const line = lineThrough(points);
    const model = jStat.models.ols(
      points.map(p => p.y),
      points.map(p => [1, p.x]),
    );
    expect(line.intercept).toBeCloseTo(model.coef[0]!, 9);
    expect(line.slope).toBeCloseTo(model.coef[1]!, 9);
    // A point of weight 2 pulls as two points do.
    const weighted = lineThrough([{ ...points[0]!, weight: 2 }, ...points.slice(1)]);
    const repeated = lineThrough([points[0]!, ...points]);
    expect(weighted.slope).toBeCloseTo(repeated.slope, 12);
    expect(weighted.intercept).toBeCloseTo(repeated.intercept, 12);
  });

  test('what gives no line is refused', () => {
    expect(() =>
      lineThrough([
        { x: 1, y: 1 },
        { x: 2, y: 2 },
      ]),
    ).toThrow(/need 3/);
    expect(() => lineThrough([1, 1, 1].map(x => ({ x, y: x })))).toThrow(/different/);
  });
});

describe('a printer’s response', () => {
  const holes = [4, 8, 12, 20, 30].map(drawn => ({ drawn, printed: 0.998 * drawn - 0.2 }));
  test('scale and offset are found, and turned into what the ledger counts', () => {
    const response = responseOf(holes)!;
    expect(response.scale.mean).toBeCloseTo(0.998, 9);
    expect(response.offset.mean).toBeCloseTo(-0.2, 9);
    // A hole of 30 prints 0.26 small; an outside that shrank by as much would be looser.
    expect(biasAt(response, 30, 'inside').mean).toBeCloseTo(0.26, 9);
    expect(biasAt(response, 30, 'outside').mean).toBeCloseTo(-0.26, 9);
  });
  test('doubt is least amid the sizes that were read', () => {
    const noisy = holes.map((p, i) => ({ ...p, printed: p.printed + [0.02, -0.02, 0.01, -0.02, 0.01][i]! }));
    const response = responseOf(noisy)!;
    expect(biasAt(response, 120, 'inside').sd).toBeGreaterThan(3 * biasAt(response, 15, 'inside').sd);
    expect(response.covariance).toBeLessThan(0);
  });
  test('with too few sizes only the offset is learned', () => {
    const response = responseOf([
      { drawn: 20, printed: 19.7 },
      { drawn: 20, printed: 19.74 },
    ])!;
    expect(response.scale).toEqual({ mean: 1, sd: 0 });
    expect(response.offset.mean).toBeCloseTo(-0.28, 9);
    expect(responseOf([{ drawn: 20, printed: 19.7 }])!.offset.sd).toBeCloseTo(0.07, 9);
    expect(responseOf([])).toBeNull();
  });
});

describe('readings of a piece, as typed', () => {
  test('lines are read, and written again the same', () => {
    const { rows, problems } = readCalibration('hole 20 19,72\n\noutside 12 12.04\nslot 6 5.8\n');
    expect(problems).toEqual([]);
    expect(rows.map(r => r.side)).toEqual(['inside', 'outside', 'inside']);
    expect(readCalibration(writeCalibration(rows)).rows).toEqual(rows);
  });
  test('a wrong line is named by its number', () => {
    const { rows, problems } = readCalibration(
      'hole 20 19.7\nhole twenty 19\nknob 3 3\nhole 20\nhole 25.4 1\nhole -1 1',
    );
    expect(rows).toHaveLength(1);
    expect(problems.map(p => p.line)).toEqual([2, 3, 4, 5, 6]);
    expect(problems[3]!.message).toContain('slip of the unit');
  });
});
