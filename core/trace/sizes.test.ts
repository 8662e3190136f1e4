import { describe, expect, test } from 'vitest';
import { curvesOf, outlineOfCurves } from '../shape/curve';
import { outlineOfText } from '../shape/outline-text';
import type { Point2 } from '../shape/vector';
import type { Outlines } from './doubt';
import { type Picked, sizesOf } from './sizes';
import { laidUpright } from './upright';

const circle = ([x, y]: Point2, r: number) => {
  const arc = { centre: [x, y] as Point2, radius: r, turn: 1 as const };
  return [
    { from: [x + r, y] as Point2, to: [x - r, y] as Point2, arc },
    { from: [x - r, y] as Point2, to: [x + r, y] as Point2, arc },
  ];
};

/** 40 × 30 with one corner rounded, three holes on a circle of 16 about the middle. */
const outlines: Outlines = [
  curvesOf(outlineOfText('0, 0; 40, 0; 40, 30 round 6; 0, 30')),
  ...[90, 210, 330].map(a => {
    const turn = (a * Math.PI) / 180;
    return circle([20 + 8 * Math.cos(turn), 15 + 8 * Math.sin(turn)], 1.5);
  }),
];
const sideOf = (from: Point2, to: Point2): Picked => ({
  loop: 0,
  piece: outlines[0]!.findIndex(
    c =>
      !c.arc &&
      Math.hypot(c.from[0] - from[0], c.from[1] - from[1]) + Math.hypot(c.to[0] - to[0], c.to[1] - to[1]) <
        0.01,
  ),
});
const floor = sideOf([0, 0], [40, 0]);
const top = sideOf([34, 30], [0, 30]);
const left = sideOf([0, 30], [0, 0]);
const rounding: Picked = { loop: 0, piece: outlines[0]!.findIndex(c => c.arc) };
const hole = (loop: number): Picked => ({ loop, piece: null });

describe('sizes of what is picked', () => {
  test.each([
    ['a side', [floor], 'length', 'length', 40],
    ['a rounding', [rounding], 'radius', 'length', 6],
    ['a hole', [hole(1)], 'diameter', 'inside', 3],
    ['two like sides', [floor, top], 'distance', 'outside', 30],
    ['two sides at an angle', [floor, left], 'angle', 'angle', 90],
    ['a side and a hole', [floor, hole(1)], 'distance', 'length', 23],
    ['a hole and a side', [hole(1), floor], 'distance', 'length', 23],
    ['two holes', [hole(2), hole(3)], 'distance', 'length', 8 * Math.sqrt(3)],
    ['three holes', [hole(1), hole(2), hole(3)], 'pitch-circle', 'outside', 16],
  ] as const)('%s', (_, picked, of, kind, value) => {
    const [size] = sizesOf(outlines, picked);
    expect(size).toMatchObject({ of, kind });
    expect(size!.read(outlines)).toBeCloseTo(value, 9);
  });

  test('what has none between it is told as none', () => {
    expect(sizesOf(outlines, [])).toEqual([]);
    expect(sizesOf(outlines, [floor, top, left])).toEqual([]);
    expect(sizesOf(outlines, [{ loop: 9, piece: 0 }])).toEqual([]);
    // Gone after a new look: nothing, not another piece's size.
    expect(sizesOf(outlines, [floor])[0]!.read([])).toBeNull();
  });
});

test('an outline that lay askew is laid upright at the origin', () => {
  const [c, s] = [Math.cos(0.3), Math.sin(0.3)];
  const askew = outlines.map(curves =>
    curves.map(k => {
      const at = ([x, y]: Point2): Point2 => [5 + c * x - s * y, -9 + s * x + c * y];
      return {
        from: at(k.from),
        to: at(k.to),
        ...(k.arc ? { arc: { ...k.arc, centre: at(k.arc.centre) } } : {}),
      };
    }),
  );
  const upright = laidUpright(askew);
  const corners = outlineOfCurves(upright[0]!);
  const flat = [corners.start, ...corners.edges.map(e => e.to)].flat();
  expect(Math.min(...flat)).toBeCloseTo(0, 9);
  expect(sizesOf(upright, [floor, top])[0]!.read(upright)).toBeCloseTo(30, 9);
  expect(upright[1]![0]!.arc!.centre[1]).toBeCloseTo(23, 9);
});
