import { describe, expect, test } from 'vitest';
import { given, readTable } from '../table';
import { identifyThread } from './identify';
import { THREADS, threadNamed } from './index';
import { deviation, threadTolerance, usualLimits } from './iso965';
import { basicMetric } from './metric';
import { NPT_TABLE, PARALLEL_PIPE } from './pipe';

describe('basic sizes', () => {
  // ISO 724:1993 as printed, typed from memory apart from the formula.
  const ISO_724 = readTable(
    ['pitch', 'd2', 'd1'],
    `
    1 0.25 0.838 0.729
    1.6 0.35 1.373 1.221
    2 0.4 1.740 1.567
    2.5 0.45 2.208 2.013
    3 0.5 2.675 2.459
    4 0.7 3.545 3.242
    5 0.8 4.480 4.134
    6 1 5.350 4.917
    8 1.25 7.188 6.647
    8 1 7.350 6.917
    10 1.5 9.026 8.376
    10 1.25 9.188 8.647
    12 1.75 10.863 10.106
    12 1.5 11.026 10.376
    14 2 12.701 11.835
    16 2 14.701 13.835
    16 1.5 15.026 14.376
    18 2.5 16.376 15.294
    20 2.5 18.376 17.294
    22 2.5 20.376 19.294
    24 3 22.051 20.752
    27 3 25.051 23.752
    30 3.5 27.727 26.211
    33 3.5 30.727 29.211
    36 4 33.402 31.670
    39 4 36.402 34.670
    42 4.5 39.077 37.129
    45 4.5 42.077 40.129
    48 5 44.752 42.587
    52 5 48.752 46.587
    56 5.5 52.428 50.046
    60 5.5 56.428 54.046
    64 6 60.103 57.505
  `,
  );
  test('metric, ISO 724', () => {
    for (const row of ISO_724) {
      const basic = basicMetric(Number(row.key), given(row, 'pitch'));
      expect(basic, `M${row.key}x${row.pitch}`).toEqual({ pitchDiameter: row.d2, minorInternal: row.d1 });
    }
  });

  test('coarse pitches, ISO 261, by another road: the series 1, 1.2, 1.4, 1.6 … and its pitches', () => {
    const coarse =
      'M1 .25,M1.2 .25,M1.6 .35,M2 .4,M2.5 .45,M3 .5,M4 .7,M5 .8,M6 1,M8 1.25,M10 1.5,M12 1.75,M16 2,M20 2.5,M24 3,M30 3.5,M36 4,M42 4.5,M48 5,M56 5.5,M64 6';
    for (const entry of coarse.split(',')) {
      const [name, pitch] = entry.split(' ');
      expect(threadNamed(name!)).toMatchObject({ family: 'metric-coarse', pitch: Number(pitch) });
    }
  });

  test('G: depth 0.640327 P, and the outside in inches, ISO 228-1', () => {
    const inches = [
      0.383, 0.518, 0.656, 0.825, 0.902, 1.041, 1.189, 1.309, 1.492, 1.65, 1.882, 2.116, 2.347, 2.587, 2.96,
      3.21, 3.46, 3.95, 4.45, 4.95, 5.45, 5.95, 6.45,
    ];
    PARALLEL_PIPE.forEach((thread, i) => {
      expect(thread.pitch).toBe(Number((25.4 / thread.turnsPerInch!).toFixed(3)));
      const depth = 0.640327 * (25.4 / thread.turnsPerInch!);
      expect(Math.abs(thread.pitchDiameter - (thread.major - depth)), thread.designation).toBeLessThan(
        0.0011,
      );
      expect(Math.abs(thread.minorInternal - (thread.major - 2 * depth)), thread.designation).toBeLessThan(
        0.0016,
      );
      // BS 2779 lists the outside to a thousandth of an inch; 1/16 is the one left out here.
      if (i > 0)
        expect(Math.abs(thread.major / 25.4 - inches[i - 1]!), thread.designation).toBeLessThan(0.0008);
    });
  });

  test('NPT: E0 = D − (0.05 D + 1.1) P, E1 = E0 + L1/16, ASME B1.20.1', () => {
    for (const row of NPT_TABLE) {
      const [D, n, E0, E1, L1] = (['D', 'turns', 'E0', 'E1', 'L1'] as const).map(k => given(row, k)) as [
        number,
        number,
        number,
        number,
        number,
      ];
      expect(Math.abs(E0 - (D - (0.05 * D + 1.1) / n)), `E0 of ${row.key}`).toBeLessThan(0.000011);
      expect(Math.abs(E1 - (E0 + L1 / 16)), `E1 of ${row.key}`).toBeLessThan(0.000016);
    }
  });

  test('unified, ASME B1.1 as printed in inches', () => {
    // Pitch diameter and internal minor, basic; from memory of the table.
    const printed: [string, number, number][] = [
      ['#4-40 UNC', 0.0958, 0.0849],
      ['#6-32 UNC', 0.1177, 0.1042],
      ['#8-32 UNC', 0.1437, 0.1302],
      ['#10-24 UNC', 0.1629, 0.1449],
      ['#10-32 UNF', 0.1697, 0.1562],
      ['1/4-20 UNC', 0.2175, 0.1959],
      ['1/4-28 UNF', 0.2268, 0.2113],
      ['5/16-18 UNC', 0.2764, 0.2524],
      ['3/8-16 UNC', 0.3344, 0.3073],
      ['1/2-13 UNC', 0.45, 0.4167],
      ['3/4-10 UNC', 0.685, 0.6417],
      ['1-8 UNC', 0.9188, 0.8647],
    ];
    for (const [name, d2, d1] of printed) {
      const thread = threadNamed(name)!;
      expect(thread.pitchDiameter / 25.4, name).toBeCloseTo(d2, 4);
      expect(thread.minorInternal / 25.4, name).toBeCloseTo(d1, 4);
    }
  });

  test('no two threads share a designation, and all can be found by it', () => {
    expect(new Set(THREADS.map(t => t.designation)).size).toBe(THREADS.length);
    for (const thread of THREADS) expect(threadNamed(thread.designation)).toBe(thread);
    expect(threadNamed('m10 × 1,25')?.designation).toBe('M10x1.25');
    expect(threadNamed('M10x1.5')?.designation).toBe('M10');
    expect(threadNamed('g1/4"')?.designation).toBe('G 1/4');
    expect(threadNamed('Rc 1/4')?.designation).toBe('R 1/4');
    expect(threadNamed('1/4-20')?.designation).toBe('1/4-20 UNC');
    expect(threadNamed('1/4-28')?.designation).toBe('1/4-28 UNF');
    expect(threadNamed('M9.5')).toBeUndefined();
  });
});

