import { like } from 'drizzle-orm';
import { GRACE } from '../blobs/sweep';
import type { Store } from '../store/database';
import { jobs } from '../store/schema';
import { readDocument, removeJob } from './repository';

/** Deletes jobs that were removed from the rack a while ago. @returns the number deleted */
export async function sweepRemoved(store: Store, now = new Date()): Promise<number> {
  const before = new Date(now.getTime() - GRACE * 24 * 3_600_000).toISOString();
  const rows = await store.db
    .select({ id: jobs.id })
    .from(jobs)
    .where(like(jobs.document, '%"how":"removed"%'));
  let gone = 0;
  for (const { id } of rows) {
    // One that cannot be read stays: the rack shows it, and its maker decides.
    const away = await readDocument(store.db, id).then(
      ({ document }) => document.away,
      () => undefined,
    );
    if (away?.how !== 'removed' || away.at >= before) continue;
    await store.write(tx => removeJob(tx, id));
    gone++;
  }
  return gone;
}
