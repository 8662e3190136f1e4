import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../kernels/node';
import { buildPart } from '../shape/build';
import type { BuiltPart } from '../shape/built-part';
import type { Kernels } from '../shape/kernels/kernel';
import { boundsOf } from '../shape/mesh/mesh';
import { recipeWith } from '../shape/recipe-with';
import { requireRecipe } from '../shape/recipes';
import type { SolidSpec } from '../shape/solid-key';
import { rebuilt } from './attempt';
import { bedFit, footprintOf } from './footprint';
import { splitFor } from './split-where';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

const demo = (id: string, parameters: SolidSpec['parameters'] = {}): SolidSpec => ({
  recipe: id,
  additions: [],
  parameters: { ...requireRecipe(id).demo.parameters, ...parameters },
});
function built(spec: SolidSpec): BuiltPart {
  const outcome = buildPart(recipeWith(spec.recipe, spec.additions), spec.parameters, kernels, 'screen');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return outcome.part;
}

describe('a part that is too large for the bed', () => {
  const small = { width: 90, depth: 90, height: 100 };
  test('is cut where both pieces lie on it, away from what must fit', () => {
    const spec = demo('duct-adapter');
    const part = built(spec);
    const { min, max } = boundsOf(part.whole);
    expect(Math.max(max[0] - min[0], max[1] - min[1], max[2] - min[2])).toBeGreaterThan(60);
    const bed = { width: 130, depth: 130, height: 0.7 * (max[2] - min[2]) };
    const found = splitFor(spec, part, { bed, weak: [] }, kernels);
    expect(found).not.toBeNull();
    const made = rebuilt(spec, found!, kernels)!;
    expect(made.pieces.length).toBeGreaterThan(1);
    for (const { mesh } of made.pieces) {
      expect(bedFit(footprintOf(mesh), bed).fits).toBe(true);
      expect(boundsOf(mesh).max[2]).toBeLessThanOrEqual(bed.height);
    }
    // Both ends keep their full size.
    for (const mate of part.mates)
      expect(made.mates.find(m => m.id === mate.id)!.size).toBeCloseTo(mate.size, 1);
  });
  test('that no cut in two makes small enough is told so', () => {
    const spec = demo('duct-adapter');
    expect(
      splitFor(spec, built(spec), { bed: { width: 40, depth: 40, height: 40 }, weak: [] }, kernels),
    ).toBeNull();
  });
  test('a cut keeps away from where the part is weakest', () => {
    const spec = demo('screw-handle');
    const part = built(spec);
    const at = (weak: readonly [number, number, number][]) =>
      Number(splitFor(spec, part, { bed: small, weak }, kernels)!.additions[0]!.begins.at);
    const free = at([]);
    const { across } = splitFor(spec, part, { bed: small, weak: [] }, kernels)!.additions[0]!.begins;
    const place = ['x', 'y', 'z'].map(a => (a === across ? free : 0)) as [number, number, number];
    expect(Math.abs(at([place]) - free)).toBeGreaterThan(10);
  });
});
