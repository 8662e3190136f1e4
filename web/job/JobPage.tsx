import { useCallback, useEffect, useState } from 'react';
import { Outlet, useNavigate, useParams, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { OnBench } from '../../contract/phone';
import { STAGES, type Stage } from '../../core/work/stages';
import { call } from '../api/client';
import { useStream } from '../api/events';
import { BenchContext } from './bench-context';
import { ConflictDialog } from './ConflictDialog';
import { JobStrip } from './JobStrip';
import { KeysDialog } from './KeysDialog';
import { Ledger } from './Ledger';
import { MessageLine, useMessage } from './MessageLine';
import { OpenJob } from './OpenJob';
import { PartBar } from './PartBar';
import { Spine } from './Spine';
import { type OpenJob as Open, useBenchOf } from './use-bench-of';
import { useJobKeys } from './use-job-keys';

/** Stages that show the ledger. */
const WITH_LEDGER: readonly Stage[] = ['measure', 'fit', 'shape', 'try'];

/** Stages on which the maker works on one part at a time. */
const WITH_PARTS: readonly Stage[] = ['measure', 'fit', 'shape', 'print', 'try'];

export default function JobPage() {
  const { jobId = '' } = useParams();
  useOnBench(jobId);
  return <OpenJob jobId={jobId}>{open => <JobBench {...open} />}</OpenJob>;
}

/** Phones open the job that this window last opened, or came back to. */
function useOnBench(jobId: string): void {
  useEffect(() => {
    // If this fails, phones use the job that was last worked on: nothing here depends on it.
    const tell = () => void call('PUT', '/on-bench', OnBench, { jobId }).catch(() => undefined);
    tell();
    addEventListener('focus', tell);
    return () => removeEventListener('focus', tell);
  }, [jobId]);
}

function JobBench(open: Open) {
  const { session, state, document } = open;
  const navigate = useNavigate();
  const { stage: at } = useParams();
  const stage = STAGES.find(s => s === at) ?? 'brief';
  const base = state.base!;
  const { message, say, clear } = useMessage();
  const [keysOpen, setKeysOpen] = useState(false);
  const [ledgerOpen, setLedgerOpen] = useState(false);
  const [query, setQuery] = useSearchParams();
  const several = document.parts.length > 1;
  const onPart = useCallback((part: string) => setQuery({ part }), [setQuery]);
  const onGo = useCallback(
    (to: Stage, key: string | undefined, part: string) =>
      void navigate(
        { pathname: `/jobs/${base.id}/${to}`, search: several ? `?part=${part}` : '' },
        { state: { leadTo: key } },
      ),
    [navigate, base.id, several],
  );
  const { bench, store } = useBenchOf(open, { asked: query.get('part'), onPart, onGo, say });
  const { go, unit, setUnit } = bench;
  const partId = bench.resolved.part.id;
  useStream(event => {
    if (event.kind === 'photo' && event.jobId === base.id) say(`A photo came from ${event.from}.`, 'news');
  });
  const revert = useCallback(
    (role: 'undo' | 'redo') => session.undo(role).catch((error: Error) => say(error.message, 'stop')),
    [session, say],
  );
  const onUndo = useCallback((role: 'undo' | 'redo') => void revert(role), [revert]);
  const toggleLedger = useCallback(() => setLedgerOpen(now => !now), []);
  const closeLedger = useCallback(() => setLedgerOpen(false), []);
  const showKeys = useCallback(() => setKeysOpen(true), []);
  useJobKeys({
    go,
    undo: () => void revert('undo'),
    redo: () => void revert('redo'),
    keys: showKeys,
    unit: () => setUnit(unit === 'mm' ? 'in' : 'mm'),
  });
  useEffect(() => {
    window.document.title = `${base.number} · ${document.title} – Sagoma`;
  }, [base.number, document.title]);
  const withLedger = WITH_LEDGER.includes(stage);
  return (
    <BenchContext value={store}>
      <JobStrip onUndo={onUndo} onLedger={withLedger ? toggleLedger : undefined} />
      <Main $ledger={withLedger}>
        <Spine stage={stage} onKeys={showKeys} />
        <BenchTop>
          {WITH_PARTS.includes(stage) ? <PartBar onShape={stage === 'shape'} /> : null}
          <Outlet key={several ? partId : undefined} />
        </BenchTop>
        {withLedger ? <Ledger open={ledgerOpen} onClose={closeLedger} /> : null}
      </Main>
      <MessageLine message={message} onClose={clear} />
      <ConflictDialog />
      <KeysDialog isOpen={keysOpen} onClose={() => setKeysOpen(false)} />
    </BenchContext>
  );
}

const Main = styled.div<{ $ledger: boolean }>`
  display: grid; grid-template-columns: 88px minmax(0, 1fr) ${p => (p.$ledger ? '360px' : '')}; height: calc(100vh - 56px);
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); grid-template-rows: auto minmax(0, 1fr); height: calc(100vh - 56px); }
`;
const BenchTop = styled.main`
  padding: 18px 24px 28px; overflow: auto; min-width: 0;
  /* What is reached by keys is not put under views that stay in sight. */
  @media (min-width: 1101px) and (min-height: 700px) { &:has([data-stays]) { scroll-padding-top: min(360px, 48vh); } }
  /* What is hidden from view but not from readers stays inside: else it would stretch the page itself. */
  position: relative;
  @media (max-width: 900px) { padding: 14px 14px 90px; }
`;
