import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import PQueue from 'p-queue';
import { Piscina } from 'piscina';
import { FROM_SOURCE, ROOT } from '../root';
import type { Answer, TaskName, Tasks } from './tasks';

/** A kernel's heap only grows: beyond this the threads are replaced, bytes. */
const MOST_HEAP = 600e6;
/** A lofted part with threads may legitimately take minutes, reading a file may not, ms. */
const LONGEST = 15 * 60_000;
const LONGEST_OF: Partial<Record<TaskName, number>> = {
  readPhoto: 5_000,
  readBundle: 60_000,
  readBody: 120_000,
  readScan: 120_000,
  practiceScan: 60_000,
  drawSheet: 30_000,
  drawHandOver: 30_000,
  drawPart: 30_000,
};
const MOST_WAITING = 60;

/** Who asks, and until when. */
export interface Asker {
  /** The owner of the work, a job's id: one owner's tasks run one after another, so that no owner blocks the others. */
  owner?: string;
  signal?: AbortSignal;
}

/** The build and its checks were cancelled by whoever asked for them. */
export class Cancelled extends Error {
  override name = 'Cancelled';
  override message = 'Stopped, as asked. Nothing was changed.';
}

/** It was ended after the longest legitimate time. */
export class TookTooLong extends Error {
  override name = 'TookTooLong';
  constructor(task: TaskName) {
    super(
      task.startsWith('read')
        ? `This file took longer than ${seconds(task)} seconds to read and was given up. Export it again, simpler, and try once more.`
        : task.startsWith('draw')
          ? `The drawing took longer than ${seconds(task)} seconds and was given up. Look for a size far from all others, mend it, and try again.`
          : 'This took longer than a quarter of an hour and was stopped. Make the part simpler, and try again.',
    );
  }
}
const seconds = (task: TaskName) => (LONGEST_OF[task] ?? LONGEST) / 1000;

/** It needed more memory than any legitimate task does. */
export class TooMuchMemory extends Error {
  override name = 'TooMuchMemory';
  override message =
    'This needs more memory than Sagoma gives it. Make the part or the file simpler, and try again.';
}

/** With this many tasks waiting, no more are accepted. */
export class Busy extends Error {
  override name = 'Busy';
  override message = 'Sagoma is busy with other solids: try again in a moment.';
}

/**
 * The bundle's own worker, which tests from the sources use too where it was built for them: it starts in half the
 * time.
 */
function workerFile(): string {
  const bundled = join(ROOT, 'dist-server/worker.mjs');
  const fromSource = FROM_SOURCE && process.env.SAGOMA_BUNDLED !== 'yes';
  return pathToFileURL(fromSource ? join(ROOT, 'server/solids/worker-from-source.mjs') : bundled).href;
}

/** One more than two long builds at a time: a short one still finds a thread. */
const BUILDING = 3;
/** Uploaded files are read, and paper is drawn, by separate threads: neither makes a build wait. */
const READING = 2;

/** Threads with the geometry kernels, bounded in time and memory. */
export class KernelPool {
  private pool: Piscina;
  private readonly lines = new Map<string, PQueue>();
  /** A waiting task has not begun: its time counts from its turn. */
  private readonly turns: PQueue;
  /** How many tasks of each kind have run: for tests. */
  readonly ran: Partial<Record<TaskName, number>> = {};

  constructor(
    private readonly threads = BUILDING,
    private readonly longest = LONGEST_OF,
  ) {
    this.turns = new PQueue({ concurrency: threads });
    this.pool = this.open();
  }

  /** For uploaded files. */
  static forReading(): KernelPool {
    return new KernelPool(READING);
  }

  private open(): Piscina {
    return new Piscina({
      filename: workerFile(),
      minThreads: 0,
      maxThreads: this.threads,
      idleTimeout: 120_000,
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
    if (this.turns.size >= MOST_WAITING) throw new Busy();
    return this.turns.add(() => this.atWork(task, asked, asker));
  }

  private async atWork<T extends TaskName>(
    task: T,
    asked: Tasks[T]['asked'],
    asker?: AbortSignal,
  ): Promise<Answer<T>> {
    // Cancelled while it waited: it never runs.
    if (asker?.aborted) throw new Cancelled();
    const timeout = AbortSignal.timeout(this.longest[task] ?? LONGEST);
    const signal = AbortSignal.any([timeout, ...(asker ? [asker] : [])]);
    this.ran[task] = (this.ran[task] ?? 0) + 1;
    let answer: Answer<T>;
    try {
      answer = (await this.pool.run({ task, asked }, { signal })) as Answer<T>;
    } catch (error) {
      if (asker?.aborted) throw new Cancelled();
      if (timeout.aborted) throw new TookTooLong(task);
      if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY') throw new TooMuchMemory();
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
