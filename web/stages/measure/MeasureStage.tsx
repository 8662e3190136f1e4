import { useEffect, useMemo } from 'react';
import styled from 'styled-components';
import type { DimensionState } from '../../../core/job/dimensions';
import { neededDimensions } from '../../../core/job/resolve';
import { CRITICAL_READINGS } from '../../../core/measure/evaluate';
import { formatLength } from '../../../core/quantity/format';
import { DrawingView } from '../../drawing/DrawingView';
import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';
import { Empty, Lead, Panel } from '../../ui/layout';
import { HoldPicture } from './HoldPicture';
import { ReadingPanel } from './ReadingPanel';

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

/** One dimension in turn: the drawing shows where, the field takes the number. */
export function MeasureStage() {
  const { document, resolved, selected, select, unit, go } = useBench();
  const needed = neededDimensions(document, resolved);
  const turn = dimensionInTurn(needed, selected, resolved.ledger.mates);
  const measured = useMemo(() => {
    const sizes: Record<string, number> = {};
    for (const [id, state] of resolved.dimensions) if (state.evaluation) sizes[id] = state.evaluation.value;
    return sizes;
  }, [resolved.dimensions]);
  useEffect(() => {
    if (turn && selected === null) select(turn.dimension.id);
  }, [turn, selected, select]);
  if (!turn)
    return (
      <Empty title="Nothing to measure">
        This recipe asks for no dimension with the choices made on Shape.
      </Empty>
    );
  const place = needed.findIndex(n => n.dimension.id === turn.dimension.id);
  const step = resolved.recipe.guide.find(g => g.key === turn.dimension.guide);
  const next = (by: 1 | -1) => {
    const to = needed[place + by];
    if (!to) return false;
    select(to.dimension.id);
    return true;
  };
  const done = needed.every(
    n => n.evaluation && (!n.dimension.critical || n.counted.length >= CRITICAL_READINGS),
  );
  return (
    <>
      <h1>{turn.dimension.label}</h1>
      <Lead>
        {ORDINALS[place] ?? `Number ${place + 1}`} of {needed.length}
        {turn.dimension.critical
          ? ', and the fit depends on it: three readings, turned.'
          : '. Once is enough.'}
      </Lead>
      <Bench>
        <Left>
          <Panel style={{ padding: 0, overflow: 'hidden' }}>
            <DrawingView
              drawing={resolved.recipe.objectDrawing(measured, resolved.parameters)}
              valueFor={d => (measured[d.key] === undefined ? null : formatLength(measured[d.key]!, unit))}
              lit={turn.dimension.id}
              onPick={select}
              height={370}
              caption="Cut through the object; sizes with a ? are not read yet"
            />
          </Panel>
          <Foot>
            {step ? <HoldPicture hold={step.hold} /> : null}
            <div>
              <h3>How to hold it</h3>
              <p className="soft">{step?.how ?? 'Your own dimension: measure it the way you noted.'}</p>
            </div>
            {done ? (
              <Button onPress={() => go('fit')}>All read: say how it should fit</Button>
            ) : place + 1 < needed.length ? (
              <Button $look="quiet" onPress={() => next(1)}>
                Next: {needed[place + 1]!.dimension.label}
              </Button>
            ) : null}
          </Foot>
        </Left>
        <ReadingPanel key={turn.dimension.id} state={turn} onNext={next} />
      </Bench>
    </>
  );
}

/** The one that was picked, else the first that is not read, else the first that wants another reading. */
function dimensionInTurn(
  needed: DimensionState[],
  selected: string | null,
  mates: { mate: { id: string }; dimension: { id: string } }[],
): DimensionState | undefined {
  const ofMate = mates.find(m => m.mate.id === selected)?.dimension.id;
  return (
    needed.find(n => n.dimension.id === selected || n.dimension.id === ofMate) ??
    needed.find(n => !n.evaluation) ??
    needed.find(n => n.dimension.critical && n.counted.length < CRITICAL_READINGS) ??
    needed[0]
  );
}

const Bench = styled.div`
  display: grid; grid-template-columns: minmax(0, 1.45fr) minmax(290px, 1fr); gap: 14px; align-items: start;
  @media (max-width: 760px) { grid-template-columns: minmax(0, 1fr); > :last-child { order: -1; } }
`;
const Left = styled.div`min-width: 0;`;
const Foot = styled(Panel)`
  display: flex; align-items: center; gap: 16px; margin-top: 14px; flex-wrap: wrap;
  > div { flex: 1; min-width: 180px; }
`;
