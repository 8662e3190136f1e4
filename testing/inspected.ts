import { buildPart } from '../core/shape/build';
import { type CheckContext, NO_DEMANDS } from '../core/shape/checks/context';
import { inspectPart } from '../core/shape/checks/inspect';
import type { Finding } from '../core/shape/findings/finding';
import type { Kernels } from '../core/shape/kernels/kernel';
import type { Parameters } from '../core/shape/recipes/parameters';
import { partWith, type Wish } from './part-with';

/** For tests: a recipe's demo object with additions and other numbers, built and looked at as before a print. */
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
  // What the ledger asks for is what is drawn, unless the test says otherwise.
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
    lineWidth: 0.4,
    bed: { width: 300, depth: 300, height: 300 },
    flexible: false,
    density: 1.24,
    strainLimit: 0.3,
    measured: {},
    ledger,
    ...NO_DEMANDS,
    ...other,
  };
  return inspectPart(recipe, parameters, outcome.part, context, kernels, outcome.findings).findings;
}
