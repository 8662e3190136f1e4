import { desc, eq } from 'drizzle-orm';
import type { Events } from '../events';
import type { Store } from '../store/database';
import { jobs } from '../store/schema';

/** The job on the bench: the one that a window last opened or came back to; otherwise the one last worked on. */
export class OnBench {
  private jobId: string | null = null;

  constructor(
    private readonly store: Store,
    private readonly events: Events,
  ) {}

  put(jobId: string): void {
    if (jobId === this.jobId) return;
    this.jobId = jobId;
    this.events.send({ kind: 'bench', jobId });
  }

  async read(): Promise<string | null> {
    const ids = this.store.db.select({ id: jobs.id }).from(jobs);
    const [told] = this.jobId === null ? [] : await ids.where(eq(jobs.id, this.jobId));
    if (told) return told.id;
    const [last] = await this.store.db
      .select({ id: jobs.id })
      .from(jobs)
      .orderBy(desc(jobs.updatedAt))
      .limit(1);
    return last?.id ?? null;
  }
}
