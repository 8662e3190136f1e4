import { cells, positions } from 'bunny';
import { expect, test } from 'vitest';
import type { TriangleMesh } from '../shape/mesh/mesh';
import { type Point3, point3 } from '../shape/vector';
import { aligned } from './align/align';
import { AT_REST, composed, degreesBetween, type Pose, posed, turnAbout } from './align/pose';
import { findAll } from './find/find';
import { judgeScan } from './judge';
import { posedMesh, prepared } from './prepare';
import { ScanSurface } from './scan-surface';
import { sectionOf } from './section/section';

/**
 * A real scan: the Stanford bunny (Turk and Levoy 1994), reduced, public domain, as the package `bunny` 1.0.1 carries it. About
 * 80 mm high as a thing on a bench.
 */
const bunny: TriangleMesh = {
  positions: Float64Array.from(positions.flat(), x => 10 * x),
  triangles: Uint32Array.from(cells.flat()),
};
const scan = new ScanSurface(bunny);

test('it is one body, of a size for a bench', () => {
  const judged = judgeScan(bunny);
  expect(judged.triangles).toBe(cells.length);
  expect(judged.components).toBe(1);
  expect(judged.unitSuspicion.unit).toBe('mm');
});

test('turned and moved it is laid on itself, and half of it too', () => {
  const pose: Pose = { turn: turnAbout([1.1, -2, 0.6]), shift: [200, -40, 7] };
  const half = prepared(bunny, {
    unit: 'mm',
    steps: [{ id: 'a', kind: 'crop', min: [-1000, -1000, -1000], max: [0, 1000, 1000] }],
  });
  for (const [moving, share] of [
    [bunny, 0.88],
    [half, 0.8],
  ] as const) {
    const found = aligned(scan, new ScanSurface(posedMesh(moving, pose)));
    if (!found.ok) throw new Error(found.message);
    const left = composed(found.pose, pose);
    const middle: Point3 = [0, 40, 0];
    expect(degreesBetween(left, AT_REST)).toBeLessThan(0.5);
    expect(Math.hypot(...point3(i => posed(left, middle)[i] - middle[i]))).toBeLessThan(0.5);
    expect(found.overlap).toBeGreaterThan(share);
  }
});

test('its section closes, and a search of it ends', () => {
  const [loop] = sectionOf(scan, { at: [0, 40, 0], normal: [0, 1, 0] });
  expect(loop!.closed).toBe(true);
  for (const f of findAll(scan)) expect(f.u).toBeGreaterThan(0);
});
