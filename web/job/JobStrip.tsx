import { PanelRightOpen, Redo2, Undo2 } from 'lucide-react';
import { memo } from 'react';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { formatPlain } from '../../core/quantity/format';
import { Button, Hinted, IconButton } from '../ui/controls';
import { VerdictMark } from '../ui/layout';
import { FONTS } from '../ui/theme';
import { useBench } from './bench-context';

interface Props {
  onUndo(role: 'undo' | 'redo'): void;
  /** Opens the ledger where it is a drawer. */
  onLedger?: () => void;
}

/** Tag, state in words, prints as marks, what it cost, and the one next step with its reason. */
export const JobStrip = memo(function JobStrip({ onUndo, onLedger }: Props) {
  const { job, document, overview, workshop, state, go } = useBench(
    'job',
    'document',
    'overview',
    'workshop',
    'state',
    'go',
  );
  const { next } = overview;
  const waiting = state.pending.length > 0;
  const { stage } = useParams();
  const takeStep = () => {
    go(next.stage, next.key);
    // Already on that stage: show where on the page it is done.
    if (stage === next.stage) requestAnimationFrame(showWhere);
  };
  return (
    <Strip>
      <Tag to="/" title={`${document.title}. Back to the rack.`}>
        <i />
        <span>
          <b>
            {job.number} · {document.title}
          </b>
          <small>{document.object.name || 'object not named yet'}</small>
        </span>
      </Tag>
      <State title={overview.state}>
        <b>{overview.state}</b>
        <small>{overview.detail}</small>
      </State>
      {overview.marks.length > 0 ? (
        <Marks>
          {overview.marks.slice(-5).map((mark, i) => (
            <span key={i}>
              <VerdictMark mark={mark.verdict} label={`${mark.words}: ${mark.verdict ?? 'not tried yet'}`} />
              <small>v{mark.version}</small>
            </span>
          ))}
        </Marks>
      ) : null}
      {overview.prints > 0 ? (
        <Totals>
          <span className="number">{formatPlain(overview.hours, 1)}</span> h ·{' '}
          <span className="number">{overview.cost.toFixed(2)}</span> {workshop.currency}
        </Totals>
      ) : null}
      <Tools>
        <Hinted hint={job.undo ? `Undo: ${job.undo.words}` : 'Nothing of yours to undo'}>
          <IconButton aria-label="Undo" isDisabled={!job.undo || waiting} onPress={() => onUndo('undo')}>
            <Undo2 size={18} />
          </IconButton>
        </Hinted>
        <Hinted hint={job.redo ? `Do again: ${job.redo.words}` : 'Nothing to do again'}>
          <IconButton aria-label="Do again" isDisabled={!job.redo || waiting} onPress={() => onUndo('redo')}>
            <Redo2 size={18} />
          </IconButton>
        </Hinted>
        {onLedger ? (
          <LedgerKey aria-label="Ledger" onPress={onLedger}>
            <PanelRightOpen size={18} />
          </LedgerKey>
        ) : null}
      </Tools>
      <Next>
        <p>{next.reason}</p>
        <Button $look="main" onPress={() => takeStep()}>
          {next.action}
        </Button>
      </Next>
    </Strip>
  );
});

/** Each page marks the control that does the next step. */
function showWhere(): void {
  const place = document.querySelector<HTMLElement>('[data-next]');
  place?.scrollIntoView({ block: 'center' });
  place?.focus();
}

const Strip = styled.header`
  height: 56px; display: flex; align-items: center; background: var(--sheet); border-bottom: 1px solid var(--rule); padding-right: 16px;
  @media (max-width: 500px) { padding-right: 6px; }
  small { display: block; font-size: 13px; line-height: 1.15; }
`;
const Tag = styled(Link)`
  height: 56px; display: flex; align-items: center; gap: 12px; padding: 0 30px 0 18px; background: var(--blue); color: var(--on-blue);
  text-decoration: none; clip-path: polygon(0 0, calc(100% - 16px) 0, 100% 50%, calc(100% - 16px) 100%, 0 100%); flex: 0 1 auto; min-width: 130px; max-width: 300px;
  i { width: 12px; height: 12px; border-radius: 50%; background: var(--paper); flex: none; }
  span { min-width: 0; }
  b { font: 600 18px/1.15 ${FONTS.label}; display: block; }
  b, small { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
  small { opacity: 0.88; }
  &:focus-visible { outline-color: var(--on-blue); outline-offset: -5px; }
  @media (max-width: 500px) { min-width: 76px; padding: 0 20px 0 10px; gap: 7px; }
`;
const State = styled.div`
  margin-left: 14px; color: var(--soft); min-width: 0; flex: 0 2 auto;
  b { display: block; color: var(--ink); font-size: 15px; font-weight: 600; line-height: 1.2; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
  small { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
  @media (max-width: 1100px) { display: none; }
`;
const Marks = styled.div`
  display: flex; gap: 10px; margin-left: 18px; flex: none;
  span { display: flex; flex-direction: column; align-items: center; gap: 2px; }
  small { font-size: 11.5px; color: var(--soft); }
  @media (max-width: 1100px) { display: none; }
`;
const Totals = styled.div`
  margin-left: 16px; font-size: 13px; color: var(--soft); white-space: nowrap; flex: none;
  .number { color: var(--ink); font-size: 14px; }
  @media (max-width: 1240px) { display: none; }
`;
const Tools = styled.div`display: flex; margin-left: auto; padding-left: 8px; flex: none;`;
const LedgerKey = styled(IconButton)`@media (min-width: 901px) { display: none; }`;
const Next = styled.div`
  display: flex; align-items: center; gap: 12px; margin-left: 6px; flex: 0 1 auto; min-width: 0;
  p { font-size: 13px; color: var(--soft); text-align: right; line-height: 1.2; max-width: 220px; max-height: 47px; overflow: hidden; }
  button { flex: none; max-width: 250px; white-space: normal; line-height: 1.15; padding: 4px 14px; }
  @media (max-width: 900px) { p { display: none; } button { flex: 0 1 auto; min-width: 70px; max-width: 150px; font-size: 13.5px; padding: 2px 8px; } }
  @media (max-width: 500px) { margin-left: 0; }
`;
