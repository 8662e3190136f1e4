import type { Addition } from './additions/addition';
import { withAdditions } from './additions/with-additions';
import { requireRecipe } from './recipes';
import type { Recipe } from './recipes/recipe';

/** @throws RangeError when the recipe is unknown */
export const recipeWith = (id: string, additions: readonly Addition[]): Recipe =>
  withAdditions(requireRecipe(id), additions);
