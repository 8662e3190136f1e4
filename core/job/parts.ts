import { recipeWith } from '../shape/recipe-with';
import type { Recipe } from '../shape/recipes/recipe';
import type { Part } from './document';

/** A part's recipe with its additions. @throws RangeError when the recipe is unknown */
export const recipeOf = ({ recipe, additions }: Pick<Part, 'recipe' | 'additions'>): Recipe =>
  recipeWith(recipe, additions);

/** The job's dimension for one of a recipe's guide keys: two parts of one recipe have each their own. */
export const dimensionOf = ({ binds }: Pick<Part, 'binds'>, key: string): string => binds[key] ?? key;
