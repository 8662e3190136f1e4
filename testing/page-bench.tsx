import { render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import type { JobAnswer } from '../contract/jobs';
import type { JobDocument } from '../core/job/document';
import { applyEdit, type Edit } from '../core/job/edits';
import { emptyHistory, type History, type HistoryRow, withRow } from '../core/job/history';
import { newJob } from '../core/job/new-job';
import { FIRST_WORKSHOP } from '../core/job/workshop';
import { requireRecipe } from '../core/shape/recipes';
import { Work } from '../core/work/work';
import type { JobSession } from '../web/api/job-session';
import { type Bench, BenchContext, createBench } from '../web/job/bench-context';
import { readEdit } from './read-edit';
import { aPrint, aVersion } from './rows';

/**
 * For tests of one component: a bench with a job that its edits really change, without a server. `refuse` makes the
 * next edit fail with these words.
 */
export class PageBench {
  readonly edits: Edit[] = [];
  readonly appended: { list: string; body: unknown }[] = [];
  readonly said: string[] = [];
  refuse: string | null = null;
  private document: JobDocument;
  private history: History = emptyHistory();
  private selected: string | null = null;
  private readonly store = createBench({} as Bench);

  constructor(edits: readonly Edit[] = [], recipe = 'round-cap') {
    this.document = edits.reduce(
      (job, edit) => applyEdit(job, edit, FIRST_WORKSHOP),
      newJob('Cap', requireRecipe(recipe), FIRST_WORKSHOP),
    );
    this.settle();
  }

  get job(): JobDocument {
    return this.document;
  }

  get part() {
    return new Work(this.document, FIRST_WORKSHOP, this.history).part('part-1');
  }

  /** Something that happened, as if the server had recorded it. */
  happen(row: HistoryRow): this {
    this.history = withRow(this.history, row);
    this.settle();
    return this;
  }

  /** As if a dimension or a mate had been selected in the ledger. */
  pick(id: string): void {
    this.selected = id;
    this.settle();
  }

  show(what: ReactNode) {
    return render(
      <MemoryRouter>
        <BenchContext value={this.store}>{what}</BenchContext>
      </MemoryRouter>,
    );
  }

  private append: JobSession['append'] = async (list, make) => {
    if (this.refuse) throw new Error(this.refuse);
    this.appended.push({ list, body: make(1) });
    return { revision: 2, updatedAt: '', changes: [], added: [], voided: null, undo: null, redo: null };
  };

  private settle() {
    const { document, history, selected } = this;
    const work = new Work(document, FIRST_WORKSHOP, history);
    const resolved = work.part(document.parts[0]!.id);
    const job: JobAnswer = {
      id: 'job',
      number: 1,
      revision: 1,
      createdAt: '',
      updatedAt: '',
      document,
      history,
      undo: null,
      redo: null,
    };
    const bench: Omit<Bench, 'session'> & { session: Pick<JobSession, 'append'> } = {
      session: { append: this.append },
      state: {
        base: job,
        document,
        pending: [],
        offline: false,
        trouble: null,
        conflict: null,
        failure: null,
      },
      job,
      document,
      workshop: FIRST_WORKSHOP,
      work,
      resolved,
      overview: resolved.overview,
      selected,
      unit: 'mm',
      setPart: () => {},
      setUnit: () => {},
      draft: () => {},
      go: () => {},
      select: id => {
        this.selected = id;
        this.settle();
      },
      say: words => this.said.push(words),
      edit: async edit => {
        if (this.refuse) {
          this.said.push(this.refuse);
          return false;
        }
        this.edits.push(edit);
        this.document = applyEdit(this.document, edit, FIRST_WORKSHOP);
        this.settle();
        return true;
      },
    };
    this.store.setState(bench as Bench);
  }
}

const AT = '2026-01-01T00:00:00.000Z';

/** For tests: a cap of which version 1 was printed. */
export function printed(): PageBench {
  const bench = new PageBench([31.7, 31.72].map(value => readEdit('rim', value)));
  const [mate] = bench.part.ledger.mates;
  const version = aVersion({
    id: 'v1',
    at: AT,
    printerId: null,
    materialId: null,
    mates: [
      {
        mateId: mate!.mate.id,
        surface: mate!.mate.ours.surface,
        want: mate!.mate.want,
        reading: mate!.reading,
        model: mate!.model,
        pRight: mate!.pRight,
        ledger: [],
        prior: { mean: 0, sd: 0.1 },
      },
    ],
    pAllRight: 0.7,
  });
  const print = aPrint({ id: 'p1', at: AT, versionId: 'v1', hours: null, grams: null, cost: null });
  return bench.happen({ kind: 'version', row: version }).happen({ kind: 'print', row: print });
}
