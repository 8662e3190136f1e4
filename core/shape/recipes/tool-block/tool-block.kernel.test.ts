import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../../kernels/node';
import { buildPart } from '../../build';
import { measureMates } from '../../checks/measure';
import type { Kernels } from '../../kernels/kernel';
import { requireRecipe } from '..';
import type { Parameters } from '../parameters';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const recipe = requireRecipe('tool-block');
const at = (change: Parameters): Parameters => ({ ...recipe.demo.parameters, ...change });
function build(change: Parameters) {
  const outcome = buildPart(recipe, at(change), kernels, 'file');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return outcome.part;
}

describe('tool block', () => {
  test('V grooves: a plate less right-angled prisms', () => {
    const { volume, bounds } = build({ holds: 'vee', count: 3, hole: 10, pitch: 24, long: 40, height: 20 });
    const deep = 5 * Math.SQRT2;
    const width = bounds.max[0] - bounds.min[0];
    // Upright corners are rounded by 4.
    const corners = (4 - Math.PI) * 4 ** 2 * 20;
    expect(volume).toBeCloseTo(width * 40 * 20 - corners - 3 * deep ** 2 * 40, 0);
  });

  test('holes of three sizes, fanned: each is as wide as its number, square to its own axis', () => {
    const change = {
      sizes: 'three',
      leans: 'fan',
      lean: 12,
      blade: 0,
      count: 2,
      countB: 2,
      countC: 1,
      pitch: 26,
    };
    const sizes = measureMates(build(change).mesh, recipe.surfaces(at(change)));
    expect(recipe.surfaces(at(change)).map(m => m.mate)).toEqual(['hole', 'holeB', 'holeC']);
    for (const [i, drawn] of [12.7, 10.7, 8.7].entries()) expect(sizes[i]!.size).toBeCloseTo(drawn, 2);
  });

  test('leaning to the side, its holes stay inside the block', () => {
    const change = { leans: 'side', lean: 30, blade: 0, pitch: 26 };
    const { bounds, volume } = build(change);
    const { bounds: straight } = build({ ...change, lean: 0 });
    expect(bounds.max[0] - bounds.min[0]).toBeGreaterThan(
      straight.max[0] - straight.min[0] + 30 * Math.tan(Math.PI / 6),
    );
    expect(volume).toBeGreaterThan(0);
    expect(recipe.refuse(at({ ...change, pitch: 15 }))[0]!.message).toMatch(/into each other/);
  });

  test('grooves that meet, cut through or leave no wall are refused', () => {
    const said = (change: Parameters) => recipe.refuse(at({ holds: 'vee', ...change }))[0]?.message;
    expect(said({ height: 8 })).toMatch(/cut through/);
    expect(said({ pitch: 14 })).toMatch(/into each other/);
    expect(said({ hole: 40, pitch: 70, height: 60, edge: 4 })).toMatch(/no wall beside/);
    expect(said({})).toBeUndefined();
  });
});
