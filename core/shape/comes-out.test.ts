import { expect, test } from 'vitest';
import { box, moved, ring } from '../../testing/solids';
import { comesOut } from './comes-out';
import { subdivided } from './mesh/subdivided';

const tube = ring({ inner: 10, outer: 14, height: 20, segments: 64 });
const pin = (radius: number, height: number) => ring({ inner: 1, outer: radius, height, segments: 64 });

test('a pin in a tube comes out, and its room is the gap between them', () => {
  const out = comesOut(subdivided(tube, 2), moved(pin(9.6, 15), [0, 0, 3]));
  expect(out.heldAt).toBeNull();
  expect(out.leastRoom).toBeGreaterThan(0.36);
  expect(out.leastRoom).toBeLessThan(0.41);
});

test('a collar over it holds it, and the place is told', () => {
  const collar = moved(ring({ inner: 8, outer: 14, height: 4, segments: 64 }), [0, 0, 20]);
  const out = comesOut(collar, moved(pin(9.6, 15), [0, 0, 3]));
  expect(out.heldAt![2]).toBeCloseTo(20, 1);
});

test('a thin bar over its middle is found by the bar’s own corners, where none of the object’s is below it', () => {
  const bar = subdivided(moved(box([40, 0.4, 2]), [-20, -0.2, 30]), 1);
  const out = comesOut(bar, moved(box([30, 30, 10]), [-15, -15, 0]));
  expect(out.heldAt).not.toBeNull();
});

test('what reaches into the object is below no room', () => {
  const out = comesOut(tube, moved(pin(10.5, 15), [0, 0, 3]));
  expect(out.leastRoom).toBeLessThan(-0.4);
});
