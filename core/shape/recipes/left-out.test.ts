import { describe, expect, test } from 'vitest';
import { RECIPES, requireRecipe } from '.';
import { completed } from './left-out';
import { parameterSchema } from './parameter-schema';

describe('what is left out', () => {
  test.each(RECIPES.map(r => [r.id, r] as const))('of %s: nothing given is the demo object', (_, recipe) => {
    expect(completed(recipe, {})).toEqual({});
    expect(parameterSchema(recipe).parse(completed(recipe, {}))).toEqual(recipe.demo.parameters);
  });

  test('follows what was given, over several steps, and stays within its bounds', () => {
    const key = requireRecipe('drive-blade');
    // stepAcross is 0.95 of the shank; socketDepth follows the head's height.
    expect(completed(key, { shank: 20 })).toMatchObject({ shank: 20, stepAcross: 19 });
    // A wider shank needs a wider head; its height hangs on nothing.
    expect(completed(key, { shank: 20 })).toMatchObject({ head: 29 });
    expect(completed(key, { shank: 20 })).not.toHaveProperty('headHeight');
    const cap = requireRecipe('round-cap');
    const wide = completed(cap, { style: 'into', plugDiameter: 60 });
    expect(wide.endDiameter).toBeGreaterThan(60);
    const bush = requireRecipe('bush');
    expect(completed(bush, { style: 'spacer', boreDiameter: 319 })).toMatchObject({ spacerDiameter: 320 });
  });

  test('what is no number is left for the schema to refuse', () => {
    const bush = requireRecipe('bush');
    expect(completed(bush, { boreDiameter: 'wide' })).toEqual({ boreDiameter: 'wide' });
    expect(parameterSchema(bush).safeParse(completed(bush, { boreDiameter: 'wide' })).success).toBe(false);
  });
});
