import { describe, expect, test } from 'vitest';
import { scannedCylinder } from '../../testing/scanned';
import { box } from '../../testing/solids';
import { boundsOf, joined } from '../shape/mesh/mesh';
import { posed } from './align/pose';
import { findingsOf } from './find/findings';
import { poseOf, prepared } from './prepare';
import { ScanSurface } from './scan-surface';
import { shownMesh } from './shown';

const speck = box([1, 1, 1], [60, 0, 0]);

describe('steps before a scan is measured on', () => {
  const tube = scannedCylinder(31.7, 24);
  test('a unit is put in first', () => {
    const { min, max } = boundsOf(prepared(box([1, 2, 3]), { unit: 'in', steps: [] }));
    expect(max[2] - min[2]).toBeCloseTo(76.2, 9);
  });
  test('specks are left out, the object stays whole', () => {
    const mesh = prepared(joined([tube, speck]), {
      unit: 'mm',
      steps: [{ id: 'a', kind: 'without-islands', share: 0.01 }],
    });
    expect(mesh.triangles.length).toBe(tube.triangles.length);
    expect(boundsOf(mesh).max[0]).toBeLessThan(20);
  });
  test('a crop keeps what lies in its box, turned as it is by then', () => {
    const mesh = prepared(tube, {
      unit: 'mm',
      steps: [
        { id: 'a', kind: 'put', turn: [1, 0, 0, 0, 0, -1, 0, 1, 0], shift: [0, 0, 5] },
        { id: 'b', kind: 'crop', min: [-50, -10, -50], max: [50, 0, 50] },
      ],
    });
    const { min, max } = boundsOf(mesh);
    // What was up now runs along −y.
    expect(min[1]).toBeGreaterThanOrEqual(-10);
    expect(max[1]).toBeLessThanOrEqual(0);
    expect(max[2]).toBeGreaterThan(15);
  });
  test('what all steps do to a place', () => {
    const pose = poseOf([
      { id: 'a', kind: 'put', turn: [1, 0, 0, 0, 0, -1, 0, 1, 0], shift: [0, 0, 5] },
      { id: 'b', kind: 'crop', min: [0, 0, 0], max: [1, 1, 1] },
    ]);
    expect(posed(pose, [1, 2, 3])).toEqual([1, -3, 7]);
  });
});

describe('what is found, as a maker lists it', () => {
  test('a tube’s outside and its bore, each with how it was seen', () => {
    const tube = joined([scannedCylinder(31.7, 24), scannedCylinder(24, 24, { inside: true, seed: 4 })]);
    const found = findingsOf(new ScanSurface(tube));
    expect(found.map(f => [f.title, f.sizes[0]?.kind])).toEqual([
      ['Round outside', 'outside'],
      ['Bore', 'inside'],
    ]);
    const [outside] = found;
    expect(Math.abs(outside!.sizes[0]!.value - 31.7)).toBeLessThan(3 * outside!.sizes[0]!.u);
    expect(outside!.coverage).toBeGreaterThan(240);
    const [x, y] = outside!.near;
    expect(Math.hypot(x, y)).toBeCloseTo(15.85, 0);
  });
});

describe('a scan on the screen', () => {
  const scan = new ScanSurface(scannedCylinder(60, 60));
  test('as it is, where it is small enough', () => {
    expect(shownMesh(scan).triangles.length).toBe(scan.mesh.triangles.length);
  });
  test('in fewer triangles, which lie near it', () => {
    const shown = shownMesh(scan, 6000);
    expect(shown.triangles.length / 3).toBeLessThan(6000);
    expect(shown.triangles.length / 3).toBeGreaterThan(500);
    for (let v = 0; v < shown.positions.length; v += 3)
      expect(Math.abs(Math.hypot(shown.positions[v]!, shown.positions[v + 1]!) - 30)).toBeLessThan(0.6);
  });
});
