import { isScrewed } from '../fit/wants';
import type { PosesAsked } from '../print/lay';
import { machineOf, rulesOf, settingsOf } from '../print/of-printer';
import type { ResolvedPart } from './resolved';

/** What decides a part's best pose, besides its solid. */
export function posesAsked(work: ResolvedPart): PosesAsked {
  const { part, recipe, printer, ledger, demands } = work;
  const mates = recipe.mates.map(spec => {
    const now = ledger.mates.find(m => m.mate.ours.surface === spec.id);
    return [
      spec.id,
      {
        name: now?.mate.name ?? spec.name,
        form: spec.form ?? 'round',
        pRight: now?.pRight ?? null,
        forgiving: isScrewed(now?.mate.want.name ?? spec.want),
      },
    ] as const;
  });
  const { strength, margin, loads } = demands;
  return {
    mates: Object.fromEntries(mates),
    bed: printer.bed,
    rules: rulesOf(printer),
    settings: settingsOf(printer, part.quality),
    machine: machineOf(printer),
    loads,
    strength,
    margin: margin.times,
    now: part.pose,
  };
}
