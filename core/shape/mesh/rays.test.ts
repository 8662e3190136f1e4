import { expect, test } from 'vitest';
import { box, moved, ring, together } from '../../../testing/solids';
import { RayTree } from './rays';

test('a ray meets the first of two boxes, from outside and from within', () => {
  const tree = new RayTree(together(box([2, 2, 2]), moved(box([2, 2, 2]), [6, 0, 0])));
  expect(tree.firstHit([-3, 0.7, 0.9], [1, 0, 0])!.distance).toBeCloseTo(3, 12);
  expect(tree.firstHit([1, 0.7, 0.9], [1, 0, 0])!.distance).toBeCloseTo(1, 12);
  expect(tree.firstHit([3, 0.7, 0.9], [1, 0, 0])!.distance).toBeCloseTo(3, 12);
  expect(tree.firstHit([9, 0.7, 0.9], [1, 0, 0])).toBeUndefined();
});

test('on a fine ring it finds what looking at every triangle finds', () => {
  const mesh = ring({ inner: 10, outer: 12, height: 5, segments: 400 });
  const tree = new RayTree(mesh);
  for (let i = 0; i < 60; i++) {
    const a = i * 0.37;
    const hit = tree.firstHit([0, 0, 0.3 + 0.07 * i], [Math.cos(a), Math.sin(a), 0])!;
    expect(hit.distance).toBeGreaterThan(10 * Math.cos(Math.PI / 400) - 1e-9);
    expect(hit.distance).toBeLessThan(10 + 1e-9);
  }
});
