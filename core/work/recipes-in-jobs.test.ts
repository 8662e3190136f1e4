import { describe, expect, test } from 'vitest';
import { readEdit as read } from '../../testing/read-edit';
import type { JobDocument } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { RECIPES } from '../shape/recipes';
import type { Recipe } from '../shape/recipes/recipe';
import { wordOf } from './parameters';
import { Work } from './work';

/** A recipe's defaults must carry a maker from readings to a part without setting a number. */
const resolve = (document: JobDocument) => new Work(document, FIRST_WORKSHOP, emptyHistory()).part('part-1');

function measured(recipe: Recipe, materialId: string, scale: number, ...edits: Edit[]): JobDocument {
  const readings = recipe.guide.map(g => read(g.key, Number((recipe.demo.sizes[g.key]! * scale).toFixed(2))));
  return [...edits, ...readings].reduce<JobDocument>(
    (job, edit) => applyEdit(job, edit, FIRST_WORKSHOP),
    newJob(recipe.title, recipe, FIRST_WORKSHOP, materialId),
  );
}

const choices = (recipe: Recipe): [string, string][] =>
  recipe.parameters.flatMap((s): [string, string][] => {
    if (s.kind === 'choice') return s.options.map(o => [s.name, o.value]);
    return s.kind === 'flag' ? [true, false].map(on => [s.name, wordOf(on)]) : [];
  });

describe.each(RECIPES.map(r => [r.id, r] as const))('%s in a job', (_, recipe) => {
  test.each(['pla', 'tpu'])('%s: measured and nothing else said, it can be built', materialId => {
    for (const scale of [0.8, 1, 1.25]) {
      const resolved = resolve(measured(recipe, materialId, scale));
      expect(resolved.problems, `at ${scale}`).toEqual({});
      expect([...resolved.provisional], `at ${scale}`).toEqual([]);
      expect(recipe.refuse(resolved.parameters), `at ${scale}`).toEqual([]);
      expect(resolved.ledger.unread).toEqual([]);
      expect(resolved.ledger.mates.length).toBeGreaterThan(0);
      // Each mate's parameter has its model number, and the checks are asked for exactly that.
      const { ledger } = resolved.checkContext;
      for (const m of resolved.ledger.mates) {
        const spec = recipe.mates.find(s => s.id === m.mate.ours.surface)!;
        expect(resolved.parameters[spec.parameter], spec.id).toBe(m.model);
        expect(ledger[spec.id]!.model).toBe(m.model);
        expect(m.steps.reduce((sum, s) => sum + s.amount, 0)).toBeCloseTo(m.model, 9);
      }
    }
  });

  test('whichever choice is made, it asks for what it needs and can be built or says why', () => {
    for (const [name, text] of choices(recipe)) {
      const edit: Edit = { kind: 'parameter', partId: 'part-1', name, expression: { text, unit: 'none' } };
      const document = measured(recipe, 'petg', 1, edit);
      const resolved = resolve(document);
      expect(resolved.problems, `${name} ${text}`).toEqual({});
      expect(recipe.refuse(resolved.parameters), `${name} ${text}`).toEqual([]);
      const needed = resolved.needed.map(s => s.dimension.id);
      for (const m of resolved.ledger.mates) expect(needed, `${name} ${text}`).toContain(m.dimension.id);
    }
  });

  test('unread, it stands on its examples and says which', () => {
    const resolved = resolve(newJob(recipe.title, recipe, FIRST_WORKSHOP, 'pla'));
    expect(resolved.problems).toEqual({});
    expect(resolved.provisional.size).toBeGreaterThan(0);
    expect(recipe.refuse(resolved.parameters)).toEqual([]);
    expect(resolved.ledger.pAllRight).toBeNull();
  });
});

test('a reading that goes around counts as the circle of that girth, for stiff and for flexible plastic', () => {
  const recipe = RECIPES.find(r => r.id === 'section-cap')!;
  const around: Edit = {
    kind: 'parameter',
    partId: 'part-1',
    name: 'fits',
    expression: { text: 'around', unit: 'none' },
  };
  for (const materialId of ['petg', 'tpu']) {
    const { ledger, parameters } = resolve(measured(recipe, materialId, 1, around));
    const [mate] = ledger.mates;
    expect(ledger.mates).toHaveLength(1);
    expect(mate!.around).toBe(true);
    expect(mate!.steps[0]!.amount).toBeCloseTo(174.3 / Math.PI, 2);
    // A flexible cap is smaller than what it stretches over, a stiff one larger.
    expect(Math.sign(mate!.clearance)).toBe(materialId === 'tpu' ? -1 : 1);
    expect(parameters.rimAroundSize).toBe(mate!.model);
  }
});
