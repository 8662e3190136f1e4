import { counting } from '../job/history';
import { chanceIf } from './ledger';
import type { ResolvedPart } from './resolved';
import { chanceIfDrawn } from './signed-ledger';

/** A number that the next version would change: its old and new values, and the chance of each. mm or degrees */
export interface ProposedChange {
  mateId: string;
  name: string;
  parameter: string;
  unit: 'mm' | 'deg';
  /** As the last version drew it. */
  was: number;
  proposed: number;
  /** The value that is built from the job as it stands. */
  built: number;
  /** The chance to be right with the old number and with the new one. */
  left: number;
  taken: number;
  reason: string;
  /** The text of its field while it follows the ledger; null where that is the recipe's default. */
  follows: { text: string; unit: 'mm' | 'deg' } | null;
}

/** Numbers are shown to a hundredth: a smaller change is not a change. */
const SAME = 0.005;

/** The changes that were learned since the last version of a part; none before the first version. */
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
    // The number of an addition, or one named by the maker, is tied to the text in its field.
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
