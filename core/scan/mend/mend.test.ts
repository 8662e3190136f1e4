import { beforeAll, describe, expect, test } from 'vitest';
import { grip, lever, proofBlock } from '../../../testing/scan-objects';
import { scannedBy } from '../../bench/scanner';
import { boundsOf, closureOf, onlyTriangles, type TriangleMesh, volumeOf } from '../../shape/mesh/mesh';
import { rayTreeOf } from '../../shape/mesh/rays';
import { subdivided } from '../../shape/mesh/subdivided';
import { edgesOf } from '../edges';
import { fuzzOf } from '../fuzz';
import { prepared } from '../prepare';
import { ScanSurface } from '../scan-surface';
import { symmetryOf } from '../symmetry';
import { filled } from './fill';
import { canReduce, reduced } from './reduce';
import { smoothed } from './smooth';

beforeAll(async () => {
  await canReduce;
});

const fine = (mesh: TriangleMesh, spacing: number) => subdivided(mesh, spacing);
const corner = ({ positions: p }: TriangleMesh, v: number) =>
  [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!] as const;

/** Without the triangles that a test does not want. */
const without = (mesh: TriangleMesh, drops: (at: readonly [number, number, number]) => boolean) =>
  onlyTriangles(
    mesh,
    Array.from({ length: mesh.triangles.length / 3 }, (_, t) =>
      Array.from(mesh.triangles.subarray(3 * t, 3 * t + 3)),
    )
      .filter(three => !three.some(v => drops(corner(mesh, v))))
      .flat(),
  );

describe('holes', () => {
  const ball = fine(grip(), 2);
  const holed = without(ball, ([x, y]) => Math.hypot(x - 40, y - 2) < 3 || Math.hypot(x - 85, y + 4) < 9);

  test('small ones are closed, larger ones stay, and triangles face the way their neighbours do', () => {
    expect(edgesOf(holed).borders).toBe(4);
    const { mesh, filled: closed, left } = filled(holed, 8);
    expect([closed, left]).toEqual([2, 2]);
    expect(edgesOf(mesh)).toMatchObject({ borders: 2, nonManifold: 0 });
    const whole = filled(holed, 30);
    expect(closureOf(whole.mesh)).toEqual({ openEdges: 0, bodies: 1 });
    // Flat where the grip bulges: slightly too little volume, and nothing is inside out.
    expect(volumeOf(whole.mesh) / volumeOf(ball)).toBeGreaterThan(0.97);
    expect(volumeOf(whole.mesh)).toBeLessThan(volumeOf(ball));
  });
});

describe('smoothing', () => {
  test('halves the scatter, says how far it moved, and leaves edges and sizes where they are', () => {
    const truth = proofBlock();
    const scan = scannedBy(truth, { spacing: 0.6, noise: 0.06, warp: 0, seed: 3 });
    const { mesh, moved } = smoothed(scan, 3);
    expect(fuzzOf(mesh)!).toBeLessThan(0.5 * fuzzOf(scan)!);
    expect(moved.rms).toBeGreaterThan(0.02);
    expect(moved.rms).toBeLessThan(0.09);
    expect(moved.most).toBeLessThan(0.5);
    // Compared with the object itself, edges included, it is nearer than before.
    const tree = rayTreeOf(truth);
    const off = (m: TriangleMesh) => {
      let sum = 0;
      const count = m.positions.length / 3;
      for (let v = 0; v < count; v += 5) sum += tree.nearest(corner(m, v), 3)!.distance ** 2;
      return Math.sqrt(sum / (count / 5));
    };
    expect(off(mesh)).toBeLessThan(0.75 * off(scan));
    const [a, b] = [boundsOf(mesh), boundsOf(truth)];
    for (const i of [0, 1, 2] as const) expect(Math.abs(a.max[i] - b.max[i])).toBeLessThan(0.2);
  });
});

