import { recipeWith } from '../shape/recipe-with';
import type { Recipe } from '../shape/recipes/recipe';
import type { Part } from './document';

/** Asked for many times while one part is worked out. */
const known = new WeakMap<Part['additions'], Map<string, Recipe>>();

/** A part's recipe with what its maker put on it. @throws RangeError when nobody knows the recipe */
export function recipeOf({ recipe, additions }: Pick<Part, 'recipe' | 'additions'>): Recipe {
  const own = known.get(additions) ?? new Map<string, Recipe>();
  const found = own.get(recipe) ?? recipeWith(recipe, additions);
  own.set(recipe, found);
  known.set(additions, own);
  return found;
}

/** The job's dimension for one of a recipe's guide keys: two parts of one recipe have each their own. */
export const dimensionOf = ({ binds }: Pick<Part, 'binds'>, key: string): string => binds[key] ?? key;
