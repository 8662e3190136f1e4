import type { Parameters, Recipe } from './recipes/recipe';

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

/** The last few answers by key; the oldest goes first. */
export class Recent<T> {
  private readonly kept = new Map<string, T>();
  constructor(private readonly most: number) {}

  get(key: string): T | undefined {
    const found = this.kept.get(key);
    if (found === undefined) return undefined;
    this.kept.delete(key);
    this.kept.set(key, found);
    return found;
  }

  put(key: string, value: T): void {
    this.kept.delete(key);
    this.kept.set(key, value);
    if (this.kept.size > this.most) this.kept.delete(this.kept.keys().next().value!);
  }
}
