import { describe, expect, test } from 'vitest';
import { scannedCone, scannedCylinder } from '../../testing/scanned';
import { box, ring } from '../../testing/solids';
import { lathe } from '../bench/lathe';
import { seeded } from '../bench/random';
import { scannedBy } from '../bench/scanner';
import { joined, type TriangleMesh } from '../shape/mesh/mesh';
import { RayTree } from '../shape/mesh/rays';
import { subdivided } from '../shape/mesh/subdivided';
import { againstPart, deviationColour } from './against-part';
import { deviationOf } from './deviate';
import { NearestPoints } from './nearest';
import { ScanSurface } from './scan-surface';
import { undercutOf } from './undercut';

describe('the nearest place', () => {
  test('of points: as looking at each of them tells', () => {
    const random = seeded(3);
    const points = Float64Array.from({ length: 900 }, () => 10 * random());
    const tree = new NearestPoints(points);
    for (let i = 0; i < 60; i++) {
      const q = [12 * random() - 1, 12 * random() - 1, 12 * random() - 1] as const;
      let least = Infinity;
      for (let k = 0; k < 900; k += 3)
        least = Math.min(least, Math.hypot(points[k]! - q[0], points[k + 1]! - q[1], points[k + 2]! - q[2]));
      expect(tree.nearest(...q, 50)).toBeGreaterThanOrEqual(0);
      expect(tree.distance).toBeCloseTo(least, 9);
    }
    expect(tree.nearest(100, 100, 100, 5)).toBe(-1);
  });
  test('of a box: outside, inside, and beside an edge', () => {
    const tree = new RayTree(box([10, 20, 30]));
    expect(tree.nearest([5, 10, 33], 10)).toMatchObject({ distance: 3, ahead: 3 });
    expect(tree.nearest([5, 10, 28], 10)).toMatchObject({ distance: 2, ahead: -2 });
    expect(tree.nearest([13, 24, 15], 10)?.distance).toBeCloseTo(5, 9);
    expect(tree.nearest([13, 24, 15], 10)!.ahead).toBeGreaterThan(0);
    expect(tree.nearest([50, 10, 15], 10)).toBeUndefined();
  });
});

describe('a scan against a model', () => {
  const model = ring({ inner: 10, outer: 15.85, height: 24, segments: 256 });
  test('a tube scanned 0.2 too wide lies 0.1 outside of it', () => {
    const found = deviationOf(model, scannedCylinder(31.9, 20, { noise: 0, warp: 0 }))!;
    expect(found.mean).toBeCloseTo(0.1, 2);
    expect(found.rms).toBeCloseTo(0.1, 2);
    expect(found.max).toBeLessThan(0.12);
    expect(found.area).toBeGreaterThan(1000);
  });
  test('scatter shows in rms and p95, not in the mean', () => {
    const found = deviationOf(model, scannedCylinder(31.7, 20, { noise: 0.05, warp: 0 }))!;
    expect(Math.abs(found.mean)).toBeLessThan(0.01);
    expect(found.rms).toBeCloseTo(0.05, 1);
    // 1.96 sd of a normal distribution.
    expect(found.p95 / found.rms).toBeGreaterThan(1.8);
    expect(found.p95 / found.rms).toBeLessThan(2.15);
  });
  test('a bore scanned too narrow lies inside the air, outside of the solid', () => {
    expect(
      deviationOf(model, scannedCylinder(19.6, 20, { inside: true, noise: 0, warp: 0 }))!.mean,
    ).toBeCloseTo(0.2, 1);
  });
  test('what is nowhere near is not compared', () => {
    const far: TriangleMesh = box([5, 5, 5], [500, 0, 0]);
    expect(deviationOf(model, far)).toBeNull();
    const both = deviationOf(model, joined([scannedCylinder(31.7, 20, { noise: 0, warp: 0 }), far]))!;
    expect(both.max).toBeLessThan(0.1);
  });
});

