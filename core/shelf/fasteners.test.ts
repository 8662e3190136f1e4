import { describe, expect, test } from 'vitest';
import { BEARINGS, bearingNamed } from './bearings';
import * as f from './fasteners';
import { limitsOf } from './iso286/limits';
import { glandFor, O_RINGS, ringTolerance } from './o-rings';
import { PIPES } from './pipes';
import { given, type Row, readTable } from './table';
import { TAP_DRILLS } from './tap-drills';
import { threadNamed } from './threads';

/**
 * Each table is compared with something independent: a rule of the standards, or a list typed separately, column by
 * column where the table goes row by row. Lists are from memory of the standards and of workshop handbooks.
 */
const diameter = (row: { key: string }) => Number(row.key.slice(1));
const column = <K extends string>(rows: readonly Row<K>[], keys: string, name: K) =>
  keys.split(' ').map(k => given(rows.find(r => r.key === k)!, name));

describe('nuts', () => {
  test('least sizes follow the tolerances of ISO 4759-1: h13 or h14, h15, h16', () => {
    for (const nut of f.HEXAGON_NUTS) {
      const d = diameter(nut);
      const flats = given(nut, 'acrossFlats');
      const grade = d <= 16 ? 13 : flats <= 60 ? 15 : 16;
      // The wide ones are rounded to a tenth in the table.
      expect(
        Math.abs(flats + limitsOf(flats, `h${grade}`).lower - given(nut, 'acrossFlatsMin')),
        `${nut.key} flats`,
      ).toBeLessThan(0.06);
      const height = given(nut, 'height');
      const heightGrade = d <= 12 ? 14 : d <= 18 ? 15 : 16;
      expect(
        Math.abs(height + limitsOf(height, `h${heightGrade}`).lower - given(nut, 'heightMin')),
        `${nut.key} height`,
      ).toBeLessThan(0.06);
    }
  });
  test('a spanner fits nut and head alike', () => {
    for (const head of f.HEXAGON_HEADS)
      expect(given(head, 'acrossFlats')).toBe(
        given(f.HEXAGON_NUTS.find(n => n.key === head.key)!, 'acrossFlats'),
      );
  });
  test('spanner sizes, handbook', () => {
    expect(
      column(f.HEXAGON_NUTS, 'M3 M4 M5 M6 M8 M10 M12 M14 M16 M18 M20 M22 M24 M27 M30 M36', 'acrossFlats'),
    ).toEqual([5.5, 7, 8, 10, 13, 16, 18, 21, 24, 27, 30, 34, 36, 41, 46, 55]);
    expect(column(f.HEXAGON_NUTS, 'M3 M4 M5 M6 M8 M10 M12 M16 M20 M24', 'height')).toEqual([
      2.4, 3.2, 4.7, 5.2, 6.8, 8.4, 10.8, 14.8, 18, 21.5,
    ]);
  });
  test('inch nuts: 1/4 to 1/2 as handbooks have them', () => {
    expect(column(f.INCH_NUTS, '1/4 5/16 3/8 7/16 1/2 3/4 1', 'acrossFlats')).toEqual([
      7 / 16,
      1 / 2,
      9 / 16,
      11 / 16,
      3 / 4,
      9 / 8,
      1.5,
    ]);
  });
});

