import fc from 'fast-check';
import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { coveringArray, pairName, pairsIn } from '../../../testing/pairs';
import { PLAIN_CONTEXT } from '../../../testing/plain-context';
import { buildPart } from '../build';
import { exactOf, hasTriangles, type Kernels } from '../kernels/kernel';
import { closureOf, volumeOf } from '../mesh/mesh';
import { resolvedText } from '../outline-text';
import { RECIPES } from '.';
import { parameterSchema } from './parameter-schema';
import type { Parameters } from './parameters';
import type { Recipe } from './recipe';

/** Properties of every recipe, whatever its numbers. Seeds: `npm test` takes ten, scripts/many-seeds.mjs hundreds. */
const RUNS = Number(process.env.RECIPE_RUNS ?? 10);

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

/** A written outline or list of holes with each number moved slightly. */
const bent = (kind: 'outline' | 'holes', text: string): fc.Arbitrary<string> =>
  fc.array(fc.integer({ min: -4, max: 4 }), { minLength: 40, maxLength: 40 }).map(by => {
    let i = 0;
    return resolvedText(kind, text, x => Number((Number(x) + by[i++ % 40]! / 10).toFixed(2)));
  });

/** Good and bad: reversed, pointed, all arcs, corners taken off completely, tiny, crossing itself. */
const ODD = {
  outline: [
    '0, 0; 0, 30; 20, 0',
    '0, 0; 40, 0; 40, 30; 20, 8; 0, 30',
    '-15, 0; 15, 0 via 0, -15; -15, 0 via 0, 15',
    '0, 0 via -5, 10; 30, 0; 30, 20 chamfer 3; 0, 20 round 8',
    '0, 0 round 5; 10, 0 round 5; 10, 10 round 5; 0, 10 round 5',
    '0, 0; 30, 0 trim -3; 30, 20; 0, 20 trim 1',
    '0, 0; 1, 0; 1, 0.2; 0, 0.2',
    '0, 0; 30, 20; 30, 0; 0, 20',
    '',
  ],
  holes: ['', '15, 11, 4.2; 16, 11, 4.2', '5, 5, 3; 15, 5, 3 deep 2', '0, 0, 10', '10, 8, 0'],
};

/** Typed names: none, one that the shelf knows, one that it does not. */
const NAMES = ['', 'M30', 'G 1 1/2', 'no such thread'];

/** Around the demo object, each size on its own up to half as large again; every option is reached. */
const near = (recipe: Recipe): fc.Arbitrary<Parameters> =>
  fc.record(
    Object.fromEntries(
      recipe.parameters.map(spec => {
        if (spec.kind === 'choice') return [spec.name, fc.constantFrom(...spec.options.map(o => o.value))];
        if (spec.kind === 'flag') return [spec.name, fc.boolean()];
        if (spec.kind === 'outline' || spec.kind === 'holes')
          return [spec.name, bent(spec.kind, String(recipe.demo.parameters[spec.name]))];
        if (spec.kind === 'words') return [spec.name, fc.constantFrom(...NAMES)];
        if (spec.kind === 'model') return [spec.name, fc.constant(spec.default)];
        if (spec.kind !== 'length') throw new Error(`No recipe of its own has a ${spec.kind}.`);
        const usual = recipe.demo.parameters[spec.name] as number;
        const bounded = (x: number) => Math.min(spec.max, Math.max(spec.min, x));
        if (spec.measure === 'count')
          return [spec.name, fc.integer({ min: bounded(usual - 2), max: bounded(usual + 3) })];
        // The object of a part that follows one stays as it is.
        const share = recipe.parameters.some(s => s.kind === 'model') ? 100 : 20;
        return [
          spec.name,
          fc
            .integer({ min: -8, max: 10 })
            .map(n =>
              Number(bounded(usual * (1 + n / share) + (usual === 0 ? Math.max(0, n) / 10 : 0)).toFixed(2)),
            ),
        ];
      }),
    ),
  ) as fc.Arbitrary<Parameters>;