describe('thinning out', () => {
  test('keeps to its bound, as measured on the triangles', () => {
    const scan = scannedBy(proofBlock(), { spacing: 0.5, noise: 0.01, warp: 0.02, seed: 4 });
    const { mesh, off } = reduced(scan, 0.05);
    expect(mesh.triangles.length).toBeLessThan(0.4 * scan.triangles.length);
    expect(off).toBeLessThanOrEqual(0.05);
    const tree = rayTreeOf(mesh);
    const offs: number[] = [];
    for (let v = 0; v < scan.positions.length / 3; v += 7)
      offs.push(tree.nearest(corner(scan, v), 3)!.distance);
    offs.sort((a, b) => a - b);
    expect(offs[Math.floor(0.995 * offs.length)]!).toBeLessThan(0.05);
  });
});

describe('symmetry', () => {
  const whole = scannedBy(lever(), { spacing: 0.8, noise: 0.04, warp: 0.03, seed: 5 });

  test('of a lever, its plane, whatever way it lies', () => {
    const turned = prepared(whole, {
      unit: 'mm',
      steps: [{ id: 'p', kind: 'put', turn: [0.8, -0.6, 0, 0.6, 0.8, 0, 0, 0, 1], shift: [30, -12, 7] }],
    });
    const found = symmetryOf(new ScanSurface(turned));
    if (!found.ok) throw new Error(found.message);
    // Turned as it was: y = 0 became the plane through (30, −12, 7) across (−0.6, 0.8, 0).
    expect(Math.abs(-0.6 * found.normal[0] + 0.8 * found.normal[1])).toBeGreaterThan(0.9999);
    expect(Math.abs(found.at)).toBeCloseTo(0.6 * 30 + 0.8 * 12, 1);
    expect(found.overlap).toBeGreaterThan(0.9);
    expect(found.rms).toBeLessThan(0.1);
  });

  test('half of a block is completed to the whole', () => {
    const block = proofBlock();
    const half = scannedBy(
      without(fine(block, 1), ([, y]) => y > 12),
      { spacing: 0.8, noise: 0.02, warp: 0, seed: 9 },
    );
    const step = {
      id: 'm',
      kind: 'mirror' as const,
      normal: [0, 1, 0] as [number, number, number],
      at: 0,
      rms: 0,
      overlap: 1,
    };
    const made = prepared(half, { unit: 'mm', steps: [step] });
    const { min, max } = boundsOf(made);
    expect(max[1]).toBeCloseTo(-min[1], 1);
    // What was there is not duplicated.
    expect(made.triangles.length).toBeLessThan(1.8 * half.triangles.length);
  });

  test('what has none is refused in words', () => {
    const odd = without(whole, ([x, y, z]) => x > 40 && z > 0 && y > -20);
    const skew = prepared(odd, {
      unit: 'mm',
      steps: [{ id: 'c', kind: 'crop', min: [-20, -3, -30], max: [120, 40, 30] }],
    });
    const found = symmetryOf(new ScanSurface(skew));
    expect(found.ok ? found.overlap : 0).toBeLessThan(0.75);
  });
});

test('steps say what they came to', () => {
  const scan = scannedBy(proofBlock(), {
    spacing: 0.9,
    noise: 0.05,
    warp: 0,
    seed: 2,
    dropouts: [{ at: [30, 20, 6], radius: 2 }],
  });
  const said: Record<string, unknown> = {};
  prepared(
    scan,
    {
      unit: 'mm',
      steps: [
        { id: 'a', kind: 'fill', across: 6 },
        { id: 'b', kind: 'smooth', rounds: 2 },
        { id: 'c', kind: 'reduce', bound: 0.05 },
      ],
    },
    new Map(),
    (id, did) => {
      said[id] = did;
    },
  );
  expect(said.a).toMatchObject({ kind: 'filled' });
  expect(said.b).toMatchObject({ kind: 'moved' });
  expect(said.c).toMatchObject({ kind: 'reduced' });
});
