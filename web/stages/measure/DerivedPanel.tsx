import { useState } from 'react';
import styled from 'styled-components';
import { inputsOf } from '../../../core/job/derived';
import { deriveKind } from '../../../core/measure/derive';
import { formatPercent } from '../../../core/quantity/format';
import type { DimensionState } from '../../../core/work/dimension';
import { valueWords } from '../../../core/work/show';
import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';
import { Notice, Panel, Row, Stack } from '../../ui/layout';
import { FONTS } from '../../ui/theme';
import { WorkOutDialog } from './WorkOutDialog';

/** A derived dimension: its formula with the numbers in it, and the sources of its uncertainty. */
export function DerivedPanel({ state }: { state: DimensionState }) {
  const { document, resolved, edit, select, unit } = useBench(
    'document',
    'resolved',
    'edit',
    'select',
    'unit',
  );
  const [changing, setChanging] = useState(false);
  const { dimension, evaluation, worked } = state;
  const derived = dimension.derived!;
  const inputs = inputsOf(derived, dimension, document)
    .map(id => resolved.dimensions.get(id)!)
    .filter(Boolean);
  const total = evaluation?.budget.reduce((sum, d) => sum + d.u ** 2, 0) ?? 0;
  return (
    <Panel>
      <Stack $gap={12}>
        <h2>Worked out</h2>
        {evaluation ? (
          <Value className="number" data-testid="worked-value">
            {valueWords(state, unit)}
          </Value>
        ) : null}
        <div>
          {derived.by === 'formula' ? <p className="soft">{deriveKind(derived.kind)?.title}</p> : null}
          {worked && 'text' in worked ? <Sum>{worked.text}</Sum> : null}
        </div>
        {worked && 'problem' in worked ? <Notice level="warn">{worked.problem}</Notice> : null}
        {evaluation && total > 0 ? (
          <div>
            <h2>Where its doubt comes from</h2>
            {evaluation.budget.map(d => (
              <Share key={d.name}>
                <span>{d.name}</span>
                <i style={{ width: `${(100 * d.u ** 2) / total}%` }} />
                <b>{formatPercent(d.u ** 2 / total)}</b>
              </Share>
            ))}
          </div>
        ) : null}
        {inputs.length > 0 ? (
          <div>
            <h2>Made from</h2>
            <Inputs>
              {inputs.map(i => (
                <Button key={i.dimension.id} $small $look="quiet" onPress={() => select(i.dimension.id)}>
                  {i.dimension.label} {valueWords(i, unit) || '(not read)'}
                </Button>
              ))}
            </Inputs>
          </div>
        ) : null}
        <Row $wrap $gap={8}>
          <Button $small onPress={() => setChanging(true)}>
            Change how
          </Button>
          <Button
            $small
            onPress={() => void edit({ kind: 'derive', dimensionId: dimension.id, derived: null })}
          >
            Read it instead
          </Button>
        </Row>
      </Stack>
      {changing ? (
        <WorkOutDialog
          dimension={dimension}
          onClose={() => setChanging(false)}
          onDone={next => {
            setChanging(false);
            if (next) select(next);
          }}
        />
      ) : null}
    </Panel>
  );
}

const Value = styled.p`font: 600 24px ${FONTS.number};`;
const Sum = styled.p`font: 15px ${FONTS.number}; overflow-wrap: anywhere;`;
const Inputs = styled.div`
  display: flex; flex-direction: column; align-items: flex-start;
  button { white-space: normal; text-align: left; justify-content: flex-start; padding: 3px 0; color: var(--blue); }
`;
const Share = styled.div`
  display: grid; grid-template-columns: minmax(0, 1fr) 90px 48px; gap: 8px; align-items: center; font-size: 14px; padding: 3px 0;
  i { height: 10px; background: var(--blue-2); border-radius: 2px; min-width: 2px; }
  b { font: 13px ${FONTS.number}; text-align: right; }
`;
