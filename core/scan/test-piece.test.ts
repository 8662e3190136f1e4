import { expect, test } from 'vitest';
import { boundsOf, closureOf, volumeOf } from '../shape/mesh/mesh';
import { OffsetError } from '../shape/offset';
import { outlineOfText } from '../shape/outline-text';
import { testPiece } from './test-piece';

const section = outlineOfText('0, 0 round 4; 60, 0 round 4; 60, 40 round 4; 0, 40 round 4');
const MARK = Math.PI * 1.25 ** 2;
const area = (wide: number, deep: number, corner: number) => wide * deep - (4 - Math.PI) * corner ** 2;

test('a plate is the section less its clearance, 2 mm thick, with a hole near its left end', () => {
  const plate = testPiece(section, { form: 'plate', clearance: 0.4 });
  expect(closureOf(plate)).toEqual({ openEdges: 0, bodies: 1 });
  const { min, max } = boundsOf(plate);
  expect(max[0] - min[0]).toBeCloseTo(59.6, 6);
  expect(max[1] - min[1]).toBeCloseTo(39.6, 6);
  expect(max[2] - min[2]).toBe(2);
  expect(volumeOf(plate) / 2).toBeCloseTo(area(59.6, 39.6, 3.8) - MARK, 0);
});

test('a frame goes over it: the section and its clearance are open, 4 mm of wall around', () => {
  const frame = testPiece(section, { form: 'frame', clearance: 0.4 });
  expect(closureOf(frame)).toEqual({ openEdges: 0, bodies: 1 });
  const { min, max } = boundsOf(frame);
  expect(max[0] - min[0]).toBeCloseTo(68.4, 6);
  expect(volumeOf(frame) / 2).toBeCloseTo(area(68.4, 48.4, 8.2) - area(60.4, 40.4, 4.2), 0);
});

test('one too small for a mark has none; one too small for its clearance is refused', () => {
  const small = outlineOfText('0, 0; 8, 0; 8, 6; 0, 6');
  expect(volumeOf(testPiece(small, { form: 'plate', clearance: 0 }))).toBeCloseTo(96, 6);
  expect(() => testPiece(small, { form: 'plate', clearance: 13 })).toThrow(OffsetError);
});