/** Anywhere between its bounds, ends included: most of it contradicts itself and must be refused in words. */
const far = (recipe: Recipe): fc.Arbitrary<Parameters> =>
  fc.record(
    Object.fromEntries(
      recipe.parameters.map(spec => {
        if (spec.kind === 'choice') return [spec.name, fc.constantFrom(...spec.options.map(o => o.value))];
        if (spec.kind === 'flag') return [spec.name, fc.boolean()];
        if (spec.kind === 'outline' || spec.kind === 'holes')
          return [spec.name, fc.constantFrom(...ODD[spec.kind])];
        if (spec.kind === 'words') return [spec.name, fc.constantFrom(...NAMES)];
        if (spec.kind === 'model') return [spec.name, fc.constant(spec.default)];
        if (spec.kind !== 'length') throw new Error(`No recipe of its own has a ${spec.kind}.`);
        if (spec.measure === 'count') return [spec.name, fc.integer({ min: spec.min, max: spec.max })];
        const usual = recipe.demo.parameters[spec.name] as number;
        return [
          spec.name,
          fc.constantFrom(spec.min, spec.max, usual, (spec.min + usual) / 2, 2 * usual + spec.min),
        ];
      }),
    ),
  ) as fc.Arbitrary<Parameters>;

function holds(recipe: Recipe, p: Parameters): boolean {
  const words = `${recipe.id} ${JSON.stringify(p)}`;
  if (!parameterSchema(recipe).safeParse(p).success) return false;
  const refused = recipe.refuse(p, new Map());
  // Even what is refused gets a drawing.
  for (const { points } of recipe.drawing(p).shapes)
    for (const point of points) expect(point.every(Number.isFinite), `drawing of ${words}`).toBe(true);
  const outcome = buildPart(recipe, p, kernels, 'screen');
  if (refused.length > 0) {
    for (const finding of refused) {
      expect(finding.message, words).toMatch(/^.*[a-z].*[.?]$/);
      expect(
        recipe.parameters.map(s => s.name),
        words,
      ).toContain(finding.parameter);
    }
    return false;
  }
  expect(outcome.ok, `${words} ${JSON.stringify(outcome.ok || outcome.findings)}`).toBe(true);
  if (!outcome.ok) return false;
  expect(closureOf(outcome.part.mesh), words).toEqual({ openEdges: 0, bodies: 1 });
  expect(Math.abs(outcome.part.bounds.min[2]), words).toBeLessThan(1e-6);
  const active = recipe.mates.filter(m => m.active(p)).map(m => m.id);
  expect(outcome.part.mates.map(m => m.id).sort(), words).toEqual([...active].sort());
  for (const mate of outcome.part.mates) {
    const asked = p[recipe.mates.find(m => m.id === mate.id)!.parameter] as number;
    // The screen's flats are at most 0.03 from the true surface, on either side.
    expect(Math.abs(mate.size - asked), `${mate.id} of ${words}`).toBeLessThan(0.07);
  }
  return true;
}

