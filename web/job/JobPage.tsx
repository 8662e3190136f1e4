import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useLayoutEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { Outlet, useNavigate, useParams, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { WorkshopAnswer } from '../../contract/workshop';
import type { JobDocument } from '../../core/job/document';
import type { Edit } from '../../core/job/edits';
import type { Workshop } from '../../core/job/workshop';
import type { Evidence } from '../../core/learn/lessons';
import type { Expression } from '../../core/quantity/expression';
import type { DisplayUnit } from '../../core/quantity/format';
import { STAGES, type Stage } from '../../core/work/stages';
import { Work } from '../../core/work/work';
import { get } from '../api/client';
import { JobSession, type SessionState } from '../api/job-session';
import { useLessons } from '../api/use-lessons';
import { Failure, Loading } from '../ui/layout';
import { type Bench, BenchContext, createBench } from './bench-context';
import { ConflictDialog } from './ConflictDialog';
import { JobStrip } from './JobStrip';
import { KeysDialog } from './KeysDialog';
import { Ledger } from './Ledger';
import { type Message, MessageLine } from './MessageLine';
import { PartBar } from './PartBar';
import { Spine } from './Spine';
import { useJobKeys } from './use-job-keys';

/** Stages that show the ledger. */
const WITH_LEDGER: readonly Stage[] = ['measure', 'fit', 'shape', 'try'];

/** Stages on which one part at a time is worked on. */
const WITH_PARTS: readonly Stage[] = ['measure', 'fit', 'shape', 'print', 'try'];

export default function JobPage() {
  const { jobId = '' } = useParams();
  const workshop = useQuery({ queryKey: ['workshop'], queryFn: () => get('/workshop', WorkshopAnswer) });
  const lessons = useLessons(jobId);
  if (workshop.error) return <Failure error={workshop.error} retry={() => void workshop.refetch()} />;
  if (!workshop.data || lessons === null) return <Loading what="Opening the workshop" />;
  return <JobWithWorkshop key={jobId} jobId={jobId} workshop={workshop.data.workshop} lessons={lessons} />;
}

interface WithWorkshop {
  jobId: string;
  workshop: Workshop;
  /** What other jobs taught. */
  lessons: readonly Evidence[];
}

function JobWithWorkshop({ jobId, workshop, lessons }: WithWorkshop) {
  const [session] = useState(() => new JobSession(jobId, workshop));
  const state = useSyncExternalStore(session.watch, session.read);
  useEffect(() => session.start(), [session]);
  useEffect(() => session.setWorkshop(workshop), [session, workshop]);
  if (state.failure) return <Failure error={state.failure} retry={() => void session.refresh()} />;
  if (!state.base || !state.document)
    return <Loading what={state.offline ? 'Waiting for the server' : 'Opening the job'} />;
  return (
    <JobBench
      session={session}
      state={state}
      workshop={workshop}
      lessons={lessons}
      document={state.document}
    />
  );
}

interface BenchProps {
  session: JobSession;
  state: SessionState;
  workshop: Workshop;
  lessons: readonly Evidence[];
  document: JobDocument;
}

function JobBench({ session, state, workshop, lessons, document }: BenchProps) {
  const navigate = useNavigate();
  const { stage: at } = useParams();
  const stage = STAGES.find(s => s === at) ?? 'brief';
  const base = state.base!;
  const [drafts, setDrafts] = useState<Record<string, Expression>>({});
  const [selected, select] = useState<string | null>(null);
  const [message, setMessage] = useState<Message | null>(null);
  const [unit, setUnit] = useState<DisplayUnit>(workshop.unit);
  const [keysOpen, setKeysOpen] = useState(false);
  const [ledgerOpen, setLedgerOpen] = useState(false);

  const [query, setQuery] = useSearchParams();
  const [work] = useState(() => Work.of({ id: base.id, document, history: base.history }, workshop, lessons));
  const saved = useMemo(
    () => work.with({ document, workshop, history: base.history, lessons }),
    [work, document, workshop, base.history, lessons],
  );
  const [open, setOpen] = useState(() => saved.chosen(query.get('part')).part.id);
  // Chosen once: the part that waits most may be another one after every edit.
  const partId = saved.chosen(query.get('part') ?? open).part.id;
  const several = document.parts.length > 1;
  const shown = useMemo(
    () => saved.with({ document: withDrafts(document, partId, drafts) }),
    [saved, document, partId, drafts],
  );
  const resolved = shown.part(partId);
  const { overview } = resolved;

  const say = useCallback(
    (words: string, level: Message['level'] = 'note') => setMessage({ words, level, at: Date.now() }),
    [],
  );
  useEffect(() => {
    session.onRefused = error => say(error.message, 'stop');
  }, [session, say]);
  const edit = useCallback(
    async (next: Edit) => {
      try {
        await session.edit(next);
        return true;
      } catch (error) {
        say((error as Error).message, 'stop');
        return false;
      }
    },
    [session, say],
  );
  const go = useCallback(
    (to: Stage, key?: string) => {
      if (key) select(key);
      void navigate(
        { pathname: `/jobs/${base.id}/${to}`, search: several ? `?part=${partId}` : '' },
        { state: { leadTo: key } },
      );
    },
    [navigate, base.id, several, partId],
  );
  const draft = useCallback((name: string, expression: Expression | null) => {
    setDrafts(now => {
      const { [name]: _, ...rest } = now;
      return expression ? { ...rest, [name]: expression } : rest;
    });
  }, []);
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
    unit: () => setUnit(u => (u === 'mm' ? 'in' : 'mm')),
  });
  useEffect(() => {
    window.document.title = `${base.number} · ${document.title} – Sagoma`;
  }, [base.number, document.title]);
  useEffect(() => {
    // Unsaved edits survive a reload; closing for good would still lose them while the server is away.
    const warn = (event: BeforeUnloadEvent) => session.read().pending.length > 0 && event.preventDefault();
    addEventListener('beforeunload', warn);
    return () => removeEventListener('beforeunload', warn);
  }, [session]);

  const setPart = useCallback(
    (id: string) => {
      setDrafts({});
      select(null);
      setOpen(id);
      setQuery({ part: id });
    },
    [setQuery],
  );
  const bench: Bench = {
    session,
    state,
    job: base,
    document: shown.document,
    work: shown,
    workshop,
    resolved,
    setPart,
    overview,
    selected,
    select,
    draft,
    edit,
    say,
    unit,
    setUnit,
    go,
  };
  const [store] = useState(() => createBench(bench));
  // Before anybody below looks: they are drawn from the store.
  useLayoutEffect(() => store.setState(bench));
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
      <MessageLine message={message} onClose={() => setMessage(null)} />
      <ConflictDialog />
      <KeysDialog isOpen={keysOpen} onClose={() => setKeysOpen(false)} />
    </BenchContext>
  );
}

function withDrafts(document: JobDocument, partId: string, drafts: Record<string, Expression>): JobDocument {
  if (Object.keys(drafts).length === 0) return document;
  return {
    ...document,
    parts: document.parts.map(p =>
      p.id === partId ? { ...p, parameters: { ...p.parameters, ...drafts } } : p,
    ),
  };
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
