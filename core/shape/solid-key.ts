import type { Parameters } from './recipes/parameters';
import type { Recipe } from './recipes/recipe';

/**
 * What a solid depends on, as one text: equal keys are equal solids. Parameters are sorted, so that the
 * order in which they were set does not matter; kernels are part of it, since a newer one may round
 * otherwise.
 */
export function solidKey(
  recipe: Pick<Recipe, 'id' | 'version'>,
  parameters: Parameters,
  quality: string,
  kernels: string,
): string {
  const sorted = Object.entries(parameters).sort(([a], [b]) => (a < b ? -1 : 1));
  return JSON.stringify([recipe.id, recipe.version, sorted, quality, kernels]);
}
