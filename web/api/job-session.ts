import type { Conflict, JobAnswer } from '../../contract/jobs';
import { same } from '../../core/job/changes';
import type { JobDocument } from '../../core/job/document';
import { applyEdit, type Edit } from '../../core/job/edits';
import type { Workshop } from '../../core/job/workshop';
import { call, get, post, ServerSaid, tabId, Unreachable } from './client';
import { stream } from './events';

export interface SessionState {
  /** As the server has it; null until loaded. */
  base: JobAnswer | null;
  /** The server's document with what is still on its way applied. */
  document: JobDocument | null;
  /** Edits the server has not acknowledged yet. */
  pending: readonly Edit[];
  /** The server cannot be reached; pending edits are kept and sent again. */
  offline: boolean;
  /** Another window was first; the maker decides. */
  conflict: (Conflict & { edit: Edit }) | null;
  /** Loading failed for good. */
  failure: Error | null;
}

const RETRY = 1500;

/**
 * A job in this window: edits show at once and are sent one after another, each on the revision the
 * last one made. What the server has not acknowledged survives a reload of the window.
 */
export class JobSession {
  private state: SessionState = {
    base: null,
    document: null,
    pending: [],
    offline: false,
    conflict: null,
    failure: null,
  };
  private readonly watchers = new Set<() => void>();
  private sending = false;
  private reverting: Promise<void> = Promise.resolve();
  /** The first pending edit was sent without an answer: it may have landed all the same. */
  private unsure = false;
  private retry: ReturnType<typeof setTimeout> | undefined;
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
    void this.refresh();
    return () => {
      this.stop?.();
      clearTimeout(this.retry);
    };
  };

  watch = (watcher: () => void) => {
    this.watchers.add(watcher);
    return () => this.watchers.delete(watcher);
  };
  read = () => this.state;

  setWorkshop(workshop: Workshop): void {
    this.workshop = workshop;
  }

  async refresh(): Promise<void> {
    try {
      const base = await get<JobAnswer>(`/jobs/${this.jobId}`);
      // An answer that was overtaken by one of ours is old.
      if (!this.sending && (!this.state.base || base.revision >= this.state.base.revision))
        this.set({ base, failure: null, offline: false });
      void this.send();
    } catch (error) {
      if (error instanceof Unreachable) {
        this.set({ offline: true });
        this.later(() => void this.refresh());
      } else if (!this.state.base) this.set({ failure: error as Error });
    }
  }

  /** Shows the edit now and sends it; rejects in the core's own words when it makes no sense. */
  edit(edit: Edit): Promise<void> {
    const { document } = this.state;
    if (!document) return Promise.reject(new Error('The job is not loaded yet.'));
    try {
      if (same(applyEdit(document, edit, this.workshop), document)) return Promise.resolve();
    } catch (error) {
      return Promise.reject(plain(error));
    }
    this.set({ pending: [...this.state.pending, edit] });
    void this.send();
    return Promise.resolve();
  }

  /** Undo or redo, one after another, each once every edit before it is there. */
  undo(role: 'undo' | 'redo'): Promise<void> {
    const turn = this.reverting.then(() => this.revert(role));
    this.reverting = turn.catch(() => undefined);
    return turn;
  }

  private async revert(role: 'undo' | 'redo'): Promise<void> {
    await this.settled();
    const target = this.state.base?.[role];
    if (!target) return;
    // An edit made meanwhile waits: it belongs on the revision that this makes.
    this.sending = true;
    try {
      this.set({ base: await post<JobAnswer>(`/jobs/${this.jobId}/${role}`, { editId: target.editId }) });
    } finally {
      this.sending = false;
      void this.send();
    }
  }

  /** Something appended beside the document: a version, a print, a try. */
  async append(path: string, body: unknown): Promise<JobAnswer> {
    await this.settled();
    const base = await call<JobAnswer>('POST', `/jobs/${this.jobId}/${path}`, body);
    this.set({ base });
    return base;
  }

  /** Resolves when the server has everything. */
  async settled(): Promise<void> {
    for (let i = 0; this.state.pending.length > 0 && i < 200; i++) {
      if (this.state.conflict || this.state.offline)
        throw new Error('An edit is not saved yet: settle that first.');
      await new Promise(done => setTimeout(done, 25));
    }
  }

  /** The maker's answer to a conflict: put ours on top of theirs, or let ours go. */
  resolveConflict(mine: boolean): void {
    const { conflict, pending } = this.state;
    if (!conflict) return;
    this.set({ base: conflict.current, conflict: null, pending: mine ? pending : pending.slice(1) });
    void this.send();
  }

  private async send(): Promise<void> {
    const { base, pending, conflict } = this.state;
    const [edit] = pending;
    if (this.sending || !base || !edit || conflict) return;
    if (this.unsure && this.isThere(base.document, edit)) {
      this.unsure = false;
      this.set({ pending: pending.slice(1), offline: false });
      return this.send();
    }
    this.sending = true;
    try {
      const next = await post<JobAnswer>(`/jobs/${this.jobId}/edits`, { revision: base.revision, edit });
      this.unsure = false;
      this.set({ base: next, pending: this.state.pending.slice(1), offline: false });
    } catch (error) {
      this.failed(edit, error);
    } finally {
      this.sending = false;
    }
    if (!this.state.offline) void this.send();
  }

  private failed(edit: Edit, error: unknown): void {
    if (error instanceof Unreachable) {
      this.unsure = true;
      this.set({ offline: true });
      this.later(() => void this.refresh());
      return;
    }
    this.unsure = false;
    if (error instanceof ServerSaid && error.code === 'stale') {
      const conflict = error.details as Conflict;
      // The answer to our own edit was lost on the way: it is there already.
      if (this.isThere(conflict.current.document, edit)) {
        this.set({ base: conflict.current, pending: this.state.pending.slice(1), offline: false });
      } else this.set({ conflict: { ...conflict, edit }, offline: false });
      return;
    }
    this.set({ pending: this.state.pending.slice(1), offline: false });
    this.onRefused(plain(error));
  }

  /** The page shows what was refused after it had been shown as done. */
  onRefused: (error: Error) => void = () => {};

  /** Whether the document holds already what the edit would do. */
  private isThere(document: JobDocument, edit: Edit): boolean {
    const readings = (id: string) => document.dimensions.find(d => d.id === id)?.readings ?? [];
    if (edit.kind === 'add-reading') return readings(edit.dimensionId).some(r => r.id === edit.reading.id);
    if (edit.kind === 'take-back-reading')
      return !readings(edit.dimensionId).some(r => r.id === edit.readingId);
    if (edit.kind === 'service-note') return document.service.notes.some(n => n.id === edit.id);
    try {
      return same(applyEdit(document, edit, this.workshop), document);
    } catch {
      // The server will say why it makes no sense any more.
      return false;
    }
  }

  private later(run: () => void): void {
    clearTimeout(this.retry);
    this.retry = setTimeout(run, RETRY);
  }

  private set(change: Partial<SessionState>): void {
    const next = { ...this.state, ...change };
    if (change.base !== undefined || change.pending !== undefined) {
      next.document = next.base ? this.applied(next.base.document, next.pending) : null;
    }
    this.state = next;
    if (next.pending.length > 0) sessionStorage.setItem(this.key, JSON.stringify(next.pending));
    else sessionStorage.removeItem(this.key);
    for (const watcher of this.watchers) watcher();
  }

  private applied(document: JobDocument, pending: readonly Edit[]): JobDocument {
    return pending.reduce((now, edit) => {
      try {
        return applyEdit(now, edit, this.workshop);
      } catch {
        // The server will say why; until then the rest is shown without it.
        return now;
      }
    }, document);
  }
}

function plain(error: unknown): Error {
  const issue = (error as { issues?: { message: string }[] }).issues?.[0];
  return issue ? new Error(issue.message) : (error as Error);
}
