import Module from 'manifold-3d';
import { describe, expect, test } from 'vitest';
import { arcsAlong, simplified } from './biarc';
import {
  areaOfCurves,
  boxOf,
  curvesOf,
  flattenedPoints,
  headingAt,
  lengthOfCurve,
  outlineOfCurves,
  perimeterOf,
} from './curve';
import type { Outline } from './kernels/kernel';
import { OffsetError, offsetOutline } from './offset';
import { circle, Path, polygon, rectangle } from './outline';
import { outlineOfText } from './outline-text';
import type { Point2 } from './vector';

const area = (o: Outline) => areaOfCurves(curvesOf(o));

describe('offset', () => {
  test('a rounded rectangle becomes the rounded rectangle that is larger by it', () => {
    const grown = offsetOutline(rectangle(0, 0, 40, 30, 5), 1.5);
    expect(boxOf(grown).map(x => Number(x.toFixed(9)))).toEqual([-1.5, -1.5, 41.5, 31.5]);
    expect(area(grown)).toBeCloseTo(43 * 33 - (4 - Math.PI) * 6.5 ** 2, 8);
  });
  test('any convex outline: Steiner’s formulas for area and length, round corners', () => {
    const smooth = rectangle(-12, -3, 15, 9, 4);
    for (const by of [0.3, 2, -1]) {
      const moved = offsetOutline(smooth, by);
      expect(area(moved)).toBeCloseTo(area(smooth) + perimeterOf(smooth) * by + Math.PI * by * by, 8);
      expect(perimeterOf(moved)).toBeCloseTo(perimeterOf(smooth) + 2 * Math.PI * by, 8);
    }
  });
  test('sharp corners stay sharp: a hexagon by its flats', () => {
    expect(area(offsetOutline(polygon(6, 20), 0.5))).toBeCloseTo(area(polygon(6, 21)), 9);
    expect(area(offsetOutline(polygon(6, 20), -0.5))).toBeCloseTo(area(polygon(6, 19)), 9);
  });
  test('there and back again is where it was, across inner corners and arcs of both senses', () => {
    const key = outlineOfText(
      '0, 0; 40, 0; 40, 10; 30, 10; 20, 10 via 25, 5; 10, 10; 10, 25; 0, 25 via 5, 30',
    );
    const back = offsetOutline(offsetOutline(key, 0.8), -0.8);
    curvesOf(back).forEach((c, i) => {
      const was = curvesOf(key)[i]!;
      expect(Math.hypot(c.from[0] - was.from[0], c.from[1] - was.from[1])).toBeLessThan(1e-6);
    });
  });
  test('agrees with the offset of the mesh kernel on an outline of its own', async () => {
    const manifold = await Module();
    manifold.setup();
    const outline = outlineOfText('0, 0; 50, 0; 50, 12; 36, 12; 20, 30 via 34, 26; 0, 24');
    for (const by of [1, -1.2]) {
      const theirs = new manifold.CrossSection([
        flattenedPoints(outline, 0.001) as [number, number][],
      ]).offset(by, 'Miter', 8);
      expect(Math.abs(area(offsetOutline(outline, by)) / theirs.area() - 1)).toBeLessThan(2e-4);
    }
  });
  test('each edge by its own amount: three off the bottom, one onto the top', () => {
    const box = boxOf(offsetOutline(rectangle(0, 0, 40, 25), [-3, 0, 1, 0]));
    expect(box.map(x => Number(x.toFixed(9)))).toEqual([0, 3, 40, 26]);
  });
  test('a side that an arc runs into smoothly is taken off along the arc', () => {
    // A half disc on a box; half a millimetre off its left side: a segment of the disc and a strip of the box.
    const end = outlineOfText('0, 0; 30, 0; 30, 6; 0, 6 via 15, 21');
    const [r, h] = [15, 0.5];
    const segment = r * r * Math.acos((r - h) / r) - (r - h) * Math.sqrt(2 * r * h - h * h);
    const cut = offsetOutline(end, [0, 0, 0, -h]);
    expect(area(end) - area(cut)).toBeCloseTo(segment / 2 + 6 * h, 6);
    expect(() => offsetOutline(end, [0, 0, 0, h])).toThrow(OffsetError);
  });
  test('what vanishes, or would cross itself, is refused in words', () => {
    expect(() => offsetOutline(circle([0, 0], 4), -4)).toThrow(OffsetError);
    expect(() => offsetOutline(rectangle(0, 0, 10, 4), -2.1)).toThrow(OffsetError);
    // Two lobes on a narrow neck.
    const dumbbell = outlineOfText(
      '0, 0; 10, 0; 10, 4; 20, 4; 20, 0; 30, 0; 30, 10; 20, 10; 20, 6; 10, 6; 10, 10; 0, 10',
    );
    expect(() => offsetOutline(dumbbell, -1.5)).toThrow(OffsetError);
    expect(() => offsetOutline(dumbbell, 0.5)).not.toThrow();
    expect(() =>
      offsetOutline(outlineOfText('0, 0; 10, 0; 10, 10; 6, 10; 6, 5; 4, 5; 4, 10; 0, 10'), 1.2),
    ).toThrow(OffsetError);
  });
});

