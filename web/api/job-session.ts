import PQueue from 'p-queue';
import { type Conflict, JobAnswer, JobChange } from '../../contract/jobs';
import { applyChanges, same } from '../../core/job/changes';
import type { JobDocument } from '../../core/job/document';
import { applyEdit, type Edit, editKind, isThere } from '../../core/job/edits';
import type { HistoryRow } from '../../core/job/history';
import { withRow, withVoided } from '../../core/job/history';
import type { Workshop } from '../../core/job/workshop';
import { get, post, ServerSaid, tabId, Unreachable } from './client';
import { stream } from './events';

/** An edit that is not acknowledged yet, and the document with it and all edits before it. */
interface Pending {
  edit: Edit;
  document: JobDocument;
}

export interface SessionState {
  /** The server's state; null until loaded. */
  base: JobAnswer | null;
  /** The server's document with the pending edits applied. */
  document: JobDocument | null;
  /** Edits the server has not acknowledged yet. */
  pending: readonly Edit[];
  /** The server cannot be reached, or cannot store anything; pending edits are kept and sent again. */
  offline: boolean;
  /** Why it cannot store anything, where it answers. */
  trouble: string | null;
  /** Another window was faster; the maker decides. */
  conflict: (Conflict & { edit: Edit }) | null;
  /** Loading failed permanently. */
  failure: Error | null;
}

/** The server is asked again after this time, ms. */
const RETRY = 1500;

/** The edit is not at fault: the passphrase is needed again, too many requests, the disk is full or read-only. */
const FOR_NOW: ReadonlySet<number> = new Set([401, 503, 507]);

const NOT_SAVED = 'An edit is not saved yet: settle that first.';

/**
 * A job in this window. Edits show at once; they, undo, and appended rows go to the server through one queue, each on
 * the revision that the previous one made, so that nothing overtakes anything. An edit waits in the queue until it is
 * acknowledged or refused; unacknowledged edits survive a reload of the window.
 */
export class JobSession {
  private state: SessionState = {
    base: null,
    document: null,
    pending: [],
    offline: false,
    trouble: null,
    conflict: null,
    failure: null,
  };
  private waiting: Pending[] = [];
  private readonly watchers = new Set<() => void>();
  private readonly queue = new PQueue({ concurrency: 1 });
  /** Rejects what waits behind an edit that cannot be saved for now. */
  private behind = new AbortController();
  /** The first pending edit was sent without an answer: it may have been saved all the same. */
  private unsure = false;
  private decide: ((mine: boolean) => void) | undefined;
  private stop: (() => void) | undefined;

  constructor(
    readonly jobId: string,
    private workshop: Workshop,
  ) {
    const kept = sessionStorage.getItem(this.key);
    if (!kept) return;
    this.state = { ...this.state, pending: JSON.parse(kept) as Edit[] };
    this.unsure = true;
  }

  private get key() {
    return `sagoma.pending.${this.jobId}`;
  }

  start = () => {
    this.stop = stream.listen(event => {
      if (
        event.kind === 'back' ||
        (event.kind === 'job' && event.jobId === this.jobId && event.tab !== tabId)
      )
        void this.refresh();
    });
    void this.refresh().then(() => {
      for (const _ of this.waiting) void this.queue.add(() => this.deliver());
    });
    return () => this.stop?.();
  };

  watch = (watcher: () => void) => {
    this.watchers.add(watcher);
    return () => this.watchers.delete(watcher);
  };
  read = () => this.state;

  setWorkshop(workshop: Workshop): void {
    this.workshop = workshop;
  }

  /** Fetches the job again, after everything in the queue; resolves when it is there. */
  refresh = (): Promise<void> => this.queue.add(() => this.load());

  private async load(): Promise<void> {
    for (;;) {
      try {
        const base = await get(`/jobs/${this.jobId}`, JobAnswer);
        // An answer that was overtaken is outdated.
        if (!this.state.base || base.revision >= this.state.base.revision) this.take(base);
        this.set({ failure: null, offline: false, trouble: null });
        return;
      } catch (error) {
        if (!(error instanceof Unreachable)) {
          if (!this.state.base) this.set({ failure: error as Error });
          return;
        }
        this.goOffline();
        await new Promise(done => setTimeout(done, RETRY));
      }
    }
  }

  /** Shows the edit at once and sends it; rejects with the core's own words when it makes no sense. */
  edit(edit: Edit): Promise<void> {
    const before = this.state.document;
    if (!before) return Promise.reject(new Error('The job is not loaded yet.'));
    let document: JobDocument;
    try {
      document = applyEdit(before, edit, this.workshop);
    } catch (error) {
      return Promise.reject(plain(error));
    }
    if (same(document, before)) return Promise.resolve();
    this.waiting.push({ edit, document });
    this.show();
    void this.queue.add(() => this.deliver());
    return Promise.resolve();
  }

  /** Undo or redo, once every earlier edit is saved. Rejects where one of them cannot be saved for now. */
  undo(role: 'undo' | 'redo'): Promise<void> {
    return this.inTurn(async () => {
      const target = this.state.base?.[role];
      if (!target) return;
      const path = `/jobs/${this.jobId}/${role}`;
      this.merge(await post(path, JobChange, { editId: target.editId }));
    });
  }

  /** Appends a row beside the document: a version, a print, a try. @param body made when its turn comes */
  append(path: string, body: (revision: number) => unknown): Promise<JobChange> {
    return this.inTurn(async () => {
      const change = await post(`/jobs/${this.jobId}/${path}`, JobChange, body(this.state.base!.revision));
      this.merge(change);
      return change;
    });
  }

  private async inTurn<T>(work: () => Promise<T>): Promise<T> {
    if (this.state.conflict || this.state.offline) throw new Error(NOT_SAVED);
    return this.queue.add(work, { signal: this.behind.signal });
  }

