import { describe, expect, test } from 'vitest';
import type { Loop } from '../mesh/section';
import { bendingStress, sectionModulus, sectionProperties, torsionOf } from './section-properties';

/** Against closed formulas: Roark's Formulas for Stress and Strain, tables of section properties and of torsion. */
const loop = (points: [number, number][]): Loop => {
  const twice = points.reduce((sum, [x, y], i) => {
    const [bx, by] = points[(i + 1) % points.length]!;
    return sum + x * by - bx * y;
  }, 0);
  return { points, area: twice / 2 };
};
const box = (w: number, h: number, [x, y]: [number, number] = [0, 0]): [number, number][] => [
  [x, y],
  [x + w, y],
  [x + w, y + h],
  [x, y + h],
];
const round = (d: number, n = 360, [x, y]: [number, number] = [0, 0]): [number, number][] =>
  Array.from({ length: n }, (_, i) => [
    x + (d / 2) * Math.cos((2 * Math.PI * i) / n),
    y + (d / 2) * Math.sin((2 * Math.PI * i) / n),
  ]);
const hole = (points: [number, number][]) => loop([...points].reverse());
const near = (actual: number, expected: number, share: number) =>
  expect(Math.abs(actual / expected - 1), `${actual} for ${expected}`).toBeLessThan(share);

describe('area, centroid and second moments', () => {
  test('a rectangle anywhere: bh³/12 about its own middle, bh²/6', () => {
    const s = [loop(box(6, 10, [13, -4]))];
    const p = sectionProperties(s);
    expect(p.area).toBeCloseTo(60, 9);
    expect(p.centroid[0]).toBeCloseTo(16, 9);
    expect(p.centroid[1]).toBeCloseTo(1, 9);
    near(p.ix, (6 * 1000) / 12, 1e-9);
    near(p.iy, (10 * 216) / 12, 1e-9);
    expect(p.ixy).toBeCloseTo(0, 6);
    near(sectionModulus(s, 'x'), 100, 1e-9);
    near(sectionModulus(s, 'y'), 60, 1e-9);
  });

  test('a triangle: bh³/36, a third of its height up', () => {
    const p = sectionProperties([
      loop([
        [0, 0],
        [9, 0],
        [0, 6],
      ]),
    ]);
    near(p.ix, (9 * 216) / 36, 1e-9);
    near(p.ixy, -(81 * 36) / 72, 1e-9);
    expect(p.centroid[1]).toBeCloseTo(2, 9);
  });

  test('a tube: π (D⁴ − d⁴) / 64', () => {
    const p = sectionProperties([loop(round(20)), hole(round(14))]);
    near(p.ix, (Math.PI * (20 ** 4 - 14 ** 4)) / 64, 2e-4);
    near(p.greatest, p.least, 1e-6);
  });

  test('an angle, turned: its principal moments stay', () => {
    const angle: [number, number][] = [
      [0, 0],
      [20, 0],
      [20, 3],
      [3, 3],
      [3, 20],
      [0, 20],
    ];
    const turned = angle.map(([x, y]): [number, number] => [
      x * Math.cos(0.7) - y * Math.sin(0.7),
      x * Math.sin(0.7) + y * Math.cos(0.7),
    ]);
    const [a, b] = [sectionProperties([loop(angle)]), sectionProperties([loop(turned)])];
    near(a.greatest, b.greatest, 1e-9);
    near(a.least, b.least, 1e-9);
    // Equal legs: the axis of symmetry is at 45°, so the greatest is Ix + |Ixy|.
    near(a.greatest, a.ix + Math.abs(a.ixy), 1e-9);
  });
});

describe('bending', () => {
  test('M / W, about either axis', () => {
    const s = [loop(box(6, 10))];
    const p = sectionProperties(s);
    near(bendingStress(s, p, [1000, 0]), 10, 1e-9);
    near(bendingStress(s, p, [0, 600]), 10, 1e-9);
    // Both at once meet in a corner.
    near(bendingStress(s, p, [1000, 600]), 20, 1e-9);
  });

  test('an unsymmetric section bends about its principal axes', () => {
    const s = [
      loop([
        [0, 0],
        [9, 0],
        [0, 6],
      ]),
    ];
    const p = sectionProperties(s);
    // Worked by hand: Ix 54, Iy 121.5, Ixy −40.5; M about x of 100 gives σ = 100 (121.5 y + 40.5 x) / 4920.75.
    const at = (x: number, y: number) =>
      Math.abs((100 * (p.iy * (y - 2) - p.ixy * (x - 3))) / (p.ix * p.iy - p.ixy ** 2));
    near(bendingStress(s, p, [100, 0]), Math.max(at(0, 0), at(9, 0), at(0, 6)), 1e-9);
  });
});

describe('torsion', () => {
  const of = (...loops: Loop[]) => torsionOf(loops);

  test('a round bar: π D⁴ / 32, and π D³ / 16', () => {
    const t = of(loop(round(20)));
    near(t.constant, (Math.PI * 20 ** 4) / 32, 0.02);
    near(t.modulus, (Math.PI * 20 ** 3) / 16, 0.12);
  });

  test('a tube', () => {
    const t = of(loop(round(20)), hole(round(14)));
    near(t.constant, (Math.PI * (20 ** 4 - 14 ** 4)) / 32, 0.04);
    near(t.modulus, (Math.PI * (20 ** 4 - 14 ** 4)) / 16 / 20, 0.12);
  });

  test('rectangles: 0.141 a⁴ for a square, 0.229 a b³ at 2 : 1, 0.312 a b³ at 10 : 1 (Timoshenko)', () => {
    near(of(loop(box(10, 10))).constant, 0.1406 * 1e4, 0.02);
    near(of(loop(box(10, 10))).modulus, 0.208 * 1e3, 0.12);
    near(of(loop(box(20, 10))).constant, 0.229 * 20 * 1e3, 0.02);
    near(of(loop(box(20, 10))).modulus, 0.246 * 20 * 100, 0.12);
    near(of(loop(box(40, 4))).constant, 0.312 * 40 * 64, 0.04);
  });

  test('an equilateral triangle: √3 a⁴ / 80', () => {
    near(
      of(
        loop([
          [0, 0],
          [12, 0],
          [6, 6 * Math.sqrt(3)],
        ]),
      ).constant,
      (Math.sqrt(3) * 12 ** 4) / 80,
      0.04,
    );
  });

  test('a slit tube is nearly nothing against the closed one', () => {
    const closed = of(loop(round(20)), hole(round(16)));
    const outer = round(20, 360).slice(2, -2);
    const slit = of(loop([...outer, ...round(16, 360).slice(2, -2).reverse()]));
    expect(slit.constant).toBeLessThan(closed.constant / 20);
  });
});
