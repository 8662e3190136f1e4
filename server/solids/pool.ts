import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import PQueue from 'p-queue';
import { Piscina } from 'piscina';
import { FROM_SOURCE, ROOT } from '../root';
import type { Answer, TaskName, Tasks } from './tasks';

/** A kernel's heap only grows: beyond this the threads are replaced, bytes. */
const MOST_HEAP = 600e6;
/** Only ends what hangs: a lofted part with threads may honestly take minutes, ms. */
const LONGEST = 15 * 60_000;
const MOST_WAITING = 60;
/** One more than two long builds at a time: a short one finds a thread all the same. */
const THREADS = 3;

/** Who asks, and until when. */
export interface Asker {
  /** Whose work it is, a job's id: one owner's tasks run one after another, so that none keeps the others waiting. */
  owner?: string;
  signal?: AbortSignal;
}

/** The build and its checks were ended by whoever asked for them. */
export class Cancelled extends Error {
  override name = 'Cancelled';
  override message = 'Stopped, as asked. Nothing was changed.';
}

/** It was ended after the longest time that anything honest takes. */
export class TookTooLong extends Error {
  override name = 'TookTooLong';
  override message =
    'This took longer than a quarter of an hour and was stopped. Make the part or the file simpler, and try again.';
}

/** So much waits already that more is not taken. */
export class Busy extends Error {
  override name = 'Busy';
  override message = 'Sagoma is busy with other solids: try again in a moment.';
}

/** The bundle's own, which tests from the sources use too where it was built for them: it starts in half the time. */
function workerFile(): string {
  const bundled = join(ROOT, 'dist-server/worker.mjs');
  const fromSource = FROM_SOURCE && process.env.SAGOMA_BUNDLED !== 'yes';
  return pathToFileURL(fromSource ? join(ROOT, 'server/solids/worker-from-source.mjs') : bundled).href;
}

/** Threads with the geometry kernels, bounded in time and memory. */
export class KernelPool {
  private pool = this.open();
  private readonly lines = new Map<string, PQueue>();
  /** How many tasks of each kind have run: for tests. */
  readonly ran: Partial<Record<TaskName, number>> = {};

  private open(): Piscina {
    return new Piscina({
      filename: workerFile(),
      minThreads: 0,
      maxThreads: THREADS,
      idleTimeout: 120_000,
      maxQueue: 2 * MOST_WAITING,
      resourceLimits: { maxOldGenerationSizeMb: 1500 },
    });
  }

  /** @throws Cancelled where the asker gave up */
  async run<T extends TaskName>(task: T, asked: Tasks[T]['asked'], asker: Asker = {}): Promise<Answer<T>> {
    const line = this.lineOf(asker.owner);
    const work = () => this.inThread(task, asked, asker.signal);
    return line ? line.add(work) : work();
  }

  private lineOf(owner: string | undefined): PQueue | null {
    if (owner === undefined) return null;
    const known = this.lines.get(owner);
    if (known) return known;
    const line = new PQueue({ concurrency: 1 });
    this.lines.set(owner, line);
    line.on('idle', () => this.lines.delete(owner));
    return line;
  }

  protected async inThread<T extends TaskName>(
    task: T,
    asked: Tasks[T]['asked'],
    asker?: AbortSignal,
  ): Promise<Answer<T>> {
    if (asker?.aborted) throw new Cancelled();
    if (this.pool.queueSize >= MOST_WAITING) throw new Busy();
    const timeout = AbortSignal.timeout(LONGEST);
    const signal = AbortSignal.any([timeout, ...(asker ? [asker] : [])]);
    this.ran[task] = (this.ran[task] ?? 0) + 1;
    let answer: Answer<T>;
    try {
      answer = (await this.pool.run({ task, asked }, { signal })) as Answer<T>;
    } catch (error) {
      if (asker?.aborted) throw new Cancelled();
      if (timeout.aborted) throw new TookTooLong();
      throw error;
    }
    if (answer.heap > MOST_HEAP) {
      const old = this.pool;
      this.pool = this.open();
      void old.close();
    }
    return answer;
  }

  close(): Promise<void> {
    return this.pool.destroy();
  }
}