describe('screw heads', () => {
  test('socket heads: height is the diameter, the head about one and a half of it', () => {
    for (const row of f.SOCKET_HEADS) {
      expect(given(row, 'height')).toBe(diameter(row));
      expect(given(row, 'head') / diameter(row), row.key).toBeGreaterThan(1.49);
      expect(given(row, 'head') / diameter(row), row.key).toBeLessThan(1.91);
    }
    expect(column(f.SOCKET_HEADS, 'M2 M3 M4 M5 M6 M8 M10 M12 M14 M16 M20 M24', 'socket')).toEqual([
      1.5, 2.5, 3, 4, 5, 6, 8, 10, 12, 14, 17, 19,
    ]);
  });
  test('countersunk socket heads: 90°, so the height is half of head less shank', () => {
    for (const row of f.COUNTERSUNK_SOCKET_HEADS) {
      expect(given(row, 'height'), row.key).toBeCloseTo((given(row, 'head') - diameter(row)) / 2, 1);
      // 2.24 d up to M12, 2.2 d and 2.1 d above.
      expect(given(row, 'head') / diameter(row), row.key).toBeCloseTo(
        diameter(row) <= 12 ? 2.24 : diameter(row) === 14 ? 2.2 : diameter(row) === 16 ? 2.1 : 2.016,
        2,
      );
    }
  });
  test('button and pan heads, handbook', () => {
    expect(column(f.BUTTON_HEADS, 'M3 M4 M5 M6 M8 M10 M12', 'head')).toEqual([
      5.7, 7.6, 9.5, 10.5, 14, 17.5, 21,
    ]);
    expect(column(f.BUTTON_HEADS, 'M3 M4 M5 M6 M8 M10 M12', 'height')).toEqual([
      1.65, 2.2, 2.75, 3.3, 4.4, 5.5, 6.6,
    ]);
    expect(column(f.PAN_HEADS, 'M2 M2.5 M3 M4 M5 M6 M8', 'head')).toEqual([4, 5, 5.6, 8, 9.5, 12, 16]);
  });
});

test('washers go over their screw: the hole is the fine clearance hole', () => {
  for (const row of f.WASHERS) {
    const fine = given(f.CLEARANCE_HOLES.find(h => h.key === row.key)!, 'fine');
    // ISO 7089 uses ISO 273 fine, with a few exceptions: M39 42, M42 45, M45 48, M56 62, M60 66, M64 70 use the next.
    expect(given(row, 'hole') - fine, row.key).toBeGreaterThanOrEqual(0);
    expect(given(row, 'hole') - fine, row.key).toBeLessThanOrEqual(4);
    if (diameter(row) <= 36) expect(given(row, 'hole'), row.key).toBe(fine);
  }
  expect(column(f.WASHERS, 'M3 M4 M5 M6 M8 M10 M12 M16 M20 M24', 'outside')).toEqual([
    7, 9, 10, 12, 16, 20, 24, 30, 37, 44,
  ]);
  for (const row of f.LARGE_WASHERS)
    expect(given(row, 'outside') / diameter(row), row.key).toBeGreaterThanOrEqual(2.99);
});

test('clearance holes: fine, medium and coarse rise, and M3 to M24 as handbooks have them', () => {
  for (const row of f.CLEARANCE_HOLES) {
    expect(given(row, 'fine')).toBeGreaterThan(diameter(row));
    expect(given(row, 'medium')).toBeGreaterThan(given(row, 'fine'));
    expect(given(row, 'coarse')).toBeGreaterThan(given(row, 'medium'));
  }
  const keys = 'M2 M2.5 M3 M4 M5 M6 M8 M10 M12 M14 M16 M18 M20 M22 M24 M27 M30';
  expect(column(f.CLEARANCE_HOLES, keys, 'medium')).toEqual([
    2.4, 2.9, 3.4, 4.5, 5.5, 6.6, 9, 11, 13.5, 15.5, 17.5, 20, 22, 24, 26, 30, 33,
  ]);
  expect(column(f.CLEARANCE_HOLES, keys, 'fine')).toEqual([
    2.2, 2.7, 3.2, 4.3, 5.3, 6.4, 8.4, 10.5, 13, 15, 17, 19, 21, 23, 25, 28, 31,
  ]);
  expect(column(f.CLEARANCE_HOLES, keys, 'coarse')).toEqual([
    2.6, 3.1, 3.6, 4.8, 5.8, 7, 10, 12, 14.5, 16.5, 18.5, 21, 24, 26, 28, 32, 35,
  ]);
});

