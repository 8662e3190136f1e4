import { describe, expect, test } from 'vitest';
import type { Drawing } from '../drawing/drawing';
import { thumbnailOf } from '../drawing/thumbnail';
import { RECIPES } from '.';
import type { Parameters } from './parameters';

/**
 * No number that a maker types, reads or derives may hang or exhaust the page or the server: a reading at or below its
 * instrument's zero, a difference taken in the wrong order, a misplaced decimal point.
 */
const READ = [-40, -0.01, 0, 1e-9, 0.003, 5000];
/** A drawing with more points than this is too slow for a page or a sheet. */
const MOST_POINTS = 40_000;

function isDrawable(drawing: Drawing, words: string): void {
  const points = drawing.shapes.reduce((sum, s) => sum + s.points.length, 0);
  expect(points, words).toBeLessThan(MOST_POINTS);
  thumbnailOf(drawing);
}

describe.each(RECIPES.map(r => [r.id, r] as const))('%s', (_, recipe) => {
  const p = recipe.demo.parameters;
  test('whatever was read of the object, it is drawn', () => {
    const choices: Parameters[] = recipe.parameters.flatMap(s =>
      s.kind === 'choice' ? s.options.map(o => ({ ...p, [s.name]: o.value })) : [],
    );
    for (const chosen of [p, ...choices])
      for (const step of recipe.guide)
        for (const value of READ)
          isDrawable(
            recipe.objectDrawing({ ...recipe.demo.sizes, [step.key]: value }, chosen),
            `${step.key} ${value}`,
          );
    for (const value of READ)
      isDrawable(
        recipe.objectDrawing(Object.fromEntries(recipe.guide.map(g => [g.key, value])), p),
        `all ${value}`,
      );
  });

  test('whatever is typed on Shape within its bounds, it is refused or drawn', () => {
    for (const spec of recipe.parameters) {
      if (spec.kind !== 'length') continue;
      for (const value of [spec.min, spec.min + 1e-6, spec.max, (spec.min + spec.max) / 2]) {
        const whole = spec.measure === 'count' ? Math.round(value) : value;
        const changed = { ...p, [spec.name]: whole };
        const refused = recipe.refuse(changed);
        isDrawable(recipe.drawing(changed), `${spec.name} ${whole}`);
        if (refused.length === 0) expect(recipe.surfaces(changed)).toBeDefined();
      }
    }
  });
});
