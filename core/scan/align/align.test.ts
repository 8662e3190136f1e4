import { describe, expect, test } from 'vitest';
import { proofBlock } from '../../../testing/scan-objects';
import { scannedCylinder, scannedPlane } from '../../../testing/scanned';
import { ROUND_A_TABLE, scannedBy } from '../../bench/scanner';
import type { TriangleMesh } from '../../shape/mesh/mesh';
import { type Point3, point3 } from '../../shape/vector';
import { ScanSurface } from '../scan-surface';
import { aligned } from './align';
import {
  AT_REST,
  backwards,
  composed,
  degreesBetween,
  type Pose,
  posed,
  poseOfPairs,
  turnAbout,
} from './pose';

const object = proofBlock();
const above = scannedBy(object, { spacing: 0.8, views: ROUND_A_TABLE, seed: 1 });
const beside = scannedBy(object, {
  spacing: 0.8,
  views: [0, 45, 90, 135, 180, 225].map(
    (a): Point3 => [Math.cos(a / 57.3), Math.sin(a / 57.3), a > 100 ? -0.6 : 0.5],
  ),
  seed: 2,
});
const poseOf = (omega: Point3, shift: Point3): Pose => ({ turn: turnAbout(omega), shift });
function put({ positions, triangles }: TriangleMesh, pose: Pose): TriangleMesh {
  const out = new Float64Array(positions.length);
  for (let i = 0; i < out.length; i += 3)
    out.set(
      posed(
        pose,
        point3(k => positions[i + k]!),
      ),
      i,
    );
  return { positions: out, triangles };
}

describe('poses', () => {
  test('three pairs of places give the turn and the shift', () => {
    const pose = poseOf([0.4, -1.2, 2], [10, -5, 3]);
    const from: Point3[] = [
      [0, 0, 0],
      [10, 0, 1],
      [0, 7, -2],
      [3, 3, 9],
    ];
    const found = poseOfPairs(from.map(p => [posed(pose, p), p]));
    expect(degreesBetween(found, pose)).toBeLessThan(1e-4);
    const back = composed(backwards(found), pose);
    expect(Math.hypot(...back.shift)).toBeLessThan(1e-6);
    expect(degreesBetween(back, AT_REST)).toBeLessThan(1e-4);
  });
});

describe('two scans of one object, each seen from other sides', () => {
  const fixed = new ScanSurface(above);
  test.each([
    [[0, 0, 0.3] as const, [4, 2, 0] as const],
    [[2.4, 0.7, -1.1] as const, [120, -60, 33] as const],
    [[-0.9, 2.1, 1.9] as const, [-300, 10, 90] as const],
  ])('turned by %j and moved by %j, they come together without a hint', (omega, shift) => {
    const pose = poseOf(omega, shift);
    const found = aligned(fixed, new ScanSurface(put(beside, pose)));
    if (!found.ok) throw new Error(found.message);
    const left = composed(found.pose, pose);
    expect(degreesBetween(left, AT_REST)).toBeLessThan(0.2);
    expect(Math.hypot(...point3(i => posed(left, [0, 0, 10])[i] - [0, 0, 10][i]!))).toBeLessThan(0.15);
    expect(found.overlap).toBeGreaterThan(0.5);
    expect(found.overlap).toBeLessThan(0.95);
    expect(found.rms).toBeLessThan(0.12);
  });
  test('three picked pairs do as well', () => {
    const pose = poseOf([1.2, -0.4, 2], [50, 0, 0]);
    const places: Point3[] = [
      [-40, -30, 6],
      [40, -30, 6],
      [20, -12, 18.6],
    ];
    const rough = places.map(
      p =>
        [
          p,
          posed(
            pose,
            point3(i => p[i] + 1.5 * (i === 0 ? 1 : -1)),
          ),
        ] as const,
    );
    const found = aligned(fixed, new ScanSurface(put(beside, pose)), { pairs: rough });
    if (!found.ok) throw new Error(found.message);
    expect(degreesBetween(composed(found.pose, pose), AT_REST)).toBeLessThan(0.2);
  });
});

describe('refused with a cause', () => {
  const tube = (seed: number) => new ScanSurface(scannedCylinder(31.7, 24, { arc: 350, seed }));
  test('a plain tube fits in many poses', () => {
    expect(aligned(tube(1), tube(2))).toMatchObject({ ok: false, code: 'ambiguous' });
    // Any of them will do when it is compared with itself.
    expect(aligned(tube(1), tube(2), { anyOfEqual: true })).toMatchObject({ ok: true });
  });
  test('a flat slides', () => {
    const flat = (seed: number) => new ScanSurface(scannedPlane(30, 20, { seed }));
    expect(aligned(flat(1), flat(2))).toMatchObject({ ok: false });
  });
  test('scans of two things have too little in common', () => {
    const found = aligned(new ScanSurface(above), tube(3));
    expect(found.ok).toBe(false);
  });
  test('pairs on one line', () => {
    const line = [0, 1, 2].map((i): readonly [Point3, Point3] => [
      [i, 0, 0],
      [i, 0, 0],
    ]);
    expect(aligned(tube(1), tube(2), { pairs: line })).toMatchObject({ ok: false, code: 'pairs' });
  });
});
