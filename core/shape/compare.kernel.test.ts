import { beforeAll, expect, test } from 'vitest';
import { kernels as startKernels } from '../../kernels/node';
import { changedNumbers, compareParts } from './compare';
import type { Kernels } from './kernels/kernel';
import { requireRecipe } from './recipes';
import type { Parameters } from './recipes/parameters';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const recipe = requireRecipe('bush');
const usual: Parameters = { ...recipe.demo.parameters, leadIn: 0 };
const between = (now: Parameters, before: Parameters) => {
  const outcome = compareParts({ recipe, parameters: now }, { recipe, parameters: before }, kernels);
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return outcome.change;
};
const tube = (outer: number, inner: number, long: number) => (Math.PI / 4) * (outer ** 2 - inner ** 2) * long;

test('a wider outside grew by a tube, a wider bore shrank by one', () => {
  const change = between({ ...usual, outsideDiameter: 14.35, boreDiameter: 8.65 }, usual);
  expect(change.grown!.volume / tube(14.35, 13.95, 11.8)).toBeCloseTo(1, 1);
  expect(change.shrunk!.volume / tube(8.65, 8.45, 11.8)).toBeCloseTo(1, 1);
});
test('longer grew only; the same did neither', () => {
  const longer = between({ ...usual, length: 13.8 }, usual);
  expect(longer.grown!.volume / tube(13.95, 8.45, 2)).toBeCloseTo(1, 2);
  expect(longer.shrunk).toBeNull();
  expect(between(usual, usual)).toEqual({ grown: null, shrunk: null });
});
test('a version from before the recipe had some of its numbers is the part it was', () => {
  const cap = requireRecipe('round-cap');
  const { slots: _, slotDepth: __, strap: ___, ...kept } = cap.demo.parameters;
  const outcome = compareParts(
    { recipe: cap, parameters: cap.demo.parameters },
    { recipe: cap, parameters: kept },
    kernels,
  );
  expect(outcome).toEqual({ ok: true, change: { grown: null, shrunk: null } });
  const slotted = { ...cap.demo.parameters, slots: 4 };
  expect(changedNumbers(cap, slotted, kept).map(c => [c.spec.name, c.before, c.now])).toEqual([
    ['slots', 0, 4],
  ]);
});
test('one that cannot be built says why', () => {
  const outcome = compareParts(
    { recipe, parameters: usual },
    { recipe, parameters: { ...usual, outsideDiameter: 8 } },
    kernels,
  );
  expect(outcome.ok === false && outcome.findings[0]!.parameter).toBe('outsideDiameter');
});
test('numbers that differ are listed, hidden ones and thousandths are not', () => {
  const now = { ...usual, length: 13.8, boreDiameter: 8.4501, spacerDiameter: 99, flange: true };
  expect(changedNumbers(recipe, now, usual).map(c => c.spec.name)).toEqual(['length', 'flange']);
});
