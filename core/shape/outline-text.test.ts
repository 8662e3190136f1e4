import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { areaOfCurves, boxOf, curvesOf } from './curve';
import {
  holesOfText,
  MOST_CORNERS,
  OutlineTextError,
  outlineOfText,
  readCorners,
  readHoles,
  resolvedText,
  writeCorners,
  writeHoles,
} from './outline-text';

const area = (text: string) => areaOfCurves(curvesOf(outlineOfText(text)));

describe('corners', () => {
  test('rounding, chamfering and arcs take away or add what the formulas say', () => {
    expect(area('0, 0; 40, 0; 40, 25; 0, 25')).toBeCloseTo(1000, 9);
    expect(area('0, 0; 40, 0 round 4; 40, 25; 0, 25')).toBeCloseTo(1000 - (1 - Math.PI / 4) * 16, 9);
    expect(area('0, 0; 40, 0 chamfer 4; 40, 25; 0, 25')).toBeCloseTo(1000 - 8, 9);
    expect(area('0, 0; 30, 0; 30, 6; 0, 6 via 15, 21')).toBeCloseTo(180 + (Math.PI * 225) / 2, 9);
    // An inner corner is filled.
    expect(area('0, 0; 20, 0; 20, 10; 10, 10 round 3; 10, 20; 0, 20')).toBeCloseTo(
      300 + (1 - Math.PI / 4) * 9,
      9,
    );
  });
  test('a trim moves one edge: 3 off the bottom, 1 onto the top, whichever way round it was written', () => {
    const box = outlineOfText('0, 0; 40, 0 trim -3; 40, 25; 0, 25 trim 1');
    expect(boxOf(box).map(x => Number(x.toFixed(9)))).toEqual([0, 3, 40, 26]);
    const clockwise = '0, 0 trim -3; 0, 25; 40, 25 trim 1; 40, 0';
    expect(boxOf(outlineOfText(clockwise)).map(x => Number(x.toFixed(9)))).toEqual([0, 3, 40, 26]);
  });
  test('clockwise corners are taken off where they were written', () => {
    const box = outlineOfText('0, 0; 0, 25; 40, 25 chamfer 5; 40, 0');
    const points = curvesOf(box).map(c => c.from.map(x => Number(x.toFixed(6))).join());
    expect(points).toContain('35,25');
    expect(points).toContain('40,20');
    expect(area('0, 0; 0, 25; 40, 25 chamfer 5; 40, 0')).toBeCloseTo(1000 - 12.5, 9);
  });
  test('written, read and written again is the same, expressions and all', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record(
            {
              x: fc.constantFrom('0', 'w / 2', 'max(a, 3)', '-4.5'),
              y: fc.constantFrom('1', 'round(h)', '2 mm'),
              round: fc.constantFrom('3', 'r'),
              via: fc.constant(['1', 'min(2, b)'] as [string, string]),
              trim: fc.constantFrom('-1', '0.4'),
            },
            { requiredKeys: ['x', 'y'] },
          ),
          { minLength: 1, maxLength: 8 },
        ),
        corners => {
          expect(readCorners(writeCorners(corners))).toEqual(corners);
        },
      ),
      { seed: 5, numRuns: 60 },
    );
    expect(writeHoles(readHoles('1, 2, d deep 3;\n 4, 5, 6'))).toBe('1, 2, d deep 3; 4, 5, 6');
  });
  test('expressions are worked out one by one', () => {
    expect(resolvedText('outline', '0, 0; w - 2, 0 round r; w, h', t => t.length)).toBe(
      '1, 1; 5, 1 round 1; 1, 1',
    );
  });
  test.each([
    ['', /three corners/],
    ['0, 0; 10, 0', /three corners/],
    ['0, 0; 10; 5, 5', /Corner 2 needs x and y/],
    ['0, 0; 10, 0 round; 5, 5', /Corner 2, round needs one number/],
    ['0, 0; 10, 0 round 1 round 2; 5, 5', /twice/],
    ['0, 0; 10, 0 round 1 chamfer 2; 5, 5', /rounded and chamfered/],
    ['0, 0; 10, x; 5, 5', /“x” is not a number/],
    ['0, 0; 0, 0; 5, 5', /Corner 2 is where corner 1 is/],
    ['0, 0; 30, 20; 30, 0; 0, 20', /crosses itself/],
    ['0, 0; 10, 0 round 9; 10, 10; 0, 10 round 9; 0, 5', /edge/],
    ['0, 0; 10, 0; 10, 10 via 14, 5 round 2; 0, 10', /between two straight edges/],
    ['0, 0; 10, 0; 10, 10 trim -11; 0, 10', /trims cannot be/],
    ['0, 0; 9999, 0; 5, 5', /further than 1000/],
    [Array.from({ length: MOST_CORNERS + 1 }, (_, i) => `${i}, ${i * i}`).join(';'), /at most 200 corners/],
  ])('%s is refused in words', (text, words) => {
    expect(() => outlineOfText(text)).toThrow(OutlineTextError);
    expect(() => outlineOfText(text)).toThrow(words);
  });
});

describe('holes', () => {
  test('through, or as deep as is said', () => {
    expect(holesOfText('1, 2, 3; 4, 5, 6 deep 2')).toEqual([
      { x: 1, y: 2, diameter: 3 },
      { x: 4, y: 5, diameter: 6, deep: 2 },
    ]);
    expect(holesOfText('  ')).toEqual([]);
  });
  test.each(['1, 2', '1, 2, 0', '1, 2, 3 deep 0', '1, 2, 3 deep', '1, 2, three'])('“%s” is refused', text => {
    expect(() => holesOfText(text)).toThrow(OutlineTextError);
  });
});
