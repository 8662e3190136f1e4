import { counting } from '../job/history';
import { chanceIf } from './ledger';
import type { ResolvedPart } from './resolved';
import { chanceIfDrawn } from './signed-ledger';

/** A number that the next version would change: what it was, what it would be, and what either does. mm or degrees */
export interface ProposedChange {
  mateId: string;
  name: string;
  parameter: string;
  unit: 'mm' | 'deg';
  /** As the last version drew it. */
  was: number;
  proposed: number;
  /** What is built as the job stands. */
  built: number;
  /** Chance to be right with the number as it was, and with the proposed one. */
  left: number;
  taken: number;
  reason: string;
  /** What its field holds while it follows the ledger; null where that is the recipe's own default. */
  follows: { text: string; unit: 'mm' | 'deg' } | null;
}

/** Numbers are shown to a hundredth: a smaller change is none. */
const SAME = 0.005;

/** Every change that what was learned proposes since the last version of a part; none before the first. */
export function proposedChanges({
  history,
  ledger,
  recipe,
}: Pick<ResolvedPart, 'history' | 'ledger' | 'recipe'>): ProposedChange[] {
  const last = counting(history).versions.at(-1);
  if (!last) return [];
  const drawn = new Map([...last.mates, ...last.signed].map(m => [m.mateId, m.model]));
  const fits = ledger.mates.flatMap((row): ProposedChange[] => {
    const was = drawn.get(row.mate.id);
    const spec = recipe.mates.find(m => m.id === row.mate.ours.surface);
    if (was === undefined || !spec) return [];
    // An addition's number, and one the maker named, is bound by what is written in it.
    const bound =
      row.mate.own !== undefined ||
      recipe.parameters.find(p => p.name === spec.parameter)?.addition !== undefined;
    return [
      {
        mateId: row.mate.id,
        name: row.mate.name,
        parameter: spec.parameter,
        unit: 'mm',
        was,
        proposed: row.proposed,
        built: row.model,
        left: chanceIf(row, { model: was }),
        taken: chanceIf(row, { model: row.proposed }),
        reason: row.reason,
        follows: bound ? { text: `${row.dimension.name}.model`, unit: 'mm' } : null,
      },
    ];
  });
  const signed = ledger.signed.flatMap((row): ProposedChange[] => {
    const was = drawn.get(row.mate.id);
    if (was === undefined) return [];
    return [
      {
        mateId: row.mate.id,
        name: row.mate.name,
        parameter: row.mate.number,
        unit: row.unit,
        was,
        proposed: row.proposed,
        built: row.model,
        left: chanceIfDrawn(row, was),
        taken: chanceIfDrawn(row, row.proposed),
        reason: row.reason,
        follows: { text: `${row.dimension.name}.model`, unit: row.unit },
      },
    ];
  });
  return [...fits, ...signed].filter(c => Math.abs(c.proposed - c.was) >= SAME);
}