  /** The maker's decision in a conflict: put ours on top of theirs, or drop ours. */
  resolveConflict(mine: boolean): void {
    const { conflict } = this.state;
    if (!conflict) return;
    this.take(conflict.current);
    this.set({ conflict: null });
    this.decide?.(mine);
  }

  /** Sends the first pending edit until it is acknowledged, refused, or dropped. */
  private async deliver(): Promise<void> {
    const [first] = this.waiting;
    while (first && this.waiting[0] === first) {
      const { base } = this.state;
      if (!base) return;
      if (this.unsure && this.has(base.document, first.edit)) {
        this.dropFirst();
        return;
      }
      try {
        const body = { revision: base.revision, edit: first.edit };
        const change = await post(`/jobs/${this.jobId}/edits`, JobChange, body);
        this.waiting.shift();
        this.unsure = false;
        this.merge(change);
        this.set({ offline: false, trouble: null });
      } catch (error) {
        await this.failed(first.edit, error);
      }
    }
  }

  private async failed(edit: Edit, error: unknown): Promise<void> {
    if (error instanceof Unreachable) {
      this.unsure = true;
      this.goOffline();
      await new Promise(done => setTimeout(done, RETRY));
      return this.load();
    }
    this.unsure = false;
    if (error instanceof ServerSaid && FOR_NOW.has(error.status)) {
      this.goOffline(error.message);
      await new Promise(done => setTimeout(done, RETRY));
      return;
    }
    if (!(error instanceof ServerSaid && error.code === 'stale')) {
      this.dropFirst();
      this.onRefused(plain(error));
      return;
    }
    const conflict = error.details as Conflict;
    // The answer to our own edit was lost: the edit is already saved.
    if (this.has(conflict.current.document, edit)) {
      this.take(conflict.current);
      this.dropFirst();
      return;
    }
    this.set({ conflict: { ...conflict, edit } });
    this.giveUpBehind();
    const mine = await new Promise<boolean>(decide => {
      this.decide = decide;
    });
    if (!mine) this.dropFirst();
  }

  /** The page reports a refusal of something that was already shown as done. */
  onRefused: (error: Error) => void = () => {};

  /** Whether the document already has what the edit would do; false for an edit that makes no sense there. */
  private has(document: JobDocument, edit: Edit): boolean {
    try {
      return isThere(document, edit, this.workshop);
    } catch (error) {
      if (isRefusal(error)) return false;
      throw error;
    }
  }

  private goOffline(trouble: string | null = null): void {
    if (!this.state.offline || this.state.trouble !== trouble) this.set({ offline: true, trouble });
    this.giveUpBehind();
  }

  /** Rejects tasks that wait behind an edit that cannot be saved, so that none waits for ever. */
  private giveUpBehind(): void {
    this.behind.abort(new Error(NOT_SAVED));
    this.behind = new AbortController();
  }

  private dropFirst(): void {
    this.waiting.shift();
    this.unsure = false;
    this.rebase();
  }

  /** The whole job, as on the server. */
  private take(base: JobAnswer): void {
    if (!this.state.base && this.state.pending.length > 0)
      this.waiting = this.state.pending.map(edit => ({ edit, document: base.document }));
    this.state = { ...this.state, base };
    this.rebase();
  }

  /** Applies a request's changes to the job in this window. */
  private merge({ changes, added, voided, ...rest }: JobChange): void {
    const base = this.state.base!;
    const applied = applyChanges(base.document, changes);
    // Something differs from what the change expected: another window's news is on its way, so everything is fetched.
    if (!applied.ok) return void this.refresh();
    let history = added.reduce((now, row) => withRow(now, row as HistoryRow), base.history);
    if (voided) history = withVoided(history, voided);
    const document = applied.document as JobDocument;
    this.state = { ...this.state, base: { ...base, ...rest, document, history } };
    // If no other window came in between, the pending edits were made on exactly this document.
    if (this.waiting.length > 0 && !this.isOnTop(document)) this.rebase();
    else this.show();
  }

  /** Whether the first pending edit, applied to this document, gives what is shown for it. */
  private isOnTop(document: JobDocument): boolean {
    const { edit, document: shown } = this.waiting[0]!;
    const next = this.applied(document, edit);
    return same(next, shown);
  }

  /** Applies the pending edits to the server's document again. The server validates; here they are only shown. */
  private rebase(): void {
    let document = this.state.base?.document;
    if (document)
      for (const pending of this.waiting) {
        document = this.applied(document, pending.edit);
        pending.document = document;
      }
    this.show();
  }

  private applied(document: JobDocument, edit: Edit): JobDocument {
    try {
      return editKind(edit).apply(document, edit, this.workshop);
    } catch (error) {
      // The server will give the reason; until then the rest is shown without it.
      if (isRefusal(error)) return document;
      throw error;
    }
  }

  private show(): void {
    const { base } = this.state;
    this.set({
      pending: this.waiting.map(w => w.edit),
      document: this.waiting.at(-1)?.document ?? base?.document ?? null,
    });
  }

  private set(change: Partial<SessionState>): void {
    this.state = { ...this.state, ...change };
    const { pending } = this.state;
    if (pending.length > 0) sessionStorage.setItem(this.key, JSON.stringify(pending));
    else sessionStorage.removeItem(this.key);
    for (const watcher of this.watchers) watcher();
  }
}

const isRefusal = (error: unknown) =>
  error instanceof Error && ['EditRefused', 'ZodError', '$ZodError'].includes(error.name);

function plain(error: unknown): Error {
  const issue = (error as { issues?: { message: string }[] }).issues?.[0];
  return issue ? new Error(issue.message) : (error as Error);
}
