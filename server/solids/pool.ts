import { Piscina } from 'piscina';
import type { SolidAnswer, SolidTask } from './task';

/** A kernel's heap only grows: beyond this the thread is replaced. */
const MOST_HEAP = 600e6;
const LONGEST = 60_000;
const MOST_WAITING = 20;

/** Worker threads that build solids, bounded in time and memory. */
export class SolidPool {
  private pool = this.open();

  private open(): Piscina {
    return new Piscina({
      filename: new URL('./worker.mjs', import.meta.url).href,
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: 120_000,
      maxQueue: MOST_WAITING,
      resourceLimits: { maxOldGenerationSizeMb: 1500 },
    });
  }

  async run(task: SolidTask): Promise<SolidAnswer> {
    const answer = (await this.pool.run(task, { signal: AbortSignal.timeout(LONGEST) })) as SolidAnswer;
    if (answer.memory > MOST_HEAP) {
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