describe('ISO 965-1', () => {
  // Printed grades, µm, from memory, against grade 6 and its steps.
  test('external pitch diameter, grades 3 to 8', () => {
    const printed: [number, number, number[]][] = [
      [4, 0.7, [45, 56, 71, 90, 112]],
      [5, 0.8, [48, 60, 75, 95, 118, 150]],
      [6, 1, [56, 71, 90, 112, 140, 180]],
      [8, 1.25, [60, 75, 95, 118, 150, 190]],
      [10, 1.5, [67, 85, 106, 132, 170, 212]],
      [12, 1.75, [75, 95, 118, 150, 190, 236]],
      [16, 2, [80, 100, 125, 160, 200, 250]],
      [20, 2.5, [85, 106, 132, 170, 212, 265]],
      [24, 3, [100, 125, 160, 200, 250, 315]],
      [30, 3.5, [106, 132, 170, 212, 265, 335]],
      [36, 4, [112, 140, 180, 224, 280, 355]],
      [48, 5, [125, 160, 200, 250, 315, 400]],
      [64, 6, [140, 180, 224, 280, 355, 450]],
    ];
    for (const [d, p, row] of printed)
      row.forEach((value, i) => {
        expect(threadTolerance('Td2', i + 3, d, p), `M${d} grade ${i + 3}`).toBe(value / 1000);
      });
  });
  test('internal pitch diameter, grades 4 to 8', () => {
    const printed: [number, number, number[]][] = [
      [3, 0.5, [63, 80, 100, 125]],
      [4, 0.7, [75, 95, 118, 150]],
      [5, 0.8, [80, 100, 125, 160, 200]],
      [6, 1, [95, 118, 150, 190, 236]],
      [8, 1.25, [100, 125, 160, 200, 250]],
      [10, 1.5, [112, 140, 180, 224, 280]],
      [12, 1.75, [125, 160, 200, 250, 315]],
      [16, 2, [132, 170, 212, 265, 335]],
      [20, 2.5, [140, 180, 224, 280, 355]],
      [24, 3, [170, 212, 265, 335, 425]],
      [36, 4, [190, 236, 300, 375, 475]],
      [64, 6, [236, 300, 375, 475, 600]],
    ];
    for (const [d, p, row] of printed)
      row.forEach((value, i) => {
        expect(threadTolerance('TD2', i + 4, d, p), `M${d} grade ${i + 4}`).toBe(value / 1000);
      });
  });
  test('crests: outside grades 4, 6, 8 and hole grades 4 to 8', () => {
    const td: [number, number[]][] = [
      [0.5, [67, 106]],
      [0.8, [95, 150, 236]],
      [1, [112, 180, 280]],
      [1.25, [132, 212, 335]],
      [1.5, [150, 236, 375]],
      [1.75, [170, 265, 425]],
      [2, [180, 280, 450]],
      [3, [236, 375, 600]],
      [6, [375, 600, 950]],
    ];
    for (const [p, row] of td)
      row.forEach((v, i) => {
        expect(threadTolerance('Td', 4 + 2 * i, 20, p), `P ${p}`).toBe(v / 1000);
      });
    const td1: [number, number[]][] = [
      [0.5, [90, 112, 140, 180]],
      [0.8, [125, 160, 200, 250, 315]],
      [1, [150, 190, 236, 300, 375]],
      [1.5, [190, 236, 300, 375, 475]],
      [2, [236, 300, 375, 475, 600]],
      [3.5, [355, 450, 560, 710, 900]],
      [6, [500, 630, 800, 1000, 1250]],
    ];
    for (const [p, row] of td1)
      row.forEach((v, i) => {
        expect(threadTolerance('TD1', 4 + i, 20, p), `P ${p}`).toBe(v / 1000);
      });
  });
  test('M10, 6g and 6H, as ISO 965-2 lists them', () => {
    const limits = usualLimits(threadNamed('M10')!);
    expect(limits.external).toMatchObject({
      class: '6g',
      major: { min: 9.732, max: 9.968 },
      pitchDiameter: { min: 8.862, max: 8.994 },
    });
    expect(limits.internal).toMatchObject({
      class: '6H',
      pitchDiameter: { min: 9.026, max: 9.206 },
      minor: { min: 8.376, max: 8.676 },
    });
  });
  test('what the standard does not give is not made up', () => {
    expect(threadTolerance('Td2', 6, 500, 6)).toBeUndefined();
    expect(threadTolerance('Td', 5, 10, 1.5)).toBeUndefined();
    expect(deviation('e', 0.25)).toBeUndefined();
    expect(
      usualLimits({ major: 10, pitch: 1.1, pitchDiameter: 9, minorInternal: 8 }).external.major,
    ).toBeNull();
  });
});

