import fc from 'fast-check';
import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { partWith } from '../../../testing/part-with';
import { buildPart } from '../build';
import type { Kernels } from '../kernels/kernel';
import { closureOf } from '../mesh/mesh';
import { parameterSchema } from '../recipes/parameter-schema';
import type { ParameterSpec } from '../recipes/parameters';
import { KINDS } from '.';
import { usualOf } from './with-additions';

/** Properties of every addition on three recipes, whatever its numbers. `npm test` takes a few seeds. */
const RUNS = Number(process.env.RECIPE_RUNS ?? 4);
const RECIPES = ['wall-plate', 'bush', 'profile-part'];

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

const PLACES = [
  'top',
  'underside',
  'left',
  'right',
  'front',
  'back',
  'top at 3',
  'plane top at 2',
  '1, 0, 1',
];
const anyOf = (spec: ParameterSpec): fc.Arbitrary<number | string | boolean> => {
  if (spec.kind === 'choice') return fc.constantFrom(...spec.options.map(o => o.value));
  if (spec.kind === 'flag') return fc.boolean();
  if (spec.kind === 'place') return fc.constantFrom(...PLACES);
  if (spec.kind === 'words') return fc.constantFrom('A', 'STERN 4', 'Ä ö');
  if (spec.kind === 'surface') return fc.constantFrom('', 'bore', 'nowhere');
  if (spec.kind !== 'length') return fc.constant(spec.default);
  const usual = Number(spec.default);
  const bounded = (x: number) => Number(Math.min(spec.max, Math.max(spec.min, x)).toFixed(2));
  if (spec.measure === 'count') return fc.integer({ min: bounded(usual - 1), max: bounded(usual + 3) });
  return fc.integer({ min: -8, max: 10 }).map(n => bounded(usual === 0 ? n / 2 : usual * (1 + n / 20)));
};

describe.each(KINDS.map(k => [k.kind, k] as const))('%s', (_, kind) => {
  test.each(RECIPES)('on %s it is one sound solid, or says in words why not', id => {
    const wishes = fc.record(Object.fromEntries(kind.parameters.map(spec => [spec.name, anyOf(spec)])));
    const base = partWith(id, []);
    const plain = buildPart(base.recipe, base.parameters, kernels, 'screen');
    fc.assert(
      fc.property(wishes, set => {
        const { recipe, parameters } = partWith(id, [{ kind: kind.kind, set }]);
        expect(parameterSchema(recipe).safeParse(parameters).error).toBeUndefined();
        const outcome = buildPart(recipe, parameters, kernels, 'screen');
        for (const finding of outcome.findings) {
          expect(finding.message).toMatch(/[.)]$/);
          expect(finding.addition).toBeDefined();
          if (finding.remedy)
            expect(recipe.parameters.some(p => p.name === finding.remedy!.parameter)).toBe(true);
        }
        if (!outcome.ok) return;
        const { part } = outcome;
        const { openEdges, bodies } = closureOf(part.mesh);
        expect(openEdges).toBe(0);
        if (outcome.findings.length === 0 && kind.kind !== 'split') expect(bodies).toBeGreaterThan(0);
        expect(part.volume).toBeGreaterThan(0);
        if (!plain.ok || outcome.findings.some(f => f.level === 'stop')) return;
        const grew = part.volume - plain.part.volume;
        if (set.does === 'add' || set.does === 'raised' || kind.kind === 'rib')
          expect(grew).toBeGreaterThan(-1);
        else if (['hole', 'slot', 'tie', 'flutes', 'lead-in', 'keep-clear'].includes(kind.kind))
          expect(grew).toBeLessThan(1);
      }),
      { numRuns: RUNS, seed: 6 },
    );
  });

  test('its usual numbers are within their bounds and refused by nobody', () => {
    const own = Object.fromEntries(kind.parameters.map(spec => [spec.name, usualOf(spec)]));
    expect(kind.refuse(own)).toEqual([]);
    expect(new Set(kind.parameters.map(p => p.name)).size).toBe(kind.parameters.length);
  });
});
