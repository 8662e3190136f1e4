import type { Events } from '../events';

/** Long pieces of work that windows asked for: each is told step by step, and ended when its asker says so. */
export class Builds {
  private readonly underWay = new Map<string, AbortController>();

  constructor(private readonly events: Events) {}

  /** @param id as the asker calls it; without one nobody is told, and nobody can end it */
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

  /** Whether there was something to end. */
  cancel(id: string): boolean {
    const found = this.underWay.get(id);
    found?.abort();
    return found !== undefined;
  }
}
