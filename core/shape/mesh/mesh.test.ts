import { describe, expect, test } from 'vitest';
import { box, ring } from '../../../testing/solids';
import { areaOf, boundsOf, closureOf, volumeOf, weld } from './mesh';
import { loopNear, polygonArea, sectionAtZ } from './section';

describe('closed forms', () => {
  test('a box of 2 × 3 × 4', () => {
    const mesh = box([2, 3, 4]);
    expect(volumeOf(mesh)).toBeCloseTo(24, 12);
    expect(areaOf(mesh)).toBeCloseTo(52, 12);
    expect(boundsOf(mesh)).toEqual({ min: [0, 0, 0], max: [2, 3, 4] });
    expect(closureOf(mesh)).toEqual({ openEdges: 0, bodies: 1 });
  });

  test('a ring of n flats has the polygon’s area, not the circle’s', () => {
    const n = 96;
    const mesh = ring({ inner: 10, outer: 12, height: 5, segments: n });
    const polygon = (r: number) => (n / 2) * r * r * Math.sin((2 * Math.PI) / n);
    expect(volumeOf(mesh)).toBeCloseTo(5 * (polygon(12) - polygon(10)), 8);
    expect(closureOf(mesh)).toEqual({ openEdges: 0, bodies: 1 });
  });
});

describe('welding', () => {
  test('corners that lie together become one, triangles without area go, −0 is 0', () => {
    const mesh = weld([0, 0, 0, 1, 0, 0, 0, 1, 0, -0, 0, 1e-12, 1, 1, 0], [0, 1, 2, 3, 1, 4, 0, 3, 1]);
    expect(mesh.positions.length / 3).toBe(4);
    expect([...mesh.triangles]).toEqual([0, 1, 2, 0, 1, 3]);
  });

  test('points a micrometre apart stay apart', () => {
    expect(weld([0, 0, 0, 0.0001, 0, 0, 0, 1, 0], [0, 1, 2]).positions.length / 3).toBe(3);
  });
});

describe('sections', () => {
  test('a ring gives an outer loop and a hole, with opposite turns', () => {
    const loops = sectionAtZ(ring({ inner: 10, outer: 12, height: 5, segments: 64 }), 2.5);
    expect(loops.map(l => Math.sign(l.area)).sort()).toEqual([-1, 1]);
  });

  test('the caliper feels a hole’s flats and an outside’s corners', () => {
    const n = 48;
    const loops = sectionAtZ(ring({ inner: 10, outer: 12, height: 5, segments: n }), 2.5);
    expect(loopNear(loops, [0, 0], 20, 'inside')!.diameter).toBeCloseTo(20 * Math.cos(Math.PI / n), 9);
    expect(loopNear(loops, [0, 0], 24, 'outside')!.diameter).toBeCloseTo(24, 9);
  });

  test('a section exactly at a vertex’s height still closes', () => {
    const loops = sectionAtZ(box([2, 3, 4]), 4);
    expect(loops).toHaveLength(1);
    expect(Math.abs(loops[0]!.area)).toBeCloseTo(6, 12);
  });

  test('beyond the solid there is nothing', () => {
    expect(sectionAtZ(box([2, 3, 4]), 9)).toEqual([]);
    expect(loopNear([], [0, 0], 5, 'inside')).toBeUndefined();
  });

  test('shoelace area', () =>
    expect(
      polygonArea([
        [0, 0],
        [4, 0],
        [4, 3],
      ]),
    ).toBe(6));
});