describe('a scanned print against its part', () => {
  const cap = lathe([
    [0, 0],
    [17, 0],
    [17, 14],
    [15.9, 14],
    [15.9, 2],
    [0, 2],
  ]);
  /** The same with an outside that printed 0.2 too large all round. */
  const print = lathe([
    [0, 0],
    [17.2, 0],
    [17.2, 14],
    [15.9, 14],
    [15.9, 2],
    [0, 2],
  ]);
  const scan = scannedBy(print, { spacing: 0.7, noise: 0.03, warp: 0.02 });
  const turnedOver = {
    ...scan,
    positions: scan.positions.map((x, i) => (i % 3 === 0 ? x : -x) + 40),
  };
  test('is laid on it though it lay the other way, and is too large where it is', () => {
    const found = againstPart(cap, new ScanSurface(turnedOver));
    if (!found.ok) throw new Error(found.message);
    expect(found.overlap).toBeGreaterThan(0.6);
    expect(found.deviation.max).toBeLessThan(0.6);
    // The outside is 0.2 off, the rest is not.
    expect(found.deviation.mean).toBeGreaterThan(0.03);
    expect(found.deviation.mean).toBeLessThan(0.15);
    expect(found.deviation.p95).toBeGreaterThan(0.15);
    expect(found.deviation.p95).toBeLessThan(0.35);
    // In the reverse direction the signs change: where the scan stands out, the part is inside it.
    expect(found.back.mean).toBeLessThan(0);
    expect(found.back.seen).toBeGreaterThan(0.6);
    expect(found.back.p95).toBeLessThan(0.35);
  });
  test('another thing is refused', () => {
    const found = againstPart(box([80, 8, 5]), new ScanSurface(scan));
    expect(found.ok).toBe(false);
  });
  test('outside goes to orange, inside to purple, nothing is white', () => {
    expect(deviationColour(0, 0.5)).toEqual([1, 1, 1]);
    const [out, into] = [deviationColour(9, 0.5), deviationColour(-9, 0.5)];
    expect(out[0]).toBeGreaterThan(out[2]);
    expect(into[2]).toBeGreaterThan(into[1]);
  });
});

describe('undercut along a pull', () => {
  const of = (mesh: TriangleMesh, pull: readonly [number, number, number] = [0, 0, 1]) =>
    undercutOf(new ScanSurface(mesh), pull);
  test('a block comes out, and is told the least draft', () => {
    const found = of(subdivided(box([30, 20, 15]), 0.6));
    expect(found.area).toBe(0);
    expect(found.maxDepth).toBe(0);
    expect(found.suggestedDraft).toBeCloseTo(1, 1);
  });
  test('a cone that widens upwards comes out, its draft is its own; the other way it is held all round', () => {
    // Half-angle 11.3°: 4 over 20.
    expect(of(scannedCone(20, 28, 20, { arc: 359, noise: 0, warp: 0 }))).toMatchObject({
      area: 0,
      suggestedDraft: 0,
    });
    const held = of(scannedCone(28, 20, 20, { arc: 359, noise: 0, warp: 0 }));
    expect(held.fraction).toBeGreaterThan(0.85);
    expect(held.maxDepth).toBeGreaterThan(3.6);
    expect(held.maxDepth).toBeLessThan(4.3);
  });
  test('the area of a groove is its lower side and its floor, its depth the groove’s', () => {
    // 3 deep, 8 wide.
    const groove = subdivided(
      lathe([
        [0, 0],
        [15, 0],
        [15, 8],
        [12, 8],
        [12, 16],
        [15, 16],
        [15, 24],
        [0, 24],
      ]),
      0.7,
    );
    const found = of(groove);
    expect(found.maxDepth).toBeGreaterThan(2.7);
    expect(found.maxDepth).toBeLessThan(3.3);
    const shelf = Math.PI * (15 ** 2 - 12 ** 2);
    const floor = 2 * Math.PI * 12 * 8;
    expect(found.area).toBeGreaterThan(0.8 * (shelf + floor));
  });
  test('pulled sideways, a tube is held by its upper half', () => {
    const found = of(scannedCylinder(20, 30, { arc: 359, noise: 0, warp: 0 }), [1, 0, 0]);
    expect(found.fraction).toBeGreaterThan(0.38);
    expect(found.fraction).toBeLessThan(0.55);
    expect(found.maxDepth).toBeGreaterThan(7.5);
  });
});
