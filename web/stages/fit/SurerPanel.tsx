import { useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { counting } from '../../../core/job/history';
import { formatPercent, formatPlain } from '../../../core/quantity/format';
import type { MateLedger } from '../../../core/work/ledger';
import { type Surer, waysForMate } from '../../../core/work/surer';
import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';
import { startCalibration } from '../../workshop/calibration/start';

/** What would make the first print surer, the cheapest first. */
export function SurerPanel({ ledger }: { ledger: MateLedger }) {
  const { resolved, workshop, session, say, select, go } = useBench(
    'resolved',
    'workshop',
    'session',
    'say',
    'select',
    'go',
  );
  const navigate = useNavigate();
  const client = useQueryClient();
  const ways = useMemo(() => waysForMate(ledger, resolved, workshop), [ledger, resolved, workshop]);
  const waiting = counting(resolved.history).ladders.some(l => l.mateId === ledger.mate.id);
  const open = ways.filter(w => w.what !== 'ladder' || !waiting);
  if (open.length === 0) return null;
  const follow = (what: Surer['what']) => {
    if (what === 'calibrate')
      void startCalibration(client, resolved.printer, resolved.material.id)
        .then(page => navigate(page))
        .catch((error: Error) => say(error.message, 'stop'));
    else if (what === 'ladder')
      void session
        .append('ladders', () => ({ mateId: ledger.mate.id, partId: resolved.part.id }))
        .catch((error: Error) => say(error.message, 'stop'));
    else {
      select(ledger.dimension.id);
      go('measure', ledger.dimension.id);
    }
  };
  return (
    <>
      <h3>To be surer before the first print</h3>
      <Ways>
        {open.map(way => (
          <li key={way.what}>
            <span>
              <b>{formatPercent(way.pRight)}</b> if you {way.words}:{' '}
              {way.minutes < 5 ? 'a minute or two' : `about ${formatPlain(way.minutes, 0)} minutes`}.
            </span>
            <Button $small onPress={() => follow(way.what)}>
              {way.what === 'calibrate'
                ? 'Calibrate'
                : way.what === 'ladder'
                  ? 'Make a ladder'
                  : `Read “${ledger.dimension.label}” twice more`}
            </Button>
          </li>
        ))}
      </Ways>
    </>
  );
}

const Ways = styled.ul`
  list-style: none; margin: 4px 0 0; padding: 0;
  li { display: flex; justify-content: space-between; gap: 14px; align-items: center; border-top: 1px solid var(--rule); padding: 7px 0; }
`;