test('tap drills: d − P, to a drill that exists', () => {
  for (const { designation, drill } of TAP_DRILLS) {
    const thread = threadNamed(designation);
    expect(thread, designation).toBeDefined();
    if (!designation.startsWith('M')) {
      // Between the smallest hole and the middle of the flanks.
      expect(drill, designation).toBeGreaterThan(thread!.minorInternal - 0.12);
      expect(drill, designation).toBeLessThan(thread!.pitchDiameter);
    } else expect(Math.abs(drill - (thread!.major - thread!.pitch)), designation).toBeLessThanOrEqual(0.081);
  }
});

describe('bearings', () => {
  test('the bore is in the number: from 04 on five times its last two digits, 00 to 03 are 10, 12, 15, 17', () => {
    for (const b of BEARINGS) {
      const big = /^(?:6[0-3]|160|618|619)(\d\d)$/.exec(b.designation);
      if (big) {
        const n = Number(big[1]);
        expect(b.bore, b.designation).toBe(n >= 4 ? 5 * n : [10, 12, 15, 17][n]);
      }
      const small = /^6[0-39]?[0-9]?(\d)(ZZ)?$/.exec(b.designation);
      if (small && b.designation.replace('ZZ', '').length === 3)
        expect(b.bore, b.designation).toBe(Number(small[1]));
    }
  });
  test('outsides and widths of series 62 and 63, handbook', () => {
    const outside = (series: string, from: number, to: number) =>
      BEARINGS.filter(
        b =>
          b.designation.startsWith(series) &&
          b.designation.length === 4 &&
          Number(b.designation.slice(2)) >= from &&
          Number(b.designation.slice(2)) <= to,
      ).map(b => [b.outside, b.width]);
    expect(outside('62', 0, 10)).toEqual([
      [30, 9],
      [32, 10],
      [35, 11],
      [40, 12],
      [47, 14],
      [52, 15],
      [62, 16],
      [72, 17],
      [80, 18],
      [85, 19],
      [90, 20],
    ]);
    expect(outside('63', 0, 10)).toEqual([
      [35, 11],
      [37, 12],
      [42, 13],
      [47, 14],
      [52, 15],
      [62, 17],
      [72, 19],
      [80, 21],
      [90, 23],
      [100, 25],
      [110, 27],
    ]);
    expect(outside('60', 0, 10)).toEqual([
      [26, 8],
      [28, 8],
      [32, 9],
      [35, 10],
      [42, 12],
      [47, 12],
      [55, 13],
      [62, 14],
      [68, 15],
      [75, 16],
      [80, 16],
    ]);
  });
  test.each([
    ['608', 8, 22, 7],
    ['608-2RS', 8, 22, 7],
    ['608zz', 8, 22, 7],
    ['6204 2RS C3', 20, 47, 14],
    ['6800', 10, 19, 5],
    ['6903-2RS', 17, 30, 7],
    ['MR105', 5, 10, 4],
    ['688ZZ', 8, 16, 5],
    ['688', 8, 16, 4],
    ['626-2Z', 6, 19, 6],
  ])('%s', (stamped, bore, outside, width) => {
    expect(bearingNamed(stamped)).toMatchObject({ bore, outside, width });
  });
  test('an unknown one is not made up', () => expect(bearingNamed('9999')).toBeUndefined());
});

