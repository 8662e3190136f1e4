import { createContext, useContext } from 'react';
import { createStore, type StoreApi, useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import type { JobAnswer } from '../../contract/jobs';
import type { JobDocument } from '../../core/job/document';
import type { Edit } from '../../core/job/edits';
import type { Workshop } from '../../core/job/workshop';
import type { Expression } from '../../core/quantity/expression';
import type { DisplayUnit } from '../../core/quantity/format';
import type { Overview } from '../../core/work/overview';
import type { PartWork } from '../../core/work/part-work';
import type { Stage } from '../../core/work/stages';
import type { Work } from '../../core/work/work';
import type { JobSession, SessionState } from '../api/job-session';

/** What every stage of a job works with. */
export interface Bench {
  session: JobSession;
  state: SessionState;
  job: JobAnswer;
  /** With pending edits and numbers being typed. */
  document: JobDocument;
  workshop: Workshop;
  /** The whole job worked out. */
  work: Work;
  /** The part that is worked on. */
  resolved: PartWork;
  setPart(id: string): void;
  overview: Overview;
  /** A dimension's or a mate's id: highlighted in ledger, drawing and solid. */
  selected: string | null;
  select(id: string | null): void;
  /** Parameters being typed, not edits yet. */
  draft(name: string, expression: Expression | null): void;
  /** Sends an edit; a refusal appears in the page's message line. */
  edit(edit: Edit): Promise<boolean>;
  say(message: string, level?: 'note' | 'stop'): void;
  unit: DisplayUnit;
  setUnit(unit: DisplayUnit): void;
  go(stage: Stage, key?: string): void;
}

export type BenchStore = StoreApi<Bench>;
export const createBench = (bench: Bench): BenchStore => createStore(() => bench);

export const BenchContext = createContext<BenchStore | null>(null);

function useBenchStore(): BenchStore {
  const store = useContext(BenchContext);
  if (!store) throw new Error('This belongs inside a job.');
  return store;
}

/** The things with these names; a component renders again only when one of them has changed. */
export function useBench<K extends keyof Bench>(...names: readonly K[]): Pick<Bench, K> {
  const pick = (bench: Bench) => Object.fromEntries(names.map(name => [name, bench[name]])) as Pick<Bench, K>;
  return useStore(useBenchStore(), useShallow(pick));
}

/** One value derived from the bench; a component renders again only when it has changed, member by member. */
export const useBenchValue = <T>(select: (bench: Bench) => T): T =>
  useStore(useBenchStore(), useShallow(select));
