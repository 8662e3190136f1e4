import fc from 'fast-check';
import { expect, test } from 'vitest';
import { dot, lengthOfVector, type Point3, scaled } from '../../shape/vector';
import { posed, turned } from './pose';
import { levelPose, standing, uprightPose } from './upright';

const place = fc.tuple(
  fc.double({ min: -80, max: 80, noNaN: true }),
  fc.double({ min: -80, max: 80, noNaN: true }),
  fc.double({ min: -80, max: 80, noNaN: true }),
) as fc.Arbitrary<Point3>;
const way = place.filter(p => lengthOfVector(p) > 1).map((p): Point3 => scaled(p, 1 / lengthOfVector(p)));

test('three places become level, the object stands over them', () => {
  fc.assert(
    fc.property(place, place, place, place, (a, b, c, middle) => {
      const pose = levelPose([a, b, c], middle);
      if (!pose) return;
      for (const p of [a, b, c]) expect(posed(pose, p)[2]).toBeCloseTo(0, 6);
      expect(posed(pose, middle)[2]).toBeGreaterThan(-1e-6);
      expect(lengthOfVector(posed(pose, a))).toBeCloseTo(0, 6);
    }),
  );
  expect(
    levelPose(
      [
        [0, 0, 0],
        [10, 0, 0],
        [20, 0.1, 0],
      ],
      [0, 0, 5],
    ),
  ).toBeNull();
  const here: Point3 = [3, 4, 5];
  expect(levelPose([here, here, [9, 9, 9]], [0, 0, 0])).toBeNull();
  expect(
    levelPose(
      [
        [0, 0, 0],
        [0, 0, -0.25],
        [0, -1e-323, 0],
      ],
      [0, 0, 0],
    ),
  ).toBeNull();
});

test('a plane of symmetry becomes left and right, and up stays as far up as it goes', () => {
  fc.assert(
    fc.property(way, fc.double({ min: -50, max: 50, noNaN: true }), (normal, at) => {
      const pose = uprightPose({ normal, at });
      expect(Math.abs(turned(pose, normal)[0])).toBeCloseTo(1, 9);
      expect(posed(pose, scaled(normal, at))[0]).toBeCloseTo(0, 6);
      if (Math.abs(normal[2]) < 0.8) expect(turned(pose, [0, 0, 1])[2]).toBeGreaterThan(0.5);
    }),
  );
});

test('a face is stood on, at the origin', () => {
  fc.assert(
    fc.property(way, place, (up, at) => {
      const pose = standing(up, at);
      expect(dot(turned(pose, up), [0, 0, 1])).toBeCloseTo(1, 9);
      expect(lengthOfVector(posed(pose, at))).toBeCloseTo(0, 6);
    }),
  );
});
