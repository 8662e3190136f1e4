import { polygonArea } from 'd3-polygon';
import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { box, insideOut, moved, ring, together, withoutTriangle } from '../../../testing/solids';
import { boundsOf, closureOf, volumeOf } from '../mesh/mesh';
import type { Point2 } from '../vector';
import type { Kernels, Outline } from './kernel';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const polygon = (...points: Point2[]): Outline => ({
  start: points[0]!,
  edges: [...points.slice(1), points[0]!].map(to => ({ to })),
});
const square = (x: number, y: number, side: number) =>
  polygon([x, y], [x + side, y], [x + side, y + side], [x, y + side]);
const volume = (mesh: Parameters<typeof volumeOf>[0]) => volumeOf(mesh);

describe('the part kernel against closed formulas', () => {
  test('a turned rectangle is a cylinder, a turned triangle a cone', () => {
    const cylinder = kernels.part.mesh(kernels.part.revolve(polygon([0, 0], [5, 0], [5, 8], [0, 8])), 0.001);
    expect(volume(cylinder) / (Math.PI * 25 * 8)).toBeCloseTo(1, 3);
    const cone = kernels.part.mesh(kernels.part.revolve(polygon([0, 0], [6, 0], [0, 9])), 0.001);
    expect(volume(cone) / ((Math.PI * 36 * 9) / 3)).toBeCloseTo(1, 3);
  });

  test('a turned circle segment by an arc is a ball', () => {
    const half: Outline = { start: [0, -4], edges: [{ to: [0, 4], via: [4, 0] }, { to: [0, -4] }] };
    const ball = kernels.part.mesh(kernels.part.revolve(half), 0.001);
    expect(volume(ball) / ((4 / 3) * Math.PI * 64)).toBeCloseTo(1, 3);
    expect(closureOf(ball)).toEqual({ openEdges: 0, bodies: 1 });
  });

  test('an outline pulled up stands where it was asked to', () => {
    const mesh = kernels.part.mesh(kernels.part.extrude(square(1, 2, 3), 4, 5), 0.01);
    expect(boundsOf(mesh)).toEqual({ min: [1, 2, 4], max: [4, 5, 9] });
    expect(volume(mesh)).toBeCloseTo(45, 9);
  });

  test('joining counts the overlap once, cutting takes only the overlap away', () => {
    const a = kernels.part.extrude(square(0, 0, 4), 0, 4);
    const b = kernels.part.extrude(square(2, 2, 4), 0, 4);
    expect(volume(kernels.part.mesh(kernels.part.fuse(a, b), 0.01))).toBeCloseTo(64 + 64 - 16, 6);
    expect(volume(kernels.part.mesh(kernels.part.cut(a, b), 0.01))).toBeCloseTo(64 - 16, 6);
    kernels.part.release();
  });

  test('cutting everything away is said, not handed out empty', () => {
    const a = kernels.part.extrude(square(1, 1, 2), 1, 2);
    const b = kernels.part.extrude(square(0, 0, 9), 0, 9);
    expect(() => kernels.part.mesh(kernels.part.cut(a, b), 0.01)).toThrow('Nothing is left');
    kernels.part.release();
  });

  test.each([
    ['not a number', polygon([0, 0], [Number.NaN, 0], [1, 1])],
    ['infinite', polygon([0, 0], [Number.POSITIVE_INFINITY, 0], [1, 1])],
  ])('a coordinate that is %s is refused before the kernel sees it', (_, outline) => {
    expect(() => kernels.part.extrude(outline, 0, 1)).toThrow(
      /Pulling the outline up failed: a coordinate is not a number/,
    );
  });

  test('an outline without area gives no solid, and the kernel goes on', () => {
    const flat = kernels.part.mesh(kernels.part.extrude(polygon([0, 0], [1, 0], [2, 0]), 0, 1), 0.01);
    expect(kernels.mesh.facts(flat).ok).toBe(false);
    expect(volume(kernels.part.mesh(kernels.part.extrude(square(0, 0, 2), 0, 2), 0.01))).toBeCloseTo(8, 9);
    kernels.part.release();
  });

  test('STEP goes out with its name and comes back with its volume', async () => {
    const text = await kernels.part.step([
      { body: kernels.part.extrude(square(0, 0, 3), 0, 2), name: 'Trestle foot' },
    ]);
    expect(text).toContain('Trestle foot');
    expect(text).toContain("'2000-01-01T00:00:00'");
    const back = kernels.part.mesh(await kernels.part.readStep(text), 0.01);
    expect(volume(back)).toBeCloseTo(18, 6);
    await expect(kernels.part.readStep('not STEP at all')).rejects.toThrow('Reading STEP failed');
    kernels.part.release();
  });

  test('released bodies are gone, and the heap is told', () => {
    const before = kernels.part.memory();
    for (let i = 0; i < 20; i++) {
      kernels.part.mesh(kernels.part.revolve(polygon([0, 0], [5, 0], [5, 8], [0, 8])), 0.01);
      kernels.part.release();
    }
    expect(before).toBeGreaterThan(1e6);
    expect(kernels.part.memory() - before).toBeLessThan(60e6);
  });
});

