import { proposeFit } from '../fit/propose';
import { windowForSize } from '../fit/wants';
import { windowFor } from '../job/workshop';
import { kindOn } from './kind-on';
import type { MateLedger } from './ledger';
import type { ResolvedPart } from './resolved';

/**
 * The same mate in stiff and in flexible plastic, as a first print would be drawn. Clearances across the whole width,
 * mm.
 */
export interface BothWays {
  stiff: { want: string; model: number; clearance: number };
  flexible: { want: string; model: number; clearance: number };
}

/**
 * “In stiff plastic this cap wants +0.12, in a flexible one −0.84”: before tries, on this printer.
 * Null where the recipe means the same want in both.
 */
export function bothWays(ledger: MateLedger, resolved: ResolvedPart): BothWays | null {
  const { workshop } = resolved;
  const { mate, reading } = ledger;
  const spec = resolved.recipe.mates.find(m => m.id === mate.ours.surface);
  if (!spec || spec.want === spec.flexibleWant) return null;
  const kind = kindOn(mate, resolved.recipe, resolved.part);
  const printer = resolved.printers.response(resolved.part, mate.side, kind, reading.value);
  const propose = (want: typeof spec.want) => {
    const { model, clearance } = proposeFit({
      side: mate.side,
      reading,
      want: windowForSize({ name: want, window: windowFor(workshop, want) }, reading.value),
      printer,
    });
    return { want, model, clearance };
  };
  return { stiff: propose(spec.want), flexible: propose(spec.flexibleWant) };
}
