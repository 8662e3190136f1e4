import { useEffect } from 'react';
import { CRITICAL_READINGS } from '../../../core/measure/evaluate';
import { type DimensionState, readEnough } from '../../../core/work/dimension';
import { useBench } from '../../job/bench-context';
import { Lead } from '../../ui/layout';
import { holdFor } from './HoldPicture';

const ORDINALS = [
  'First',
  'Second',
  'Third',
  'Fourth',
  'Fifth',
  'Sixth',
  'Seventh',
  'Eighth',
  'Ninth',
  'Tenth',
];

/** The dimension that is being read, and its place among those that the part needs. */
export function useTurn() {
  const { resolved, selected, select } = useBench('resolved', 'selected', 'select');
  const { needed, ledger } = resolved;
  const turn = dimensionInTurn(needed, selected, ledger.mates);
  // The dimension on the screen stays until the maker moves on, whatever is read or asked for meanwhile.
  const shown = turn?.dimension.id;
  const held =
    selected === shown || ledger.mates.some(m => m.mate.id === selected && m.dimension.id === shown);
  useEffect(() => {
    if (shown !== undefined && !held) select(shown);
  }, [shown, held, select]);
  const place = needed.findIndex(n => n.dimension.id === shown);
  const step = resolved.recipe.guide.find(g => g.key === turn?.dimension.guide);
  const done = needed.every(n => readEnough(n, n.dimension.critical ? CRITICAL_READINGS : 1));
  return {
    turn,
    place,
    needed,
    /** How it is held, in a picture and in words. */
    way: turn ? (step ?? holdFor(turn.dimension)) : null,
    done,
    following: needed[place + 1]?.dimension.label,
    /** Moves to a neighbouring dimension; false at the end of the list. */
    next(by: 1 | -1): boolean {
      const to = needed[place + by];
      if (!to) return false;
      select(to.dimension.id);
      return true;
    },
  };
}

/** The selected one, otherwise the first unread one, otherwise the first that wants another reading. */
function dimensionInTurn(
  needed: readonly DimensionState[],
  selected: string | null,
  mates: { mate: { id: string }; dimension: { id: string } }[],
): DimensionState | undefined {
  const ofMate = mates.find(m => m.mate.id === selected)?.dimension.id;
  return (
    needed.find(n => n.dimension.id === selected || n.dimension.id === ofMate) ??
    needed.find(n => !n.evaluation) ??
    needed.find(n => n.dimension.critical && !readEnough(n, CRITICAL_READINGS)) ??
    needed[0]
  );
}

/** Its place in the list, and how often it should be read. */
export function TurnLead({
  state: { dimension },
  place,
  of,
}: {
  state: DimensionState;
  place: number;
  of: number;
}) {
  const often = dimension.derived
    ? ', worked out from others.'
    : dimension.critical
      ? `, and the fit depends on it: three readings, ${dimension.kind === 'outside' || dimension.kind === 'inside' ? 'turned' : 'each set on again'}.`
      : '. Once is enough.';
  return (
    <Lead>
      {ORDINALS[place] ?? `Number ${place + 1}`} of {of}
      {often}
    </Lead>
  );
}
