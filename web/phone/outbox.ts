import { ServerSaid, Unreachable } from '../api/client';

/** A photo that was taken and is not at the bench yet. */
export interface Waiting {
  /** Also the photo's id at the bench: sent twice, it is stored once. */
  id: string;
  jobId: string;
  name: string;
  /** The trace's id, for a photo taken on the sheet. */
  trace: string | null;
  file: Blob;
  /** ms */
  at: number;
}

/** Where photos are stored meanwhile. */
export interface Shelf {
  all(): Promise<Waiting[]>;
  put(photo: Waiting): Promise<void>;
  remove(id: string): Promise<void>;
}

export interface OutboxState {
  waiting: readonly Waiting[];
  /** What is being sent. */
  sending: string | null;
  /** Why a photo was refused, by photo; the maker decides. */
  refused: ReadonlyMap<string, string>;
  /** Why nothing can be sent at the moment. */
  trouble: string | null;
  /** False where this browser stores nothing: waiting photos are lost with the page. */
  kept: boolean;
}

/** Tried again after this time, ms. */
const RETRY = 3000;
/** The photo is not at fault: no longer paired, too many requests, the disk is full. */
const FOR_NOW: ReadonlySet<number> = new Set([401, 429, 503, 507]);

/**
 * Photos are sent one after the other, each until it is accepted or refused. Each is stored before it is sent, so that
 * neither a lost connection nor a closed page loses it.
 */
export class Outbox {
  private state: OutboxState = {
    waiting: [],
    sending: null,
    refused: new Map(),
    trouble: null,
    kept: true,
  };
  private readonly watchers = new Set<() => void>();
  private started = false;
  private running = false;
  private wake: () => void = () => {};

  constructor(
    private readonly shelf: Shelf,
    private readonly send: (photo: Waiting) => Promise<void>,
  ) {}

  watch = (watcher: () => void) => {
    this.watchers.add(watcher);
    return () => this.watchers.delete(watcher);
  };
  read = () => this.state;

  /** Continues with what an earlier visit left. */
  async start(): Promise<void> {
    if (this.started) return;
    this.started = true;
    const left = await this.shelf.all().catch(() => null);
    if (left === null) this.set({ kept: false });
    else {
      const here = new Set(this.state.waiting.map(w => w.id));
      this.set({ waiting: [...left.filter(l => !here.has(l.id)), ...this.state.waiting].toSorted(byTime) });
    }
    void this.run();
  }

  async add(photo: Waiting): Promise<void> {
    await this.shelf.put(photo).catch(() => this.set({ kept: false }));
    this.set({ waiting: [...this.state.waiting, photo] });
    void this.run();
  }

  async remove(id: string): Promise<void> {
    const refused = new Map(this.state.refused);
    refused.delete(id);
    this.set({ waiting: this.state.waiting.filter(w => w.id !== id), refused });
    // One that could not be deleted from the store is sent again, and is there already.
    await this.shelf.remove(id).catch(() => undefined);
  }

  /** A refused photo is tried once more. */
  again(id: string): void {
    const refused = new Map(this.state.refused);
    refused.delete(id);
    this.set({ refused });
    void this.run();
  }

  /** The connection is back, as far as the browser knows. */
  hurry = (): void => this.wake();

  private async run(): Promise<void> {
    if (this.running) return;
    this.running = true;
    for (let next = this.next(); next; next = this.next()) await this.deliver(next);
    this.running = false;
  }

  private next(): Waiting | undefined {
    return this.state.waiting.find(w => !this.state.refused.has(w.id));
  }

  private async deliver(photo: Waiting): Promise<void> {
    this.set({ sending: photo.id });
    try {
      await this.send(photo);
      this.set({ trouble: null, sending: null });
      await this.remove(photo.id);
    } catch (error) {
      const { message } = error as Error;
      this.set({ sending: null });
      if (error instanceof Unreachable || (error instanceof ServerSaid && FOR_NOW.has(error.status))) {
        this.set({ trouble: error instanceof Unreachable ? 'No connection to the bench.' : message });
        await this.pause();
      } else this.set({ refused: new Map(this.state.refused).set(photo.id, message) });
    }
  }

  private pause(): Promise<void> {
    return new Promise(done => {
      const timer = setTimeout(done, RETRY);
      this.wake = () => {
        clearTimeout(timer);
        done();
      };
    });
  }

  private set(change: Partial<OutboxState>): void {
    this.state = { ...this.state, ...change };
    for (const watcher of this.watchers) watcher();
  }
}

const byTime = (a: Waiting, b: Waiting) => a.at - b.at;
