import { buildPart } from '../core/shape/build';
import type { CheckContext } from '../core/shape/checks/context';
import { inspectPart } from '../core/shape/checks/inspect';
import type { Finding } from '../core/shape/findings/finding';
import type { Kernels } from '../core/shape/kernels/kernel';
import type { Parameters } from '../core/shape/recipes/parameters';
import { partWith, type Wish } from './part-with';
import { PLAIN_CONTEXT } from './plain-context';

/** For tests: a recipe's demo object with additions and other numbers, built and checked as before a print. */
export function inspected(
  kernels: Kernels,
  id: string,
  wishes: readonly Wish[],
  change: Parameters = {},
  { asked, ...other }: Partial<CheckContext> & { asked?: Parameters } = {},
): Finding[] {
  const { recipe, parameters } = partWith(id, wishes, change);
  const outcome = buildPart(recipe, parameters, kernels, 'screen');
  if (!outcome.ok) return outcome.findings;
  // The ledger asks for the drawn sizes, unless the test says otherwise.
  const drawn = asked ?? parameters;
  const ledger = Object.fromEntries(
    recipe.mates
      .filter(m => m.active(parameters))
      .map(m => {
        const model = drawn[m.parameter] as number;
        return [m.id, { model, reading: model }];
      }),
  );
  const context: CheckContext = {
    ...PLAIN_CONTEXT,
    strainLimit: 0.3,
    ledger,
    ...other,
  };
  return inspectPart(recipe, parameters, outcome.part, context, kernels, outcome.findings).findings;
}
