import { kindOf } from '../core/shape/additions';
import type { Addition, AdditionKindName } from '../core/shape/additions/addition';
import { longName, usualOf, withAdditions } from '../core/shape/additions/with-additions';
import { type BuildOutcome, buildPart } from '../core/shape/build';
import type { Kernels } from '../core/shape/kernels/kernel';
import { requireRecipe } from '../core/shape/recipes';
import type { Parameters } from '../core/shape/recipes/parameters';
import type { Recipe } from '../core/shape/recipes/recipe';

/** For tests: additions on a recipe's demo object, each with its own numbers by short name. */
export interface Wish {
  kind: AdditionKindName;
  set?: Parameters;
  id?: string;
  on?: boolean;
  fits?: Addition['fits'];
}

export function partWith(
  id: string,
  wishes: readonly Wish[],
  change: Parameters = {},
): { recipe: Recipe; parameters: Parameters } {
  const base = requireRecipe(id);
  const additions = wishes.map(
    (w, i): Addition => ({
      id: w.id ?? `${kindOf(w.kind).short}${i + 1}`,
      kind: w.kind,
      name: kindOf(w.kind).title,
      order: i,
      on: w.on ?? true,
      ...(w.fits ? { fits: w.fits } : {}),
    }),
  );
  const own = additions.flatMap((a, i) =>
    kindOf(a.kind).parameters.map(
      spec => [longName(a, spec.name), wishes[i]!.set?.[spec.name] ?? usualOf(spec)] as const,
    ),
  );
  return {
    recipe: withAdditions(base, additions),
    parameters: { ...base.demo.parameters, ...Object.fromEntries(own), ...change },
  };
}

export function buildWith(
  kernels: Kernels,
  id: string,
  wishes: readonly Wish[],
  { quality = 'file', change = {} }: { quality?: 'file' | 'screen'; change?: Parameters } = {},
): BuildOutcome {
  const { recipe, parameters } = partWith(id, wishes, change);
  return buildPart(recipe, parameters, kernels, quality);
}
