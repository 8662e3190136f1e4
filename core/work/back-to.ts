import type { Part } from '../job/document';
import type { Version } from '../job/history';
import { usualText } from '../shape/recipes/parameters';
import type { Recipe } from '../shape/recipes/recipe';

type Was = Pick<Part, 'parameters' | 'additions' | 'materialId' | 'printerId' | 'pose'>;

/**
 * The part as a version had it, with the maker's settings of that time. Numbers that followed the recipe, and through
 * it the ledger, follow them again.
 * @param recipe the version's, with its additions
 */
export function partAsIn(version: Version, recipe: Recipe): Was {
  const { additions, materialId, printerId, pose } = version;
  const set = Object.entries(version.expressions).filter(([name, written]) => {
    const spec = recipe.parameters.find(p => p.name === name);
    if (!spec) return false;
    if (spec.kind === 'length') return written.text !== usualText(spec, version.parameters);
    return written.text !== ('default' in spec ? wordOf(spec.default) : '');
  });
  return { parameters: Object.fromEntries(set), additions, materialId, printerId, pose };
}

const wordOf = (value: string | boolean) => (typeof value === 'boolean' ? (value ? 'yes' : 'no') : value);
