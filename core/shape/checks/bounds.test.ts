import { expect, test } from 'vitest';
import { RECIPES, requireRecipe } from '../recipes';
import { checkBounds } from './bounds';

const cap = requireRecipe('round-cap');
const said = (skirtDepth: number, rim_height?: number, change = {}) =>
  checkBounds(
    cap,
    { ...cap.demo.parameters, skirtDepth, ...change },
    { measured: rim_height === undefined ? {} : { rim_height } },
  );

test('a skirt longer than what it may cover is told, with the length that goes', () => {
  const [found] = said(15, 14);
  expect(found).toMatchObject({ code: 'beyond-reading', level: 'stop', parameter: 'skirtDepth' });
  expect(found!.remedy).toMatchObject({ parameter: 'skirtDepth', text: '13.8' });
  expect(found!.message).toContain('must not touch');
});

test('within it, unread or not asked for, nothing is said', () => {
  expect(said(13.8, 14)).toEqual([]);
  expect(said(14.03, 14)).toEqual([]);
  expect(said(30)).toEqual([]);
  expect(said(30, 14, { style: 'into' })).toEqual([]);
});

test('no recipe’s own sizes go beyond its own object', () => {
  for (const recipe of RECIPES)
    expect(checkBounds(recipe, recipe.demo.parameters, { measured: recipe.demo.sizes }), recipe.id).toEqual(
      [],
    );
});
