import { describe, expect, test } from 'vitest';
import { readEdit as read } from '../../testing/read-edit';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { RECIPES } from '../shape/recipes';
import type { Recipe } from '../shape/recipes/recipe';
import { Work } from './work';

/**
 * Whatever was read, between half and twice the example, the sizes that nobody set must follow it and suit each other.
 * Sizes that belong to the object cannot follow: those cases are listed with their messages.
 */
const LEFT: Readonly<Record<string, RegExp>> = {
  // A written outline is made for one size.
  'section-cap': /outline as written/,
  'profile-part': /pocket leaves no wall/,
  // Sizes of the object that contradict each other when all of them shrink alike.
  'hinge-leaf': /pin lies so low/,
  'plate-adapter': /run into each other/,
  'board-tray': /posts run into the sides/,
  // A usual screw does not fit into half the depth.
  'socket-knob': /set screw must meet/,
  'duct-adapter': /goes .* mm aside/,
};

function refusalsOf(recipe: Recipe, scale: number, choice: Edit[]): string[] {
  const readings = recipe.guide.flatMap(step => {
    const size = recipe.demo.sizes[step.key];
    return size === undefined ? [] : [read(step.key, Number((size * scale).toFixed(2)))];
  });
  const job = [...readings, ...choice].reduce(
    (j, e) => applyEdit(j, e, FIRST_WORKSHOP),
    newJob('Any', recipe, FIRST_WORKSHOP),
  );
  const part = new Work(job, FIRST_WORKSHOP, emptyHistory()).part('part-1');
  return [...part.recipe.refuse(part.parameters).map(f => f.message), ...Object.values(part.problems)];
}

describe.each(RECIPES.map(r => [r.id, r] as const))('%s', (id, recipe) => {
  const choices: Edit[][] = recipe.parameters.flatMap(spec => {
    const answers =
      spec.kind === 'flag' ? ['yes', 'no'] : spec.kind === 'choice' ? spec.options.map(o => o.value) : [];
    return answers.map((text): Edit[] => [
      { kind: 'parameter', partId: 'part-1', name: spec.name, expression: { text, unit: 'none' } },
    ]);
  });
  test('sizes that nobody set collide neither with what was read nor with each other', () => {
    for (const scale of [0.5, 0.7, 1, 1.4, 2])
      for (const choice of [[], ...choices]) {
        const said = refusalsOf(recipe, scale, choice).filter(words => !LEFT[id]?.test(words));
        expect(said, `${scale} times the example, ${JSON.stringify(choice)}`).toEqual([]);
      }
  });
});
