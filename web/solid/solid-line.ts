import type { SolidApi } from '../workers/solid-protocol';

/** Single-threaded kernels cannot be interrupted: a worker busy this long with old numbers is replaced, ms. */
const STUCK = 2000;
/** The kernel's heap only grows: beyond this the worker is replaced, bytes. */
const MOST_HEAP = 600e6;
const LOOK_AGAIN = 50;

/** A worker as the queue sees it. */
export interface KernelWorker {
  api: Pick<SolidApi, keyof SolidApi>;
  /** Called when it breaks: its current question is never answered then. */
  onBreak(broken: () => void): void;
  end(): void;
}

type Asked = (api: KernelWorker['api']) => Promise<{ heap: number }>;

interface Waiting {
  ask: Asked;
  settle(answer: { heap: number } | null): void;
  fail(error: Error): void;
}

export class KernelBroken extends Error {
  override message =
    'The geometry kernel could not start. Reload the page; if it stays so, this browser lacks WebAssembly.';
}

/**
 * The queue of a worker that holds the kernels: one question runs, at most one waits, and only the newest one is
 * answered. An overtaken question is answered with null.
 */
export class SolidLine {
  private worker: KernelWorker | undefined;
  private warm = false;
  private running: { asked: Waiting; since: number } | undefined;
  private waiting: Waiting | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly make: () => KernelWorker) {}

  /** @throws KernelBroken where the worker breaks; Error with the kernel's own words */
  ask<T extends { heap: number }>(ask: (api: KernelWorker['api']) => Promise<T>): Promise<T | null> {
    return new Promise((settle, fail) => {
      this.waiting?.settle(null);
      this.waiting = { ask, settle: answer => settle(answer as T | null), fail };
      this.next();
    });
  }

  private next(): void {
    if (!this.waiting) return;
    if (this.running) {
      // While the kernels start, being slow is normal.
      if (this.warm && performance.now() - this.running.since > STUCK) this.replace();
      else {
        clearTimeout(this.timer);
        this.timer = setTimeout(() => this.next(), LOOK_AGAIN);
        return;
      }
    }
    this.worker ??= this.open();
    const asked = this.waiting;
    this.waiting = undefined;
    this.running = { asked, since: performance.now() };
    asked.ask(this.worker.api).then(
      answer => this.answered(asked, answer, null),
      (error: Error) => this.answered(asked, null, error),
    );
  }

  private answered(asked: Waiting, answer: { heap: number } | null, error: Error | null): void {
    // From a worker that was replaced meanwhile.
    if (this.running?.asked !== asked) return;
    this.warm = true;
    this.running = undefined;
    if (answer && answer.heap > MOST_HEAP) this.replace();
    // Outdated results are dropped: only the newest numbers are ever shown.
    if (this.waiting) asked.settle(null);
    else if (error) asked.fail(error);
    else asked.settle(answer);
    this.next();
  }

  private open(): KernelWorker {
    const worker = this.make();
    worker.onBreak(() => {
      if (this.worker !== worker) return;
      (this.waiting ?? this.running?.asked)?.fail(new KernelBroken());
      this.waiting = undefined;
      this.replace();
    });
    return worker;
  }

  private replace(): void {
    this.worker?.end();
    this.running?.asked.settle(null);
    this.worker = undefined;
    this.running = undefined;
    this.warm = false;
  }
}
