import { describe, expect, test } from 'vitest';
import { readEdit as read } from '../../testing/read-edit';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { RECIPES, requireRecipe } from '../shape/recipes';
import type { Recipe } from '../shape/recipes/recipe';
import { decidingChoices, usesOf } from './uses';
import { Work } from './work';

const partOf = (recipe: Recipe, edits: readonly Edit[]) => {
  const job = edits.reduce((j, e) => applyEdit(j, e, FIRST_WORKSHOP), newJob('Any', recipe, FIRST_WORKSHOP));
  return new Work(job, FIRST_WORKSHOP, emptyHistory()).part('part-1');
};
const set = (name: string, text: string, unit: 'mm' | 'none' = 'none'): Edit => ({
  kind: 'parameter',
  partId: 'part-1',
  name,
  expression: { text, unit },
});

/** Every answer to every choice, one at a time and two at a time. */
function answersOf(recipe: Recipe): Edit[][] {
  const all = recipe.parameters.flatMap(spec =>
    spec.kind === 'flag'
      ? [[set(spec.name, 'yes'), set(spec.name, 'no')]]
      : spec.kind === 'choice'
        ? [spec.options.map(o => set(spec.name, o.value))]
        : [],
  );
  const pairs = all.flatMap((one, i) =>
    all.slice(i + 1).flatMap(two => one.flatMap(a => two.map(b => [a, b]))),
  );
  return [[], ...all.flatMap(one => one.map(a => [a])), ...pairs];
}

describe.each(RECIPES.map(r => [r.id, r] as const))('%s', (_, recipe) => {
  test('asks for what Shape uses, and for nothing else', () => {
    for (const answers of answersOf(recipe)) {
      const part = partOf(recipe, answers);
      const words = JSON.stringify(
        answers.map(a => (a.kind === 'parameter' ? [a.name, a.expression?.text] : a)),
      );
      for (const step of recipe.guide) {
        const state = part.dimensionAt(step.key)!;
        const asked = part.needed.some(n => n.dimension.id === state.dimension.id);
        expect(usesOf(part, state.dimension).length > 0, `${step.key} with ${words}`).toBe(asked);
      }
    }
  });
});

test('a choice that brings other sizes is found, one that does not is not', () => {
  const cap = partOf(requireRecipe('round-cap'), []);
  const names = decidingChoices(cap.recipe, cap.parameters).map(s => s.name);
  expect(names).toEqual(['style', 'lip', 'strap']);
  expect(names).not.toContain('tab');
});

test('a number of the maker’s own no longer stands on the reading, and that is seen', () => {
  const recipe = requireRecipe('round-cap');
  const height = (edits: Edit[]) => {
    const part = partOf(recipe, edits);
    return usesOf(part, part.dimensionAt('rim_height')!.dimension);
  };
  expect(height([read('rim_height', 14)])).toEqual(['Skirt depth']);
  expect(height([read('rim_height', 14), set('skirtDepth', '12', 'mm')])).toEqual([]);
});
