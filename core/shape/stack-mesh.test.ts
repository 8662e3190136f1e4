import { describe, expect, test } from 'vitest';
import { counterClockwise } from './curve';
import { boundsOf, closureOf, volumeOf } from './mesh/mesh';
import { circle, rectangle } from './outline';
import { circleLikeRectangle, roundedRectangle } from './section';
import { bendMesh, stackMesh } from './stack-mesh';
import { BED, bentFrame } from './vector';

const box = (w: number, d: number) => rectangle(-w / 2, -d / 2, w / 2, d / 2);

describe('walls from outline to outline', () => {
  test('a frustum of a pyramid, a step, and a prism: closed, and as large as the formulas say', () => {
    const mesh = stackMesh(
      [
        { outline: box(40, 30), z: 0 },
        { outline: box(20, 15), z: 10 },
        { outline: box(30, 25), z: 10 },
        { outline: box(30, 25), z: 14 },
      ],
      BED,
      0.01,
    );
    expect(closureOf(mesh)).toEqual({ openEdges: 0, bodies: 1 });
    expect(volumeOf(mesh)).toBeCloseTo((10 / 3) * (1200 + 300 + 600) + 30 * 25 * 4, 6);
  });
  test('a cone on a circle in eight arcs, and on the other hand of a frame', () => {
    const levels = [
      { outline: circleLikeRectangle(40), z: 0 },
      { outline: circleLikeRectangle(20), z: 12 },
    ];
    const cone = (Math.PI / 3) * 12 * (400 + 200 + 100);
    expect(volumeOf(stackMesh(levels, BED, 0.002)) / cone).toBeCloseTo(1, 3);
    const leaning = bentFrame({ at: [5, 6, 7], x: [0, 1, 0], up: [0, 0, 1] }, 30, 50);
    expect(volumeOf(stackMesh(levels, leaning, 0.002)) / cone).toBeCloseTo(1, 3);
  });
  test('from round to a rounded rectangle: edges meet, nothing is inside out', () => {
    const mesh = stackMesh(
      [
        { outline: circleLikeRectangle(60), z: 0 },
        { outline: roundedRectangle(90, 40, 6), z: 40 },
      ],
      BED,
      0.01,
    );
    expect(closureOf(mesh)).toEqual({ openEdges: 0, bodies: 1 });
    const { min, max } = boundsOf(mesh);
    expect([max[0] - min[0], max[1] - min[1], max[2]].map(x => Math.round(100 * x) / 100)).toEqual([
      90, 60, 40,
    ]);
    // Between the smaller and the larger of its two ends’ prisms.
    expect(volumeOf(mesh)).toBeGreaterThan(40 * Math.PI * 900 * 0.9);
    expect(volumeOf(mesh)).toBeLessThan(40 * 90 * 60);
  });
  test('unequal edges, and going down, are refused', () => {
    expect(() =>
      stackMesh(
        [
          { outline: box(9, 9), z: 0 },
          { outline: circleLikeRectangle(9), z: 5 },
        ],
        BED,
        0.1,
      ),
    ).toThrow(/equally many/);
    expect(() =>
      stackMesh(
        [
          { outline: box(9, 9), z: 5 },
          { outline: box(9, 9), z: 0 },
        ],
        BED,
        0.1,
      ),
    ).toThrow(/upwards/);
  });
});

test('a bend is a piece of a ring: Pappus', () => {
  const mesh = bendMesh(counterClockwise(circle([0, 0], 5)), 20, 75, BED, 0.0005);
  expect(closureOf(mesh)).toEqual({ openEdges: 0, bodies: 1 });
  expect(volumeOf(mesh) / (Math.PI * 25 * 20 * ((75 * Math.PI) / 180))).toBeCloseTo(1, 3);
  // It sets out upwards and leans towards x.
  expect(boundsOf(mesh).max[0]).toBeCloseTo(
    20 * (1 - Math.cos((75 * Math.PI) / 180)) + 5 * Math.cos((75 * Math.PI) / 180),
    1,
  );
});
