import { describe, expect, test } from 'vitest';
import { grip } from '../../testing/scan-objects';
import { box } from '../../testing/solids';
import { scannedBy } from '../bench/scanner';
import { boundsOf } from '../shape/mesh/mesh';
import { subdivided } from '../shape/mesh/subdivided';
import { findAll } from './find/find';
import { ScanSurface } from './scan-surface';
import { followed, placesUnder } from './thinned';

const scan = new ScanSurface(
  scannedBy(grip(), { spacing: 0.7, noise: 0.04, warp: 0.03, islands: 4, seed: 8 }),
);
const DRAWN = { lies: 'drawn', turn: 0 };

test('pegs in holes are found where they stand, and a foot’s posts go under them', () => {
  const places = [
    [-20, -10],
    [22, 8],
  ] as const;
  const plate = subdivided(box([80, 50, 6], [-40, -25, -6]), 6);
  const pegged = new ScanSurface(
    scannedBy(plate, {
      spacing: 0.6,
      noise: 0.03,
      warp: 0.02,
      seed: 4,
      pegs: places.map(([x, y]) => ({ at: [x, y, 0], up: [0, 0, 1], diameter: 8, height: 10 })),
    }),
  );
  const pegs = findAll(pegged).flatMap(({ surface }) =>
    surface.kind === 'cylinder' && surface.radius > 3 && surface.radius < 5 ? [surface.at] : [],
  );
  expect(pegs).toHaveLength(2);
  const at = placesUnder(pegged, pegs, DRAWN).sort((a, b) => a[0] - b[0]);
  for (const [i, [x, y]] of places.entries()) {
    expect(at[i]![0]).toBeCloseTo(x, 0);
    expect(at[i]![1]).toBeCloseTo(y, 0);
  }
});

describe('a scan that a part follows', () => {
  test('has fewer triangles, no specks, and the object’s sizes', () => {
    const { mesh, length, width, high, u } = followed(scan, DRAWN);
    expect(mesh.triangles.length).toBeLessThan(0.6 * scan.mesh.triangles.length);
    expect(length).toBeCloseTo(128, 0);
    expect(width).toBeGreaterThan(30);
    expect(width).toBeLessThan(32.5);
    expect(high).toBeCloseTo(24, 0);
    for (const [told, truth] of [
      [length, 128],
      [high, 24],
    ] as const)
      expect(Math.abs(told - truth)).toBeLessThan(2 * u);
  });

  test('turned, its length and width change places; larger, all of them grow', () => {
    const upright = followed(scan, { lies: 'left', turn: 0 });
    expect(upright.high).toBeCloseTo(128, 0);
    const turned = followed(scan, { lies: 'drawn', turn: 90 }, 1.01);
    expect(turned.length).toBeCloseTo(1.01 * 32, 0);
  });

  test('places on it are told from the middle of its box, as the part has it lie', () => {
    const { min, max } = boundsOf(followed(scan, DRAWN).mesh);
    const middle = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2] as const;
    const at = [40, 2, 0] as const;
    const [plain] = placesUnder(scan, [at], DRAWN);
    expect(plain![0]).toBeCloseTo(at[0] - middle[0], 6);
    expect(plain![1]).toBeCloseTo(at[1] - middle[1], 6);
    // Turned by a right angle about the upright, what was to the right is at the back.
    const [turned] = placesUnder(scan, [at], { lies: 'drawn', turn: 90 });
    expect(turned![0]).toBeCloseTo(-plain![1], 6);
    expect(turned![1]).toBeCloseTo(plain![0], 6);
  });
});
