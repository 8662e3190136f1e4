import { recipeWith } from '../shape/recipe-with';
import type { Recipe } from '../shape/recipes/recipe';
import type { Part } from './document';

/** A part's recipe with what its maker put on it. @throws RangeError when nobody knows the recipe */
export const recipeOf = ({ recipe, additions }: Pick<Part, 'recipe' | 'additions'>): Recipe =>
  recipeWith(recipe, additions);

/** The job's dimension for one of a recipe's guide keys: two parts of one recipe have each their own. */
export const dimensionOf = ({ binds }: Pick<Part, 'binds'>, key: string): string => binds[key] ?? key;
