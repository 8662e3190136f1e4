import { type Addition, inOrder } from './additions/addition';
import { type Quality, SAGITTA } from './finish';
import { requireRecipe } from './recipes';
import type { Parameters } from './recipes/parameters';

/** What a solid is made from. */
export interface SolidSpec {
  recipe: string;
  additions: readonly Addition[];
  parameters: Parameters;
}

/**
 * Everything a solid depends on, as one text: equal keys are equal solids. Parameters are sorted, so that the order in
 * which they were set does not matter; kernels are included, since a newer one may round differently.
 * @throws RangeError when the recipe is unknown
 */
export function solidKey(
  { recipe, additions, parameters }: SolidSpec,
  quality: Quality,
  kernels: string,
  /** The recipe's version: raised when the same parameters give another solid. */
  versionOf = (id: string): number => requireRecipe(id).version,
): string {
  const sorted = Object.entries(parameters).sort(([a], [b]) => (a < b ? -1 : 1));
  const put = inOrder(additions)
    .filter(a => a.on)
    // Findings carry the addition's name; the order of additions changes the solid.
    .map(({ id, kind, name, fits }) => [id, kind, name, fits ?? null]);
  return JSON.stringify([recipe, versionOf(recipe), put, sorted, SAGITTA[quality], kernels]);
}