describe.each(RECIPES.map(r => [r.id, r] as const))('%s', (_, recipe) => {
  test('its demo object builds, in the file’s own quality, and its mates measure to 0.01', () => {
    expect(recipe.refuse(recipe.demo.parameters)).toEqual([]);
    expect(parameterSchema(recipe).safeParse(recipe.demo.parameters).error).toBeUndefined();
    const outcome = buildPart(recipe, recipe.demo.parameters, kernels, 'file');
    if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
    expect(outcome.part.watertight).toBe(true);
    expect(closureOf(outcome.part.mesh).bodies).toBe(1);
    expect(outcome.part.mates.length).toBeGreaterThan(0);
    for (const mate of outcome.part.mates) {
      const asked = recipe.demo.parameters[recipe.mates.find(m => m.id === mate.id)!.parameter] as number;
      expect(Math.abs(mate.size - asked), mate.id).toBeLessThan(0.01);
    }
  });

  test('its STEP is read back as the same solid', async () => {
    const body = recipe.solid(recipe.demo.parameters, kernels.part, kernels);
    // A thread is triangles only: the file then has the part without it, and the maker is told.
    const threaded = hasTriangles(body);
    const text = await kernels.part.step([{ body: exactOf(body, kernels.part)!, name: 'part' }]);
    const again = await kernels.part.readStep(text);
    const volume = volumeOf(kernels.part.mesh(again, 0.0025));
    kernels.part.release();
    const outcome = buildPart(recipe, recipe.demo.parameters, kernels, 'file');
    if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
    expect(Math.abs(volume / outcome.part.volume - 1)).toBeLessThan(threaded ? 0.6 : 1e-3);
    const said = recipe.checks(recipe.demo.parameters, outcome.part, PLAIN_CONTEXT).map(f => f.code);
    expect(said.some(code => code.startsWith('step-without-'))).toBe(threaded);
  });

  test('what is asked of the maker hangs together: guide, mates, parameters, drawings', () => {
    // Which mates and dimensions exist depends on choices alone: sizes are not known yet.
    const choices = Object.fromEntries(
      recipe.parameters.flatMap(s => (s.kind === 'length' ? [] : [[s.name, s.default]])),
    ) as Parameters;
    for (const mate of recipe.mates) expect(typeof mate.active(choices), mate.id).toBe('boolean');
    for (const g of recipe.guide) expect(typeof g.needed(choices), g.key).toBe('boolean');
    const names = recipe.parameters.map(p => p.name);
    expect(new Set(names).size).toBe(names.length);
    // What is left out of a request takes the demo's value.
    expect(Object.keys(recipe.demo.parameters).sort()).toEqual([...names].sort());
    // Expressions call both by name.
    for (const g of recipe.guide) expect(names).not.toContain(g.key);
    for (const mate of recipe.mates) {
      expect(names).toContain(mate.parameter);
      expect(recipe.guide.map(g => g.key)).toContain(mate.dimension);
      expect(recipe.guide.find(g => g.key === mate.dimension)!.critical, mate.id).toBe(true);
    }
    for (const { key } of recipe.guide) expect(recipe.demo.sizes[key], key).toBeGreaterThan(0);
    const drawn = recipe.objectDrawing({}, recipe.demo.parameters).dimensions.map(d => d.key);
    for (const g of recipe.guide.filter(x => x.needed(recipe.demo.parameters)))
      expect(drawn, `the object's drawing shows ${g.key}`).toContain(g.key);
    const part = recipe.drawing(recipe.demo.parameters);
    for (const mate of recipe.mates.filter(m => m.active(recipe.demo.parameters))) {
      expect(
        part.dimensions.map(d => d.key),
        mate.id,
      ).toContain(mate.id);
      expect(
        part.shapes.some(s => s.ink === 'mate' && s.key === mate.id),
        mate.id,
      ).toBe(true);
    }
  });

  test('every option alone and in pairs with the others, and every size at both its ends', {
    timeout: 300_000,
  }, () => {
    const usual = recipe.demo.parameters;
    const factors: Record<string, (string | boolean)[]> = {};
    for (const spec of recipe.parameters) {
      if (spec.kind === 'choice') factors[spec.name] = spec.options.map(o => o.value);
      else if (spec.kind === 'flag') factors[spec.name] = [true, false];
    }
    // With the demo's sizes each choice makes a part, though not with every other choice.
    const built = new Set<string>();
    const reached = new Set<string>();
    const tried = (choices: Record<string, string | boolean>) => {
      const p = { ...usual, ...choices };
      if (!holds(recipe, p)) return;
      for (const name of Object.keys(factors)) reached.add(`${name} ${p[name]}`);
      for (const pair of pairsIn(factors, p as Record<string, string | boolean>)) built.add(pair);
    };
    const options = Object.entries(factors).flatMap(([name, values]) => values.map(v => [name, v] as const));
    for (const row of coveringArray(factors)) tried(row);
    // When a row with many choices is refused, two of them are tried alone.
    options.forEach(([a, x], i) => {
      if (!reached.has(`${a} ${x}`)) tried({ [a]: x });
      for (const [b, y] of options.slice(i + 1))
        if (b !== a && !built.has(pairName(a, x, b, y))) tried({ [a]: x, [b]: y });
    });
    expect([...reached].sort()).toEqual(options.map(([name, value]) => `${name} ${value}`).sort());
    for (const spec of recipe.parameters)
      if (spec.kind === 'length')
        for (const end of [spec.min, spec.max]) holds(recipe, { ...usual, [spec.name]: end });
  });

  test('near its demo it is one closed body whose mates measure, or refused in words', {
    timeout: 300_000,
  }, () => {
    let built = 0;
    for (const p of fc.sample(near(recipe), { seed: 11, numRuns: RUNS })) if (holds(recipe, p)) built++;
    expect(built, 'so many of them built').toBeGreaterThan(RUNS / 4);
  });

  test('anywhere in its range it never builds something wrong without a word', { timeout: 300_000 }, () => {
    for (const p of fc.sample(far(recipe), { seed: 23, numRuns: RUNS })) holds(recipe, p);
  });
});
