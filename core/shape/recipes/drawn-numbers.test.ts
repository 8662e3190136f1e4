import { describe, expect, test } from 'vitest';
import { drawnLength } from '../drawing/drawing';
import { RECIPES } from '.';
import type { Parameters } from './parameters';
import type { Recipe } from './recipe';

/** The demo object, with every option and every count. */
function variants({ parameters, demo }: Recipe): Parameters[] {
  const others = parameters.flatMap((spec): Parameters[] => {
    if (spec.kind === 'choice') return spec.options.map(o => ({ [spec.name]: o.value }));
    if (spec.kind === 'flag') return [{ [spec.name]: !demo.parameters[spec.name] }];
    return spec.kind === 'length' && spec.measure === 'count' ? [{ [spec.name]: spec.min }] : [];
  });
  return [{}, ...others].map(change => ({ ...demo.parameters, ...change }));
}

describe.each(RECIPES.map(r => [r.id, r] as const))('%s', (_, recipe) => {
  test('every number on its drawing is the length that is drawn', () => {
    for (const p of variants(recipe)) {
      if (recipe.refuse(p).length > 0) continue;
      for (const dimension of recipe.drawing(p).dimensions) {
        const mate = recipe.mates.find(m => m.id === dimension.key);
        // A girth is written next to the width of the loop.
        if (mate?.around) continue;
        const shown = p[mate?.parameter ?? dimension.key];
        if (typeof shown !== 'number') continue;
        const words = `${dimension.key} “${dimension.label}” of ${JSON.stringify(p)}`;
        expect(Math.abs(shown - drawnLength(dimension)), words).toBeLessThan(0.01);
      }
    }
  });
});
