import { type BuildOutcome, buildPart } from '../build';
import type { Kernels } from '../kernels/kernel';
import { requireRecipe } from '../recipes';
import type { Parameters } from '../recipes/parameters';
import type { Recipe } from '../recipes/recipe';
import { kindOf } from '.';
import type { Addition, AdditionKindName } from './addition';
import { longName, usualOf, withAdditions } from './with-additions';

/** For tests: additions on a recipe's demo object, each with its own numbers by their short names. */
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