describe('O-rings', () => {
  test('how many there are in each series', () => {
    const count = (first: string) => O_RINGS.filter(r => r.dash[1] === first).length;
    expect(['0', '1', '2', '3', '4'].map(count)).toEqual([50, 77, 84, 87, 51]);
  });
  test('in inches the steps are sixteenths, eighths, quarters, halves or wholes', () => {
    const steps = [0.0625, 0.125, 0.25, 0.5, 1];
    for (let i = 1; i < O_RINGS.length; i++) {
      const [a, b] = [O_RINGS[i - 1]!, O_RINGS[i]!];
      // The smallest go in steps of a thirty-second, and each series starts again.
      if (a.cord !== b.cord || b.insideInch < 0.3) continue;
      const step = b.insideInch - a.insideInch;
      expect(Math.min(...steps.map(s => Math.abs(s - step))), `${a.dash} to ${b.dash}`).toBeLessThan(0.031);
      expect(step).toBeGreaterThan(0);
    }
  });
  test('sizes that every handbook lists, mm', () => {
    const listed: [string, number, number][] = [
      ['-006', 2.9, 1.78],
      ['-010', 6.07, 1.78],
      ['-012', 9.25, 1.78],
      ['-014', 12.42, 1.78],
      ['-020', 21.95, 1.78],
      ['-028', 34.65, 1.78],
      ['-110', 9.19, 2.62],
      ['-112', 12.37, 2.62],
      ['-116', 18.72, 2.62],
      ['-120', 25.07, 2.62],
      ['-128', 37.77, 2.62],
      ['-152', 82.22, 2.62],
      ['-210', 18.64, 3.53],
      ['-214', 24.99, 3.53],
      ['-222', 37.69, 3.53],
      ['-230', 63.09, 3.53],
      ['-240', 94.84, 3.53],
      ['-260', 164.69, 3.53],
      ['-312', 15.24, 5.33],
      ['-325', 37.47, 5.33],
      ['-337', 75.57, 5.33],
      ['-425', 113.67, 6.99],
      ['-440', 170.82, 6.99],
      ['-050', 133.07, 1.78],
    ];
    for (const [dash, inside, cord] of listed)
      expect(
        O_RINGS.find(r => r.dash === dash),
        dash,
      ).toMatchObject({ inside, cord });
  });
  test('a groove presses the cord and is not full', () => {
    for (const use of ['static', 'face', 'moving'] as const) {
      const gland = glandFor(3.53, use);
      expect(gland.depth.max).toBeLessThan(3.53);
      const area = (Math.PI * 3.53 ** 2) / 4;
      expect(area / (gland.width * ((gland.depth.min + gland.depth.max) / 2))).toBeCloseTo(0.75, 6);
    }
    // A handbook's static groove for a cord of 3.53: 2.82 to 2.87 deep lies within ours.
    const { depth } = glandFor(3.53, 'static');
    expect(depth.min).toBeLessThan(2.82);
    expect(depth.max).toBeGreaterThan(2.87);
    expect(() => glandFor(0, 'static')).toThrow(/cord/);
  });
  test('doubt grows with size', () => expect(ringTolerance(100)).toBeGreaterThan(ringTolerance(10)));
});

test('pipes are kept by their real outsides', () => {
  const steel = PIPES.find(p => p.family === 'steel pipe')!.sizes;
  expect(steel.find(s => s.name === 'DN25')!.outside).toBe(33.7);
  const inch = PIPES.find(p => p.family === 'inch pipe')!.sizes;
  // ASME B36.10 in inches: 0.840, 1.050, 1.315, 1.660, 1.900, 2.375, as NPT has them.
  const inches = ['1/2', '3/4', '1', '1-1/4', '1-1/2', '2'].map(
    n => inch.find(s => s.name === `NPS ${n}`)!.outside / 25.4,
  );
  [0.84, 1.05, 1.315, 1.66, 1.9, 2.375].forEach((v, i) => {
    expect(inches[i]).toBeCloseTo(v, 2);
  });
});

test('a table with a slip in it is refused when it is read', () => {
  expect(() => readTable(['a', 'b'], 'M3 1')).toThrow(/Got 1 numbers/);
  expect(() => readTable(['a'], 'M3 1,5')).toThrow(/not a number/);
  expect(() => given(readTable(['a'], 'M3 -')[0]!, 'a')).toThrow(/no a for M3/);
});
