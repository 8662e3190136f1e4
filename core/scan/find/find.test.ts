import { describe, expect, test } from 'vitest';
import { proofBlock } from '../../../testing/scan-objects';
import { scannedBy } from '../../bench/scanner';
import { dot, type Point3 } from '../../shape/vector';
import type { Found } from '../fit/fit';
import { ScanSurface } from '../scan-surface';
import { findAll } from './find';
import { fitWhere } from './fit-where';
import { prismsOf } from './prisms';
import { acrossOf, patternsOf, slotsOf } from './sets';

/** A plate, four holes, a boss with a cone in it, a hexagon and half a ball, as a handheld scanner sees them. */
const scan = new ScanSurface(
  scannedBy(proofBlock(), { spacing: 0.6, noise: 0.05, warp: 0.05, islands: 4, seed: 3 }),
);
const found = findAll(scan);
const prisms = prismsOf(scan, found);
const round = (kind: 'cylinder' | 'cone' | 'sphere') =>
  found.flatMap(f => (f.surface.kind === kind ? [{ ...f, surface: f.surface }] : []));
const off = (f: Found): number => (f.surface.kind === 'plane' ? dot(f.surface.at, f.surface.normal) : 0);
const facing = (way: Point3) =>
  found.filter(f => f.surface.kind === 'plane' && dot(f.surface.normal, way) > 0.999);

describe('every surface of a scanned object of known sizes', () => {
  test('the boss of 31.7 and the four holes of 5.3, and no other cylinder', () => {
    const sizes = round('cylinder').map(f => 2 * f.surface.radius);
    expect(sizes).toHaveLength(5);
    expect(Math.abs(sizes[0]! - 31.7)).toBeLessThan(0.05);
    for (const hole of sizes.slice(1)) expect(Math.abs(hole - 5.3)).toBeLessThan(0.06);
  });
  test('the cone leans by 2.08°, and is 25.5 wide at the middle of what was seen of it', () => {
    const [cone] = round('cone');
    const surface = cone!.surface.kind === 'cone' ? cone!.surface : null;
    // It leans by 0.8 over 22.
    const lean = (Math.atan(0.8 / 22) * 180) / Math.PI;
    expect(Math.abs(Math.abs(surface!.halfAngle) - lean)).toBeLessThan(0.06);
    const at = 2 * (12.2 + (surface!.at[2] - 8) * (0.8 / 22));
    expect(Math.abs(2 * surface!.radius - at)).toBeLessThan(0.05);
  });
  test('the ball', () => {
    const [ball] = round('sphere');
    expect(Math.abs(2 * ball!.surface.radius - 25.2)).toBeLessThan(0.05);
  });
  test('the flats that look up lie at 6, 8, 18 and 30', () => {
    const heights = facing([0, 0, 1])
      .map(off)
      .sort((a, b) => a - b);
    [6, 8, 18, 30].forEach((z, i) => {
      expect(Math.abs(heights[i]! - z)).toBeLessThan(0.08);
    });
  });
  test('six flats are one hexagon of 17, surer than a pair of them', () => {
    expect(prisms).toHaveLength(1);
    const [{ surface, u, flats }] = prisms as [(typeof prisms)[0]];
    expect(surface.kind).toBe('hexagon');
    expect(flats).toHaveLength(6);
    const across = surface.kind === 'hexagon' ? 2 * surface.radius : 0;
    expect(Math.abs(across - 17)).toBeLessThan(0.05);
    expect(Math.abs(across - 17)).toBeLessThan(2 * u);
  });
  test('stated doubts cover the sizes', () => {
    const sizes = [...round('cylinder').map(f => ({ f, is: 2 * f.surface.radius }))];
    for (const { f, is } of sizes) expect(Math.abs(is - (is > 20 ? 31.7 : 5.3))).toBeLessThan(2.5 * f.u);
  });
  test('the holes are one pattern of 64 by 44', () => {
    const [pattern] = patternsOf(scan, found);
    expect(pattern).toMatchObject({ kind: 'grid' });
    expect(pattern!.holes).toHaveLength(4);
    const pitch = pattern!.kind === 'grid' ? [...pattern!.pitch].sort((a, b) => a - b) : [];
    expect(Math.abs(pitch[0]! - 44)).toBeLessThan(0.08);
    expect(Math.abs(pitch[1]! - 64)).toBeLessThan(0.08);
  });
  test('the plate is 6 thick, 60 deep and 80 wide', () => {
    const sizes = acrossOf(scan, found).filter(a => a.isMaterial);
    for (const is of [6, 60, 80])
      expect(
        sizes.some(a => Math.abs(a.size - is) < 0.08),
        `${is}`,
      ).toBe(true);
    expect(slotsOf(scan, found)).toEqual([]);
  });
});

describe('pressed on', () => {
  test('a hexagon is one wherever on it somebody presses', () => {
    const fit = fitWhere(scan, { kind: 'hexagon', near: [28.5, 15, 12], radius: 6 });
    expect(Math.abs(2 * (fit?.surface.kind === 'hexagon' ? fit.surface.radius : 0) - 17)).toBeLessThan(0.06);
  });
  test('where no hexagon is, there is none', () => {
    expect(fitWhere(scan, { kind: 'hexagon', near: [-13, 15.85, 20], radius: 6 })).toBeNull();
  });
});
