import styled from 'styled-components';
import { formatLength, formatPlain } from '../../../core/quantity/format';
import { nearStandard } from '../../../core/shelf/search';
import type { DimensionState } from '../../../core/work/dimension';
import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';
import { Notice } from '../../ui/layout';

const QUIET = new Set(['one-reading', 'few-readings', 'out-of-round', 'too-coarse']);

/** What the readings show, in sentences, and the standard items that match. */
export function ReadingAdvice({
  state,
  onShelf,
}: {
  state: DimensionState;
  onShelf?(question: string): void;
}) {
  const { document, edit, unit } = useBench('document', 'edit', 'unit');
  const { dimension, evaluation, jawShortfall, source } = state;
  // A thread is also named by its pitch, and in its own place.
  const ofThread = document.threads.some(t => t.diameter === dimension.id);
  const near =
    evaluation &&
    source !== 'said' &&
    !ofThread &&
    (dimension.kind === 'outside' || dimension.kind === 'inside')
      ? nearStandard(evaluation.value, evaluation.expandedUncertainty, dimension.kind)
      : [];
  return (
    <Advice>
      {(evaluation?.advice ?? []).map((a, i) => (
        <Notice key={i} level={QUIET.has(a.code) ? 'note' : 'warn'}>
          {a.message}
        </Notice>
      ))}
      {jawShortfall === null && !dimension.correctJaws ? null : (
        <Notice
          level="note"
          action={
            <Button
              $small
              onPress={() =>
                void edit({
                  kind: 'describe-dimension',
                  dimensionId: dimension.id,
                  correctJaws: !dimension.correctJaws,
                })
              }
            >
              {dimension.correctJaws ? 'Take as read' : 'Correct it'}
            </Button>
          }
        >
          {dimension.correctJaws
            ? 'Corrected for the flats of the inside jaws.'
            : `The flats of these inside jaws read a bore this small ${formatLength(jawShortfall!, unit)} ${unit} short.`}
        </Notice>
      )}
      {dimension.readings.some(r => r.source !== 'seat') &&
      !dimension.readings.some(r => r.source === 'seat') ? (
        <Notice level="note">
          Only {source === 'said' ? 'a label' : 'the old part'} was read. If you can reach the seat, read that
          {source === 'said' ? '.' : ': the old part already holds its maker’s clearance.'}
        </Notice>
      ) : null}
      {near.length > 0 ? (
        <Near>
          <span className="soft">Within its doubt of</span>
          {near.map(({ item, matched }) => (
            <Button
              key={item.id}
              $small
              $look="quiet"
              isDisabled={!onShelf}
              onPress={() => onShelf?.(item.name)}
            >
              {item.name}, {matched[0]!.size.label} {formatPlain(matched[0]!.size.value, 2)}
            </Button>
          ))}
        </Near>
      ) : null}
    </Advice>
  );
}

const Advice = styled.div`display: flex; flex-direction: column; gap: 6px; margin-top: 8px;`;
const Near = styled.div`
  display: flex; flex-wrap: wrap; align-items: baseline; gap: 2px 4px; font-size: 14px;
  button { min-height: 26px; padding: 0 6px; font-weight: 500; color: var(--blue); white-space: normal; text-align: left; }
`;
