import { createContext, useContext } from 'react';
import type { JobAnswer } from '../../contract/jobs';
import type { JobDocument } from '../../core/job/document';
import type { Edit } from '../../core/job/edits';
import type { Workshop } from '../../core/job/workshop';
import type { Expression } from '../../core/quantity/expression';
import type { DisplayUnit } from '../../core/quantity/format';
import type { Overview } from '../../core/work/overview';
import type { Stage } from '../../core/work/stages';
import type { PartWork, Work } from '../../core/work/work';
import type { JobSession, SessionState } from '../api/job-session';

/** What every stage of a job works on. */
export interface Bench {
  session: JobSession;
  state: SessionState;
  job: JobAnswer;
  /** With what is on its way and what is being typed. */
  document: JobDocument;
  workshop: Workshop;
  /** The whole job worked out. */
  work: Work;
  /** The part that is worked on. */
  resolved: PartWork;
  setPart(id: string): void;
  overview: Overview;
  /** A dimension's or a mate's id: lit in ledger, drawing and solid. */
  selected: string | null;
  select(id: string | null): void;
  /** Parameters being typed, not yet an edit. */
  draft(name: string, expression: Expression | null): void;
  /** Sends an edit; what is refused is said in the page's message line. */
  edit(edit: Edit): Promise<boolean>;
  say(message: string, level?: 'note' | 'stop'): void;
  unit: DisplayUnit;
  setUnit(unit: DisplayUnit): void;
  go(stage: Stage, key?: string): void;
}

export const BenchContext = createContext<Bench | null>(null);

export function useBench(): Bench {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error('This belongs inside a job.');
  return bench;
}