describe('the mesh kernel', () => {
  test('knows a ring from a block, and one body from two', () => {
    const facts = (mesh: Parameters<typeof volumeOf>[0]) => {
      const outcome = kernels.mesh.facts(mesh);
      if (!outcome.ok) throw new Error(outcome.message);
      return outcome.facts;
    };
    expect(facts(box([2, 3, 4]))).toMatchObject({
      volume: expect.closeTo(24, 6),
      area: expect.closeTo(52, 6),
      genus: 0,
      bodies: 1,
    });
    expect(facts(ring({ inner: 5, outer: 7, height: 3, segments: 48 })).genus).toBe(1);
    expect(facts(together(box([1, 1, 1]), box([1, 1, 1], [5, 0, 0]))).bodies).toBe(2);
  });

  test('refuses what is open or inside out', () => {
    expect(kernels.mesh.facts(withoutTriangle(box([1, 1, 1])))).toEqual({
      ok: false,
      message: 'The surface is not closed.',
    });
    expect(kernels.mesh.facts(insideOut(box([1, 1, 1])))).toEqual({
      ok: false,
      message: 'The solid is inside out.',
    });
  });

  test('joins and cuts as the closed formulas say', () => {
    const a = box([4, 4, 4]);
    const b = moved(a, [2, 2, 0]);
    expect(volume(kernels.mesh.combine('fuse', a, b))).toBeCloseTo(112, 4);
    const cut = kernels.mesh.combine('cut', a, b);
    expect(volume(cut)).toBeCloseTo(48, 4);
    expect(closureOf(cut)).toEqual({ openEdges: 0, bodies: 1 });
    expect(() => kernels.mesh.combine('cut', a, moved(box([9, 9, 9]), [-1, -1, -1]))).toThrow(
      'Nothing is left',
    );
    expect(() => kernels.mesh.combine('fuse', withoutTriangle(a), b)).toThrow('Joining triangles failed');
  });

  test('the shadow of a ring is its outline and its hole; of a ball as large as itself', () => {
    const rings = kernels.mesh.shadow(ring({ inner: 5, outer: 7, height: 3, segments: 48 }));
    const areas = rings.map(polygonArea).toSorted((a, b) => b - a);
    const regular = (r: number) => 24 * r * r * Math.sin(Math.PI / 24);
    expect(areas).toHaveLength(2);
    // One way round, and the other.
    expect(areas[0]! * areas[1]!).toBeLessThan(0);
    expect(Math.abs(areas[0]! + areas[1]!)).toBeCloseTo(regular(7) - regular(5), 3);
    const leaning = kernels.mesh.shadow(together(box([2, 2, 1]), box([2, 2, 1], [1, 1, 5])));
    expect(leaning).toHaveLength(1);
    expect(Math.abs(polygonArea(leaning[0]!))).toBeCloseTo(7, 6);
  });
});
