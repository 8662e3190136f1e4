import { describe, expect, test } from 'vitest';
import { scannedCylinder } from '../../../testing/scanned';
import { box } from '../../../testing/solids';
import { gauss, seeded } from '../../bench/random';
import { lengthOfCurve } from '../../shape/curve';
import { linesAndArcs } from '../../shape/lines-and-arcs/lines-and-arcs';
import { subdivided } from '../../shape/mesh/subdivided';
import { tidied, tidyings } from '../../shape/tidy/tidy';
import type { Point2 } from '../../shape/vector';
import { ScanSurface } from '../scan-surface';
import { cutAt, inSection } from './cut';
import { sectionOf } from './section';

/** Points along a slot of 30 by 12 (two lines of 18, two half circles of 6), scattered. */
function slotPoints(noise: number): Point2[] {
  const random = seeded(5);
  const points: Point2[] = [];
  const add = (x: number, y: number) => points.push([gauss(random, x, noise), gauss(random, y, noise)]);
  for (let i = 0; i < 60; i++) add(-9 + 0.3 * i, -6);
  for (let i = 0; i < 62; i++) {
    const a = -Math.PI / 2 + (Math.PI * i) / 62;
    add(9 + 6 * Math.cos(a), 6 * Math.sin(a));
  }
  for (let i = 0; i < 60; i++) add(9 - 0.3 * i, 6);
  for (let i = 0; i < 62; i++) {
    const a = Math.PI / 2 + (Math.PI * i) / 62;
    add(-9 + 6 * Math.cos(a), 6 * Math.sin(a));
  }
  return points;
}

describe('measured points as lines and arcs', () => {
  test('a slot is two lines and two half circles, which touch', () => {
    const curves = linesAndArcs(slotPoints(0.04), true, 0.15);
    expect(curves.map(c => (c.arc ? 'arc' : 'line')).sort()).toEqual(['arc', 'arc', 'line', 'line']);
    for (const c of curves) {
      if (c.arc) expect(Math.abs(c.arc.radius - 6)).toBeLessThan(0.06);
      else expect(Math.abs(lengthOfCurve(c) - 18)).toBeLessThan(1);
    }
    curves.forEach((c, i) => {
      expect(c.from).toEqual(curves.at(i - 1)!.to);
    });
  });
  test('a rectangle keeps its four corners, wherever its points begin', () => {
    const random = seeded(2);
    const side = (from: Point2, to: Point2) =>
      Array.from(
        { length: 50 },
        (_, i): Point2 => [
          gauss(random, from[0] + ((to[0] - from[0]) * i) / 50, 0.03),
          gauss(random, from[1] + ((to[1] - from[1]) * i) / 50, 0.03),
        ],
      );
    const all = [
      side([0, 0], [40, 0]),
      side([40, 0], [40, 25]),
      side([40, 25], [0, 25]),
      side([0, 25], [0, 0]),
    ].flat();
    for (const start of [0, 17, 90, 151]) {
      const curves = linesAndArcs([...all.slice(start), ...all.slice(0, start)], true, 0.12);
      expect(curves.map(c => Math.round(lengthOfCurve(c))).sort()).toEqual([25, 25, 40, 40]);
    }
  });
  test('a line that ends keeps its ends', () => {
    const points = Array.from({ length: 40 }, (_, i): Point2 => [i, 0.02 * Math.sin(7 * i)]);
    const [line, ...more] = linesAndArcs(points, false, 0.1);
    expect(more).toEqual([]);
    expect(lengthOfCurve(line!)).toBeCloseTo(39, 1);
  });
  test('nothing comes of next to nothing', () => {
    expect(linesAndArcs([[0, 0]], false, 0.1)).toEqual([]);
    expect(
      linesAndArcs(
        [
          [1, 1],
          [1, 1],
          [1, 1],
          [1, 1],
        ],
        true,
        0.1,
      ),
    ).toEqual([]);
  });
});

describe('a scan cut by a plane', () => {
  test('a tube of 31.7 seen over 262° is one arc of it that ends', () => {
    const scan = new ScanSurface(scannedCylinder(31.7, 24));
    const [loop, ...more] = sectionOf(scan, { at: [0, 0, 12], normal: [0, 0, 1] });
    expect(more).toEqual([]);
    expect(loop!.closed).toBe(false);
    expect(loop!.curves).toHaveLength(1);
    expect(Math.abs(2 * loop!.curves[0]!.arc!.radius - 31.7)).toBeLessThan(0.1);
    expect(lengthOfCurve(loop!.curves[0]!)).toBeCloseTo((31.7 / 2) * ((262 * Math.PI) / 180), 0);
  });
  test('a box cut askew: its lines are measured in place', () => {
    const block = subdivided(box([30, 20, 10]), 1);
    const plane = { at: [15, 10, 5], normal: [0, Math.SQRT1_2, Math.SQRT1_2] } as const;
    const [chain] = cutAt(block, plane, 1);
    expect(chain!.closed).toBe(true);
    for (const p of chain!.points) {
      const [x, y, z] = inSection(plane, p);
      expect(y + z).toBeCloseTo(15, 6);
      expect(x).toBeGreaterThan(-1e-6);
      expect(z).toBeLessThan(10 + 1e-6);
    }
    const [loop] = sectionOf(new ScanSurface(block), plane);
    const sizes = loop!.curves.map(lengthOfCurve).sort((a, b) => a - b);
    expect(sizes).toHaveLength(4);
    expect(sizes[0]).toBeCloseTo(10 * Math.SQRT2, 2);
    expect(sizes[3]).toBeCloseTo(30, 2);
  });
  test('a plane that misses it gives nothing', () => {
    expect(
      sectionOf(new ScanSurface(scannedCylinder(20, 10)), { at: [0, 0, 40], normal: [0, 0, 1] }),
    ).toEqual([]);
  });
});

test('a section of a box is offered right angles, and has them once they are taken', () => {
  const block = subdivided(box([30, 20, 40]), 1);
  const [loop] = sectionOf(new ScanSurface(block), { at: [15, 10, 20], normal: [0, 0, 1] });
  const offers = tidyings([loop!.parted]).filter(o => o.kind === 'square');
  expect(offers).toHaveLength(1);
  const [curves] = tidied([loop!.parted], [offers[0]!.key]);
  const ways = curves!.map(c => Math.atan2(c.to[1] - c.from[1], c.to[0] - c.from[0]) / (Math.PI / 2));
  for (const w of ways) expect(Math.abs(w - ways[0]! - Math.round(w - ways[0]!))).toBeLessThan(1e-6);
});
