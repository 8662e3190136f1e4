import { describe, expect, test } from 'vitest';
import {
  type Seen,
  scannedCone,
  scannedCylinder,
  scannedPlane,
  scannedSphere,
} from '../../../testing/scanned';
import type { TriangleMesh } from '../../shape/mesh/mesh';
import { ScanSurface } from '../scan-surface';
import { fitAt } from './fit';
import type { SmoothKind } from './primitive';

/**
 * On surfaces of known size, with scatter 0.05 and warp 0.05 unless stated: how far off, and whether the uncertainty
 * covers it.
 */
const SEEDS = Array.from({ length: 14 }, (_, i) => i + 1);

function errors(
  kind: SmoothKind,
  make: (seen: Seen) => TriangleMesh,
  near: readonly [number, number, number],
  radius: number,
  size: number,
  seen: Seen = {},
) {
  return SEEDS.map(seed => {
    const found = fitAt(new ScanSurface(make({ ...seen, seed })), { kind, near, radius });
    if (!found) throw new Error(`seed ${seed}: nothing found`);
    const { surface } = found;
    const is = surface.kind === 'plane' ? surface.at[2] : 2 * surface.radius;
    return { error: is - size, u: found.u, found };
  });
}
const middle = (all: number[]) => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)]!;
const covered = (all: { error: number; u: number }[]) =>
  all.filter(({ error, u }) => Math.abs(error) <= 2 * u).length / all.length;

describe('a cylinder of 31.7 seen over 262°', () => {
  const all = errors('cylinder', s => scannedCylinder(31.7, 24, s), [15.85, 0, 12], 5, 31.7);
  test('its diameter within 0.03, its axis within 0.15°, and grown over all of it', () => {
    expect(middle(all.map(e => Math.abs(e.error)))).toBeLessThan(0.03);
    for (const { found } of all) {
      const axis = found.surface.kind === 'cylinder' ? found.surface.axis : ([1, 0, 0] as const);
      expect(Math.acos(Math.min(1, Math.abs(axis[2]))) * (180 / Math.PI)).toBeLessThan(0.3);
      expect(found.coverage).toBeGreaterThan(240);
      expect(found.area / (((Math.PI * 31.7 * 262) / 360) * 24)).toBeGreaterThan(0.9);
    }
  });
  test('its doubt covers nine of ten, and says something', () => {
    expect(covered(all)).toBeGreaterThanOrEqual(0.9);
    expect(middle(all.map(e => e.u))).toBeLessThan(0.08);
  });
});

test('a bore, a cylinder seen over 180°, and a short rim', () => {
  const bore = errors('cylinder', s => scannedCylinder(20, 15, s), [10, 0, 7], 4, 20, { inside: true });
  expect(middle(bore.map(e => Math.abs(e.error)))).toBeLessThan(0.03);
  const half = errors('cylinder', s => scannedCylinder(31.7, 24, s), [15.85, 0, 12], 5, 31.7, { arc: 180 });
  expect(middle(half.map(e => Math.abs(e.error)))).toBeLessThan(0.07);
  expect(covered(half)).toBeGreaterThanOrEqual(0.9);
  expect(middle(half.map(e => e.u))).toBeGreaterThan(middle(bore.map(e => e.u)));
});

test('a sphere of radius 12.6, and a cone that opens by 2.08°', () => {
  const sphere = errors('sphere', s => scannedSphere(12.6, s), [12.6, 0, 0], 4, 25.2);
  expect(middle(sphere.map(e => Math.abs(e.error)))).toBeLessThan(0.04);
  expect(covered(sphere)).toBeGreaterThanOrEqual(0.85);
  const cone = errors('cone', s => scannedCone(30, 28.4, 22, s), [14.6, 0, 11], 6, 29.2, { arc: 350 });
  const half = (Math.atan(0.8 / 22) * 180) / Math.PI;
  for (const { found } of cone) {
    const { surface } = found;
    expect(Math.abs(Math.abs(surface.kind === 'cone' ? surface.halfAngle : 0) - half)).toBeLessThan(0.4);
  }
});

test('a plane lies where it was, and a place with nothing of the kind says so', () => {
  const plane = errors('plane', s => scannedPlane(30, 20, s), [15, 10, 0], 5, 0);
  expect(middle(plane.map(e => Math.abs(e.error)))).toBeLessThan(0.03);
  const flat = new ScanSurface(scannedPlane(30, 20, { noise: 0.02, warp: 0 }));
  const none = fitAt(flat, { kind: 'sphere', near: [15, 10, 0], radius: 5 });
  // A flat is a sphere of hundreds of metres, or none.
  expect(none === null || (none.surface.kind === 'sphere' && none.surface.radius > 100)).toBe(true);
});
