import type { SolidReply, SolidRequest } from '../workers/solid-protocol';

/** Single-threaded kernels cannot be interrupted: a worker stuck this long on old numbers is replaced, ms. */
const STUCK = 2000;
/** The kernel's heap only grows: beyond this the worker is replaced, bytes. */
const MOST_HEAP = 600e6;
const LOOK_AGAIN = 50;

/**
 * The line before a worker that holds the kernels: one request runs, at most one waits, and only the
 * newest one's answer is handed on.
 */
export class SolidLine {
  private worker: Worker | undefined;
  private id = 0;
  private warm = false;
  private running: { id: number; since: number } | undefined;
  private waiting: SolidRequest | undefined;
  private onReply: (reply: SolidReply) => void = () => {};
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly make: () => Worker) {}

  ask(request: Omit<SolidRequest, 'id'>, onReply: (reply: SolidReply) => void): number {
    this.onReply = onReply;
    this.waiting = { ...request, id: ++this.id };
    this.next();
    return this.id;
  }

  private next(): void {
    if (!this.waiting) return;
    if (this.running) {
      // While the kernels start they are slow for a good reason.
      if (this.warm && performance.now() - this.running.since > STUCK) this.replace();
      else {
        clearTimeout(this.timer);
        this.timer = setTimeout(() => this.next(), LOOK_AGAIN);
        return;
      }
    }
    this.worker ??= this.open();
    this.running = { id: this.waiting.id, since: performance.now() };
    this.worker.postMessage(this.waiting);
    this.waiting = undefined;
  }

  private open(): Worker {
    const worker = this.make();
    worker.addEventListener('message', (message: MessageEvent<SolidReply>) => {
      const reply = message.data;
      this.warm = true;
      this.running = undefined;
      if (reply.heap > MOST_HEAP) this.replace();
      // Stale results are dropped: only the newest numbers are ever shown.
      if (reply.id === this.id) this.onReply(reply);
      this.next();
    });
    worker.addEventListener('error', () => {
      this.replace();
      const message =
        'The geometry kernel could not start. Reload the page; if it stays so, this browser lacks WebAssembly.';
      this.onReply({
        id: this.id,
        kind: 'failed',
        findings: [{ code: 'no-kernel', level: 'stop', message }],
        heap: 0,
      });
    });
    return worker;
  }

  private replace(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.running = undefined;
    this.warm = false;
  }
}
