import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { box, ring } from '../../../testing/solids';
import { DEMO_BALL, demoBody } from '../demo-bodies';
import type { Kernels } from '../kernels/kernel';
import { boundsOf, closureOf, type TriangleMesh, volumeOf } from '../mesh/mesh';
import { RayTree } from '../mesh/rays';
import { contourOf } from './contour';
import { distancesTo } from './distances';
import { gridOver } from './grid';
import { roomOf, wayUp } from './room';

/** Checked against closed formulas: balls, boxes and rings have simple distances. */

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

const corners = ({ positions: p }: TriangleMesh) =>
  Array.from({ length: p.length / 3 }, (_, v) => [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!] as const);

test('distances on a grid are those of the nearest triangle, beside it and far off', () => {
  const brick = box([10, 6, 4], [-5, -3, -2]);
  const grid = gridOver([-12, -10, -9], [12, 10, 9], 0.7, 1e6);
  const { values } = distancesTo(brick, grid, 5);
  const tree = new RayTree(brick);
  const [nx, ny] = grid.count;
  for (let at = 0; at < values.length; at += 37) {
    const [x, y, z] = [at % nx, Math.floor(at / nx) % ny, Math.floor(at / (nx * ny))].map(
      (k, i) => grid.from[i]! + k * grid.cell,
    ) as [number, number, number];
    const truth = Math.min(5, tree.nearest([x, y, z], 99)!.distance);
    expect(Math.abs(values[at]! - truth), `${x} ${y} ${z}`).toBeLessThan(2e-3);
  }
});

test('a contour is closed, faces outwards and lies on the ball that its field is of', () => {
  const grid = gridOver([-11, -11, -11], [11, 11, 11], 0.9, 1e6);
  const [nx, ny, nz] = grid.count;
  const values = new Float32Array(nx * ny * nz);
  values.forEach((_, at) => {
    const [x, y, z] = [at % nx, Math.floor(at / nx) % ny, Math.floor(at / (nx * ny))];
    values[at] = Math.hypot(...[x, y, z].map(k => -11 + k * 0.9)) - 8;
  });
  const ball = contourOf({ grid, values });
  expect(closureOf(ball)).toEqual({ openEdges: 0, bodies: 1 });
  expect(volumeOf(ball)).toBeGreaterThan(0.99 * (4 / 3) * Math.PI * 8 ** 3);
  for (const [x, y, z] of corners(ball)) expect(Math.abs(Math.hypot(x, y, z) - 8)).toBeLessThan(0.04);
});

describe('the way up of', () => {
  const space = { min: [-26, -26, -26] as const, max: [26, 26, 12] as const, reach: 2, cell: 0.5 };

  test.each([0.1, 0.35, 2])('a ball with %s of room is a ball below and a tube above', room => {
    const ball = { key: `ball ${room}`, mesh: demoBody(DEMO_BALL)! };
    const made = roomOf(wayUp(ball, { ...space, draft: 0 }), room, kernels.mesh);
    expect(closureOf(made)).toEqual({ openEdges: 0, bodies: 1 });
    const off = corners(made)
      .filter(c => c[2] < 10)
      .map(([x, y, z]) => (z < 0 ? Math.hypot(x, y, z) : Math.hypot(x, y)) - 22 - room);
    // The ball's own flats are up to 0.02 inside it.
    expect(Math.max(...off.map(Math.abs))).toBeLessThan(0.1);
    expect(Math.abs(off.reduce((a, b) => a + b, 0) / off.length)).toBeLessThan(0.025);
  });

  test('with draft it widens by its tangent for each mm up', () => {
    const ball = { key: 'drafted', mesh: demoBody(DEMO_BALL)! };
    const made = roomOf(wayUp(ball, { ...space, draft: 10 }), 0.5, kernels.mesh);
    const level = (z: number) => corners(made).filter(c => Math.abs(c[2] - z) < 0.3);
    const at = (z: number) => level(z).reduce((sum, [x, y]) => sum + Math.hypot(x, y), 0) / level(z).length;
    const slope = Math.tan(Math.PI / 18);
    expect((at(9) - at(3)) / 6).toBeCloseTo(slope, 2);
  });

  test('an open patch is as good as a closed body, and what lies over it does not matter', () => {
    const whole = demoBody(DEMO_BALL)!;
    const lower = Array.from({ length: whole.triangles.length / 3 }, (_, t) =>
      Array.from(whole.triangles.subarray(3 * t, 3 * t + 3)),
    ).filter(three => three.every(v => whole.positions[3 * v + 2]! < 1));
    const patch = { positions: whole.positions, triangles: Uint32Array.from(lower.flat()) };
    const made = (key: string, mesh: TriangleMesh) =>
      volumeOf(roomOf(wayUp({ key, mesh }, { ...space, draft: 0 }), 0.4, kernels.mesh));
    expect(made('patch', patch) / made('whole', whole)).toBeCloseTo(1, 3);
  });

  test('through a hole in its underside the inside of its top is seen: that is no beginning of it', () => {
    const whole = demoBody(DEMO_BALL)!;
    const holed = Array.from({ length: whole.triangles.length / 3 }, (_, t) =>
      Array.from(whole.triangles.subarray(3 * t, 3 * t + 3)),
    ).filter(three =>
      three.every(v => {
        const [x, y, z] = [0, 1, 2].map(i => whole.positions[3 * v + i]!) as [number, number, number];
        return z > 0 || Math.hypot(x - 8, y) > 3;
      }),
    );
    const mesh = { positions: whole.positions, triangles: Uint32Array.from(holed.flat()) };
    const made = (key: string, mesh: TriangleMesh) =>
      volumeOf(roomOf(wayUp({ key, mesh }, { ...space, draft: 0 }), 0.4, kernels.mesh));
    expect(made('holed', mesh) / made('not holed', whole)).toBeCloseTo(1, 3);
  });

  test('what was not scanned leaves no post: a hole is closed from rim to rim', () => {
    const tube = { key: 'ring', mesh: ring({ inner: 8, outer: 15, height: 10, segments: 96 }) };
    const made = roomOf(
      wayUp(tube, { min: [-18, -18, -3], max: [18, 18, 9], draft: 0, reach: 1, cell: 0.4 }),
      0.4,
      kernels.mesh,
    );
    const { min, max } = boundsOf(made);
    expect(min[2]).toBeCloseTo(-0.4, 1);
    // No hole through it, and nearly all of a disc.
    expect(volumeOf(made) / (Math.PI * 15.4 ** 2 * (max[2] - min[2]))).toBeGreaterThan(0.96);
    expect(kernels.mesh.facts(made)).toMatchObject({ ok: true, facts: { genus: 0, bodies: 1 } });
  });
});
