import { useCallback, useEffect, useLayoutEffect, useMemo, useState } from 'react';
import type { JobDocument } from '../../core/job/document';
import type { Edit } from '../../core/job/edits';
import type { Workshop } from '../../core/job/workshop';
import type { Evidence } from '../../core/learn/lessons';
import type { Expression } from '../../core/quantity/expression';
import type { DisplayUnit } from '../../core/quantity/format';
import type { Stage } from '../../core/work/stages';
import { Work } from '../../core/work/work';
import type { JobSession, SessionState } from '../api/job-session';
import { type Bench, type BenchStore, createBench } from './bench-context';

export interface OpenJob {
  session: JobSession;
  state: SessionState;
  workshop: Workshop;
  lessons: readonly Evidence[];
  document: JobDocument;
}

interface Around {
  /** The part named in the address. */
  asked: string | null;
  onPart(id: string): void;
  onGo(to: Stage, key: string | undefined, partId: string): void;
  say: Bench['say'];
}

/** What the pages of an open job work with, on a large screen and on a phone. */
export function useBenchOf(
  { session, state, workshop, lessons, document }: OpenJob,
  { asked, onPart, onGo, say }: Around,
): { bench: Bench; store: BenchStore } {
  const base = state.base!;
  const [drafts, setDrafts] = useState<Record<string, Expression>>({});
  const [selected, select] = useState<string | null>(null);
  const [unit, setUnit] = useState<DisplayUnit>(workshop.unit);
  const [work] = useState(() => Work.of({ id: base.id, document, history: base.history }, workshop, lessons));
  const saved = useMemo(
    () => work.with({ document, workshop, history: base.history, lessons }),
    [work, document, workshop, base.history, lessons],
  );
  const [open, setOpen] = useState(() => saved.chosen(asked).part.id);
  // Chosen once: the most urgent part may be another one after every edit.
  const partId = saved.chosen(asked ?? open).part.id;
  const shown = useMemo(
    () => saved.with({ document: withDrafts(document, partId, drafts) }),
    [saved, document, partId, drafts],
  );
  const resolved = shown.part(partId);
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
      onGo(to, key, partId);
    },
    [onGo, partId],
  );
  const draft = useCallback((name: string, expression: Expression | null) => {
    setDrafts(now => {
      const { [name]: _, ...rest } = now;
      return expression ? { ...rest, [name]: expression } : rest;
    });
  }, []);
  const setPart = useCallback(
    (id: string) => {
      setDrafts({});
      select(null);
      setOpen(id);
      onPart(id);
    },
    [onPart],
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
    overview: resolved.overview,
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
  // Before the children render: they read from the store.
  useLayoutEffect(() => store.setState(bench));
  return { bench, store };
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