describe('arcs along a curve', () => {
  const ellipse = (a: number, b: number) =>
    arcsAlong(
      {
        at: t => [a * Math.cos(2 * Math.PI * t), b * Math.sin(2 * Math.PI * t)],
        heading: t => {
          const [x, y] = [-a * Math.sin(2 * Math.PI * t), b * Math.cos(2 * Math.PI * t)];
          return [x / Math.hypot(x, y), y / Math.hypot(x, y)];
        },
      },
      0.002,
    );
  test('an ellipse: its area πab, its length by Ramanujan’s second formula, no kinks', () => {
    const [a, b] = [20, 12];
    const curves = ellipse(a, b);
    expect(areaOfCurves(curves) / (Math.PI * a * b)).toBeCloseTo(1, 4);
    const h = ((a - b) / (a + b)) ** 2;
    const round = Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
    expect(curves.reduce((sum, c) => sum + lengthOfCurve(c), 0) / round).toBeCloseTo(1, 4);
    curves.forEach((c, i) => {
      const [p, q] = [headingAt(c, 1), headingAt(curves[(i + 1) % curves.length]!, 0)];
      expect(p[0] * q[0] + p[1] * q[1]).toBeGreaterThan(1 - 1e-9);
    });
    expect(curves.length).toBeLessThan(80);
  });
  test('its outline can be moved like any other', () => {
    const outline = outlineOfCurves(ellipse(20, 12));
    const moved = offsetOutline(outline, 1);
    expect(area(moved)).toBeCloseTo(area(outline) + perimeterOf(outline) + Math.PI, 3);
  });
  test('a traced line keeps its corners and loses what lies between', () => {
    const along = (a: Point2, b: Point2): Point2[] =>
      Array.from({ length: 40 }, (_, i) => [
        a[0] + ((b[0] - a[0]) * i) / 40,
        a[1] + ((b[1] - a[1]) * i) / 40,
      ]);
    const corners: Point2[] = [
      [0, 0],
      [30, 0],
      [30, 12],
      [8, 20],
    ];
    const traced = corners.flatMap((c, i) => along(c, corners[(i + 1) % 4]!));
    expect(simplified(traced, 0.02)).toEqual(corners);
  });
});

test('an arc that comes back to its start is a whole circle', () => {
  const path = new Path([5, 0]).arc([-5, 0], [0, 5]).arc([5, 0], [0, -5]).close();
  expect(area(path)).toBeCloseTo(25 * Math.PI, 9);
  expect(perimeterOf(path)).toBeCloseTo(10 * Math.PI, 9);
});
