import { beforeAll, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { partWith, type Wish } from '../../../testing/part-with';
import { box, together } from '../../../testing/solids';
import { buildPart } from '../build';
import type { Kernels } from '../kernels/kernel';
import type { Parameters } from '../recipes/parameters';
import { checkRecesses } from './recesses';

/** A mushroom: a stem of 4 with a head of 10 below it. */
const MUSHROOM = 'e'.repeat(64);
const BLOCK = 'd'.repeat(64);
let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
  const mushroom = kernels.mesh.combine('fuse', box([10, 10, 3], [-5, -5, 0]), box([4, 4, 12], [-2, -2, 2]));
  kernels.models = new Map([
    [MUSHROOM, mushroom],
    [BLOCK, box([8, 8, 12], [-4, -4, 0])],
  ]);
});

function said(model: string, set: Parameters, goesOn: Parameters | null = null) {
  // A block of 30 × 30 × 20 on the plate, so that a body can sit inside it.
  const block: Wish = { kind: 'shape', set: { width: 30, depth: 30, rise: 20 } };
  const clear: Wish = { kind: 'keep-clear', set: { form: 'model', model, room: 0.4, x: 0, y: 0, ...set } };
  const { recipe, parameters } = partWith('wall-plate', [block, clear]);
  const outcome = buildPart(recipe, parameters, kernels, 'screen');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  const context = { goesOn: goesOn as { from: string; distance: number } | null };
  return checkRecesses(outcome.part.whole, recipe.additions ?? [], parameters, context, kernels);
}

test('a straight body in an open pocket comes out; from the side it hangs', () => {
  expect(said(BLOCK, { z: 14 })).toEqual([]);
  expect(said(BLOCK, { z: 14 }, { from: 'underside', distance: 40 })).toEqual([]);
  const [found] = said(BLOCK, { z: 14 }, { from: 'left', distance: 40 });
  expect(found).toMatchObject({ code: 'recess-undercut', level: 'warn', addition: 'clear2' });
});

test('a head wider than its stem is an undercut on the way on, and shut in where no side is open', () => {
  // Head at 12 to 15, stem through the top at 24.
  const [found] = said(MUSHROOM, { z: 12 }, { from: 'underside', distance: 40 });
  expect(found?.message).toMatch(/undercut/);
  expect(said(MUSHROOM, { z: 12 })[0]?.code).toBe('recess-closed');
});

test('two bodies in one file are felt alike', () => {
  kernels.models = new Map([
    ...kernels.models!,
    ['f'.repeat(64), together(box([6, 6, 12]), box([6, 6, 12], [10, 0, 0]))],
  ]);
  expect(said('f'.repeat(64), { z: 14 }, { from: 'underside', distance: 40 })).toEqual([]);
});
