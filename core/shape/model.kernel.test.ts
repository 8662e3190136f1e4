import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../kernels/node';
import { box, together, withoutTriangle } from '../../testing/solids';
import type { Kernels } from './kernels/kernel';
import { boundsOf, closureOf, volumeOf } from './mesh/mesh';
import {
  MODEL_REFERENCE,
  modelOf,
  modelReference,
  referencesIn,
  SIDES_DOWN,
  type SideDown,
  shaOf,
  stood,
  withRoom,
} from './model';

/** Bodies from files: named, scaled, stood, and with room around them. */
let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const sha256 = 'a1'.repeat(32);
const brick = box([10, 6, 2], [50, 60, 70]);
const models = new Map([[sha256, brick]]);
const sizeOf = (mesh: typeof brick) => {
  const { min, max } = boundsOf(mesh);
  return [0, 1, 2].map(i => max[i]! - min[i]!);
};

describe('references', () => {
  test('say what it is and how large one of its units is; nothing else passes for one', () => {
    expect(modelReference({ sha256, factor: 1 })).toBe(sha256);
    const inches = modelReference({ sha256, factor: 25.4 });
    expect(inches).toBe(`${sha256}*25.4`);
    expect(shaOf(inches)).toBe(sha256);
    for (const bad of ['', 'a1', `${sha256}*`, `${sha256}*x`, `${sha256} 2`, sha256.toUpperCase()])
      expect(MODEL_REFERENCE.test(bad), bad).toBe(false);
    expect(sizeOf(modelOf(models, inches)!)[0]).toBeCloseTo(254, 9);
    expect(modelOf(models, 'b'.repeat(64))).toBeNull();
    expect(modelOf(undefined, sha256)).toBeNull();
  });

  test('are found among parameters and neighbours, each once', () => {
    const inches = `${sha256}*25.4`;
    expect(
      referencesIn({ a: sha256, b: 3, c: 'top', d: inches, e: true }, [{ model: sha256 }, {}, { model: '' }]),
    ).toEqual([sha256, inches]);
  });
});

describe('standing', () => {
  test('on each of its sides, its underside’s middle where it is asked to be, never mirrored', () => {
    const expected: Record<SideDown, number[]> = {
      drawn: [10, 6, 2],
      over: [10, 6, 2],
      front: [10, 2, 6],
      back: [10, 2, 6],
      left: [2, 6, 10],
      right: [2, 6, 10],
    };
    for (const lies of Object.keys(SIDES_DOWN) as SideDown[]) {
      const mesh = stood(brick, { lies, turn: 0, at: [1, 2, 3] });
      const { min, max } = boundsOf(mesh);
      expect(
        sizeOf(mesh).map(x => Number(x.toFixed(9))),
        lies,
      ).toEqual(expected[lies]);
      expect([(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, min[2]].map(x => Number(x.toFixed(9)))).toEqual([
        1, 2, 3,
      ]);
      // A mirrored body would be inside out.
      expect(volumeOf(mesh), lies).toBeCloseTo(120, 6);
    }
    const turned = stood(brick, { lies: 'drawn', turn: 90, at: [0, 0, 0] });
    expect(sizeOf(turned).map(x => Number(x.toFixed(6)))).toEqual([6, 10, 2]);
  });
});

describe('room', () => {
  test('grows every side by as much, at least what is asked and an eighth more at most', () => {
    const grown = withRoom(models, sha256, 0.8, kernels.mesh)!;
    expect(closureOf(grown).openEdges).toBe(0);
    sizeOf(grown).forEach((x, i) => {
      const by = (x - [10, 6, 2][i]!) / 2;
      expect(by).toBeGreaterThanOrEqual(0.8);
      expect(by).toBeLessThan(0.8 * 1.13);
    });
    // Nothing of it comes nearer than asked: a body with just that room lies inside.
    const least = box([11.6, 7.6, 2.001], [49.2, 59.2, 70]);
    const outside = kernels.mesh.beyond(least, grown);
    // Only along its edges is a box with room larger than what is so near: a quarter of a square less a quarter circle.
    const edges = 4 * (10 + 6 + 2) * 0.8 ** 2 * (1 - Math.PI / 4);
    expect(outside ? volumeOf(outside) : 0).toBeLessThan(edges);
    expect(withRoom(models, sha256, 0, kernels.mesh)).toBe(brick);
  });

  test('of a thin sheet it leaves no gap between its sides', () => {
    const sheet = new Map([[sha256, box([20, 20, 0.2])]]);
    const grown = withRoom(sheet, `${sha256}*1`, 2, kernels.mesh)!;
    expect(closureOf(grown).bodies).toBe(1);
    expect(volumeOf(grown)).toBeGreaterThan(20 * 20 * 4.2);
  });

  test('a body of many triangles is simplified no further than the room makes up for', () => {
    const ball = kernels.mesh.hull({
      positions: Float64Array.from(pointsOnBall(10, 1500).flat()),
      triangles: new Uint32Array(),
    });
    const grown = kernels.mesh.grown(ball, 1);
    expect(closureOf(grown)).toEqual({ openEdges: 0, bodies: 1 });
    const reach = Math.min(...[0, 1, 2].map(i => boundsOf(grown).max[i]!));
    expect(reach).toBeGreaterThan(10.95);
    expect(reach).toBeLessThan(11.8);
  });
});

describe('what stands in, and what is left out', () => {
  test('the hull of an open surface, and of two bodies', () => {
    expect(volumeOf(kernels.mesh.hull(withoutTriangle(brick)))).toBeCloseTo(120, 6);
    const apart = together(box([1, 1, 1]), box([1, 1, 1], [9, 0, 0]));
    expect(volumeOf(kernels.mesh.hull(apart))).toBeCloseTo(10, 6);
    expect(() => kernels.mesh.hull(box([1, 1, 0]))).toThrow('plane');
  });

  test('fewer triangles where they change next to nothing', () => {
    const ball = kernels.mesh.hull({
      positions: Float64Array.from(pointsOnBall(10, 3000).flat()),
      triangles: new Uint32Array(),
    });
    const reduced = kernels.mesh.reduced(ball, 1500);
    expect(reduced.triangles.length).toBeLessThan(0.6 * ball.triangles.length);
    expect(volumeOf(reduced) / volumeOf(ball)).toBeCloseTo(1, 1);
    expect(kernels.mesh.reduced(brick, 100).triangles).toHaveLength(36);
  });
});

/** Spread evenly, by the golden angle. */
function pointsOnBall(radius: number, count: number): number[][] {
  return Array.from({ length: count }, (_, i) => {
    const z = 1 - (2 * (i + 0.5)) / count;
    const a = i * Math.PI * (3 - Math.sqrt(5));
    const r = Math.sqrt(1 - z * z);
    return [radius * r * Math.cos(a), radius * r * Math.sin(a), radius * z];
  });
}
