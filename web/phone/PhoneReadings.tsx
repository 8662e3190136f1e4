import styled from 'styled-components';
import { formatLength } from '../../core/quantity/format';
import { useBench } from '../job/bench-context';
import { HoldPicture } from '../stages/measure/HoldPicture';
import { ReadingPanel } from '../stages/measure/ReadingPanel';
import { TurnLead, useTurn } from '../stages/measure/turn';
import { Button } from '../ui/controls';
import { Big, Empty, Notice, Panel, Row } from '../ui/layout';

/** One dimension at a time, beside the object. */
export function PhoneReadings() {
  const { unit } = useBench('unit');
  const { turn, way, place, needed, done, following, next } = useTurn();
  if (!turn || !way)
    return (
      <Empty title="Nothing to measure">
        This part asks for no dimension with the choices made on Shape.
      </Empty>
    );
  const { dimension, evaluation } = turn;
  return (
    <>
      <Row $between>
        <h1>{dimension.label}</h1>
        <Button $small $look="quiet" isDisabled={place === 0} onPress={() => next(-1)}>
          Back
        </Button>
      </Row>
      <TurnLead state={turn} place={place} of={needed.length} />
      {done ? (
        <div style={{ marginBottom: 12 }}>
          <Notice level="note">All read. How it should fit is said at the bench.</Notice>
        </div>
      ) : null}
      {dimension.derived ? (
        <Panel>
          {evaluation ? (
            <p>
              <Big>{formatLength(evaluation.value, unit)}</Big> {dimension.kind === 'angle' ? '°' : unit}
            </p>
          ) : (
            <p className="soft">It follows once the others are read.</p>
          )}
          {following ? <Button onPress={() => next(1)}>Next: {following}</Button> : null}
        </Panel>
      ) : (
        <>
          <How>
            <HoldPicture hold={way.hold} />
            <p>{way.how}</p>
          </How>
          <ReadingPanel key={dimension.id} state={turn} next={following} onNext={next} />
        </>
      )}
    </>
  );
}

const How = styled.div`
  display: flex; align-items: center; gap: 12px; margin: -4px 0 12px; font-size: 14.5px;
  svg { flex: none; width: 84px; height: auto; }
`;
