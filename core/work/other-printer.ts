import type { Version } from '../job/history';
import { recipeOf } from '../job/parts';
import type { Workshop } from '../job/workshop';
import type { MateSpec } from '../shape/mates';
import type { Parameters } from '../shape/recipes/parameters';
import { kindOn } from './kind-on';
import { Printers } from './printers';

/** A version's sizes without the share of its own printer. Lengths mm. */

/**
 * Each mate at reading plus allowance, plus what `adds` returns. Sizes that a maker derived from a mate's number stay
 * as they were.
 */
function withSizes(version: Version, adds: (spec: MateSpec, size: number) => number): Parameters {
  const recipe = recipeOf(version);
  const parameters = { ...version.parameters };
  for (const mate of version.mates) {
    const spec = recipe.mates.find(m => m.id === mate.surface);
    if (!spec) continue;
    const own = mate.ledger
      .filter(s => s.step === 'compensation' || s.step === 'lesson')
      .reduce((sum, s) => sum + s.amount, 0);
    const designed = mate.model - own;
    parameters[spec.parameter] = Number((designed + adds(spec, designed)).toFixed(3));
  }
  return parameters;
}

/** Compensated for no printer. */
export const asDesigned = (version: Version): Parameters => withSizes(version, () => 0);

/** For another printer of this workshop, by what is known of that printer, without this version's tries. */
export function forPrinter(
  version: Version,
  made: { printerId: string; materialId: string },
  workshop: Workshop,
): Parameters {
  const recipe = recipeOf(version);
  const printers = new Printers(workshop);
  return withSizes(version, (spec, size) => {
    const ours = { of: 'part' as const, part: version.partId, surface: spec.id };
    const kind = kindOn({ side: spec.side, ours }, recipe, version);
    const { mean } = printers.belief(made, spec.side, kind, size);
    return spec.side === 'inside' ? mean : -mean;
  });
}