describe('recognition', () => {
  const found = (major: number, pitch: number, more = {}) =>
    identifyThread({
      side: 'external',
      major: { value: major, u: 0.03 },
      pitch: { value: pitch, u: 0.01 },
      ...more,
    });

  test('13.08 and 19 turns an inch is G 1/4, with its taper twin behind it', () => {
    const { candidates, none } = found(13.08, 25.4 / 19);
    expect(candidates.map(c => c.designation).slice(0, 2)).toEqual(['G 1/4', 'R 1/4']);
    expect(candidates[0]!.probability).toBeGreaterThan(0.5);
    expect(none).toBeLessThan(0.02);
  });

  test('a look at the taper settles it', () => {
    expect(found(13.08, 25.4 / 19, { taper: true }).candidates[0]!.designation).toBe('R 1/4');
    expect(found(13.55, 25.4 / 18, { taper: true }).candidates[0]!.designation).toBe('1/4 NPT');
    expect(found(13.08, 25.4 / 19, { taper: false }).candidates[0]!.probability).toBeGreaterThan(0.95);
  });

  test('the middle of the limits of every usual thread names that thread', () => {
    // Under 2.6 mm metric and inch sizes cannot be told apart by calipers: M2.5x0.45 and #3-56 are one.
    const usual = THREADS.filter(t => t.commonness >= 0.3 && t.family !== 'pipe-taper' && t.major > 2.6);
    const missed: string[] = [];
    for (const thread of usual) {
      const under = (thread.externalUnder.least + thread.externalUnder.most) / 2;
      const { candidates, none } = identifyThread({
        side: 'external',
        major: { value: thread.major - under, u: 0.02 },
        pitch: { value: thread.pitch, u: 0.004 },
      });
      if (candidates[0]?.designation !== thread.designation)
        missed.push(`${thread.designation} as ${candidates[0]?.designation}`);
      expect(none, thread.designation).toBeLessThan(0.1);
    }
    expect(missed).toEqual([]);
  });

  test('a hole is read by its smallest diameter', () => {
    const { candidates } = identifyThread({
      side: 'internal',
      minor: { value: 8.5, u: 0.03 },
      pitch: { value: 1.5, u: 0.01 },
    });
    expect(candidates[0]!.designation).toBe('M10');
    expect(
      identifyThread({ side: 'internal', minor: { value: 24.6, u: 0.05 }, pitch: { value: 2.21, u: 0.01 } })
        .candidates[0]!.designation,
    ).toBe('3/4-11.5 NH');
  });

  test('a coarse hatch thread is none of these, and so is a pitch between all', () => {
    expect(found(108, 6.2).none).toBeGreaterThan(0.95);
    expect(found(17.3, 1.9).none).toBeGreaterThan(0.9);
    expect(found(10, 1.5, { starts: 2 }).none).toBeGreaterThan(0.9);
  });

  test('more doubt never makes it surer', () => {
    const sure = found(9.85, 1.5).candidates[0]!.probability;
    const unsure = identifyThread({
      side: 'external',
      major: { value: 9.85, u: 0.4 },
      pitch: { value: 1.5, u: 0.1 },
    });
    expect(unsure.candidates[0]!.probability).toBeLessThan(sure);
    const all = unsure.candidates.reduce((sum, c) => sum + c.probability, unsure.none);
    expect(all).toBeGreaterThan(0.95);
    expect(all).toBeLessThanOrEqual(1 + 1e-9);
  });

  test('a worn or printed thread is still named', () => {
    expect(found(9.6, 1.5).candidates[0]!.designation).toBe('M10');
  });

  test('without a diameter it is refused with words', () => {
    expect(() => identifyThread({ side: 'external', pitch: { value: 1.5, u: 0.01 } })).toThrow(
      /outside or the hole/,
    );
    expect(() => found(-1, 1.5)).toThrow(/above 0/);
  });
});
