import type { BuiltPart } from '../built-part';
import { type Finding, ranked } from '../findings/finding';
import type { Kernels } from '../kernels/kernel';
import { mirroredMesh } from '../mesh/mesh';
import type { Parameters } from '../recipes/parameters';
import type { BuiltSolid, Recipe } from '../recipes/recipe';
import { type LoadResult, loadResults } from '../strength/loads';
import { checkBounds } from './bounds';
import { checkSolid } from './check-solid';
import type { CheckContext } from './context';
import { checkOwnMates } from './own-mates';
import { checkRecesses } from './recesses';

export interface Inspection {
  findings: Finding[];
  loads: LoadResult[];
}

/** As the recipe draws it: in one piece, in its drawn place and hand. */
function ownSolid({ additions = [] }: Recipe, { whole }: BuiltPart): BuiltSolid {
  const turns = additions.filter(({ addition }) => addition.kind === 'other-hand' && addition.on).length;
  return { mesh: turns % 2 === 1 ? mirroredMesh(whole) : whole };
}

/** Every finding on the finished triangles, the costliest first. @param found the findings of the build */
export function inspectPart(
  recipe: Recipe,
  parameters: Parameters,
  part: BuiltPart,
  context: CheckContext,
  kernels: Kernels,
  found: readonly Finding[] = [],
): Inspection {
  const loads = loadResults(part.whole, part.surfaces, context);
  const findings = [
    ...found,
    ...checkSolid(recipe, part, context, kernels, loads),
    ...checkBounds(recipe, parameters, context),
    ...checkRecesses(part.whole, recipe.additions ?? [], parameters, context, kernels),
    ...recipe.checks(parameters, ownSolid(recipe, part), context, kernels.models),
    ...checkOwnMates(context.ownMates, recipe, parameters, part, kernels),
  ];
  return { findings: ranked(findings), loads };
}
