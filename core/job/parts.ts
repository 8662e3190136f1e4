import { recipeWith } from '../shape/recipe-with';
import type { Recipe } from '../shape/recipes/recipe';
import { usersOf } from './derived';
import type { Dimension, JobDocument, Part } from './document';

/** A part's recipe with its additions. @throws RangeError when the recipe is unknown */
export const recipeOf = ({ recipe, additions }: Pick<Part, 'recipe' | 'additions'>): Recipe =>
  recipeWith(recipe, additions);

/** The job's dimension for one of a recipe's guide keys: two parts of one recipe each have their own. */
export const dimensionOf = ({ binds }: Pick<Part, 'binds'>, key: string): string => binds[key] ?? key;

/** Whether a dimension is still used: it has readings, something is made from it, or a part's guide asks for it. */
export const isOfUse = (dimension: Dimension, document: JobDocument): boolean =>
  dimension.guide === null ||
  dimension.readings.length > 0 ||
  dimension.derived !== undefined ||
  usersOf(dimension.id, document).length > 0 ||
  document.mates.some(m => m.other.of === 'object' && m.other.dimension === dimension.id) ||
  document.parts.some(p => recipeOf(p).guide.some(step => dimensionOf(p, step.key) === dimension.id));
