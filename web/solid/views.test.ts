import { PerspectiveCamera, Vector3 } from 'three';
import { describe, expect, test } from 'vitest';
import { boundsWith, directionOf, distanceFor, middleOf, VIEWS, type ViewName } from './views';

/** The camera itself says where a corner appears: from −1 to 1 is in view. */
function seenFrom(view: ViewName, bounds: Parameters<typeof middleOf>[0], aspect: number) {
  const camera = new PerspectiveCamera(32, aspect, 1, 5000);
  const from = directionOf(view);
  const middle = middleOf(bounds);
  camera.up.set(0, 0, 1);
  camera.position.copy(middle).addScaledVector(from, distanceFor(bounds, from, camera));
  camera.lookAt(middle);
  camera.updateMatrixWorld();
  camera.updateProjectionMatrix();
  return (x: number, y: number, z: number) => new Vector3(x, y, z).project(camera);
}

describe('every named view', () => {
  const parts = [
    { min: [-10, -10, 0], max: [10, 10, 5] },
    { min: [0, 40, 0], max: [220, 44, 12] },
    { min: [-3, -2, 0], max: [3, 2, 180] },
  ] as const;
  test.each(Object.keys(VIEWS) as ViewName[])('%s shows the whole part, and fills the view with it', view => {
    for (const { min, max } of parts)
      for (const aspect of [0.6, 1, 1.8]) {
        const at = seenFrom(view, { min: [...min], max: [...max] }, aspect);
        const corners = Array.from({ length: 8 }, (_, i) =>
          at(i & 1 ? max[0] : min[0], i & 2 ? max[1] : min[1], i & 4 ? max[2] : min[2]),
        );
        const reach = Math.max(...corners.flatMap(c => [Math.abs(c.x), Math.abs(c.y)]));
        expect(reach).toBeLessThan(0.81);
        expect(reach).toBeGreaterThan(0.5);
      }
  });

  test('from the front, right is right and up is up; from above, the front is below', () => {
    const bounds = { min: [-10, -10, -10], max: [10, 10, 10] } as Parameters<typeof middleOf>[0];
    const front = seenFrom('front', bounds, 1);
    expect(front(5, 0, 0).x).toBeGreaterThan(0.1);
    expect(front(0, 0, 5).y).toBeGreaterThan(0.1);
    expect(seenFrom('above', bounds, 1)(0, -5, 0).y).toBeLessThan(-0.1);
    expect(seenFrom('below', bounds, 1)(5, 0, 0).x).toBeGreaterThan(0.1);
  });
});

test('with a neighbour the view holds both; a round one is as deep as wide', () => {
  const bounds = { min: [0, 0, 0], max: [10, 10, 10] } as Parameters<typeof middleOf>[0];
  const pipe = { form: 'round' as const, x: 60, y: -20, z: -5, width: 8, depth: 8, height: 40 };
  expect(boundsWith(bounds, [pipe])).toEqual({ min: [0, -24, -5], max: [64, 10, 35] });
  expect(boundsWith(bounds, [{ ...pipe, form: 'model' }])).toEqual({ min: [0, -20, -5], max: [60, 10, 10] });
  expect(boundsWith(bounds, [])).toEqual(bounds);
});
