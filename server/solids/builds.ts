import type { Events } from '../events';

/** Long tasks that windows asked for: each reports its steps and can be cancelled. */
export class Builds {
  private readonly underWay = new Map<string, AbortController>();

  constructor(private readonly events: Events) {}

  /** @param id chosen by the window; without it the steps are not reported and the task cannot be cancelled */
  async run<T>(
    id: string | undefined,
    work: (maker: { signal?: AbortSignal; onStep?(words: string): void }) => Promise<T>,
  ): Promise<T> {
    if (id === undefined) return work({});
    const stop = new AbortController();
    this.underWay.set(id, stop);
    try {
      return await work({
        signal: stop.signal,
        onStep: step => this.events.send({ kind: 'build', buildId: id, step }),
      });
    } finally {
      this.underWay.delete(id);
    }
  }

  /** Whether there was something to cancel. */
  cancel(id: string): boolean {
    const found = this.underWay.get(id);
    found?.abort();
    return found !== undefined;
  }
}
