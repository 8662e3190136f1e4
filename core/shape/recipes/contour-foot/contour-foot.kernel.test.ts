import { beforeAll, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../../kernels/node';
import { PLAIN_CONTEXT } from '../../../../testing/plain-context';
import { buildPart } from '../../build';
import type { Kernels } from '../../kernels/kernel';
import { closureOf, type TriangleMesh } from '../../mesh/mesh';
import { rayTreeOf } from '../../mesh/rays';
import type { Parameters } from '../parameters';
import { contourFoot } from '.';

const DECK = 'e'.repeat(64);

/** Rises to the right and falls away to front and back; scatter of a tenth of a mm would hide what is tested here. */
const heightAt = (x: number, y: number) => 0.05 * x + 0.0006 * x * x - 0.004 * y * y;

function deck(): TriangleMesh {
  const [half, deep, step] = [70, 50, 1];
  const positions: number[] = [];
  const triangles: number[] = [];
  const columns = (2 * half) / step + 1;
  for (let y = -deep; y <= deep; y += step)
    for (let x = -half; x <= half; x += step) positions.push(x, y, heightAt(x, y));
  for (let j = 0; j < (2 * deep) / step; j++)
    for (let i = 0; i < columns - 1; i++) {
      const a = j * columns + i;
      // A hole in the scan, as a dark spot causes.
      if (Math.hypot(positions[3 * a]! - 5, positions[3 * a + 1]! - 4) < 3) continue;
      triangles.push(a, a + 1, a + columns + 1, a, a + columns + 1, a + columns);
    }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
  kernels.models = new Map([[DECK, deck()]]);
});

const asked = (change: Parameters): Parameters => ({
  ...contourFoot.demo.parameters,
  object: DECK,
  height: 19.7,
  surface: 20,
  ...change,
});

function built(change: Parameters) {
  const p = asked(change);
  const outcome = buildPart(contourFoot, p, kernels, 'file');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  const { part } = outcome;
  expect(part.watertight).toBe(true);
  expect(closureOf(part.mesh).bodies).toBe(1);
  return { part, codes: contourFoot.checks(p, part, PLAIN_CONTEXT, kernels.models).map(f => f.code) };
}

/** Height of the foot's top at a place, from above. */
const topAt = (mesh: TriangleMesh, x: number, y: number) =>
  100 - rayTreeOf(mesh).firstHit([x, y, 100], [0, 0, -1])!.distance;

test.each([
  ['a pad', {}],
  ['a pad to one side, where the deck leans', { right: 40, back: -10 }],
  ['a round pad', { form: 'round' }],
])('%s follows the deck with its gap everywhere', (_, change) => {
  const { part, codes } = built(change);
  const [right, back] = [Number((change as Parameters).right ?? 0), Number((change as Parameters).back ?? 0)];
  expect(part.mates[0]!.size).toBeCloseTo(19.7, 2);
  for (const [x, y] of [
    [0, 0],
    [12, 8],
    [-12, 8],
    [-12, -8],
    [14, -6],
  ] as const) {
    const over = 20 + heightAt(x + right, y + back) - heightAt(right, back);
    expect(over - topAt(part.mesh, x, y), `${x} ${y}`).toBeGreaterThan(0.24);
    expect(over - topAt(part.mesh, x, y), `${x} ${y}`).toBeLessThan(0.36);
  }
  expect(codes).toContain('comes-out');
});

test('posts on a plate each end at the deck', () => {
  const { part } = built({ form: 'posts', posts: '-20, -12, 8; 20, -12, 8; 0, 14, 10', plate: 3 });
  const first = heightAt(-20, -12);
  for (const [x, y] of [
    [-20, -12],
    [20, -12],
    [0, 14],
  ] as const)
    expect(20 + heightAt(x, y) - first - topAt(part.mesh, x, y)).toBeCloseTo(0.3, 1);
  // Between them is the plate.
  expect(topAt(part.mesh, 0, -12)).toBeCloseTo(3, 6);
});

test('holes go through along the way that was said, and the height is measured beside one', () => {
  const { part } = built({ holes: '0, 0, 5', leanRight: 20 });
  expect(part.mates[0]!.size).toBeCloseTo(19.7, 1);
  const slope = Math.tan((20 * Math.PI) / 180);
  const way = [slope, 0, 1].map(v => v / Math.hypot(slope, 1)) as [number, number, number];
  expect(rayTreeOf(part.mesh).firstHit([-5 * slope, 0, -5], way)).toBeUndefined();
  expect(rayTreeOf(part.mesh).firstHit([-5 * slope + 4, 0, -5], way)).toBeDefined();
});

test('what cannot be is refused in words', () => {
  const said = (change: Parameters) =>
    contourFoot.refuse(asked(change), kernels.models).map(f => f.parameter);
  expect(said({})).toEqual([]);
  expect(said({ object: '' })).toEqual(['object']);
  expect(said({ height: 20.1 })).toEqual(['height']);
  expect(said({ right: 60 })).toEqual(['long']);
  expect(said({ right: 200 })).toEqual(['right']);
  expect(said({ form: 'posts', posts: '' })).toEqual(['posts']);
  expect(said({ holes: '30, 0, 5' })).toEqual(['holes']);
  expect(said({ height: 5, surface: 5.2, long: 120, plate: 0, wide: 80 })).toEqual(['height']);
});
