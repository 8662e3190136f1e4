import { eq } from 'drizzle-orm';
import { FIRST_WORKSHOP, Workshop } from '../../core/job/workshop';
import { HttpError } from '../errors';
import type { Database, Transaction } from '../store/database';
import { workshop } from '../store/schema';

const ONLY = 1;

export interface WorkshopRow {
  revision: number;
  workshop: Workshop;
}

export async function readWorkshop(db: Database | Transaction): Promise<WorkshopRow> {
  const [row] = await db.select().from(workshop).where(eq(workshop.id, ONLY));
  if (!row) return { revision: 0, workshop: FIRST_WORKSHOP };
  return { revision: row.revision, workshop: Workshop.parse(JSON.parse(row.document)) };
}

export async function saveWorkshop(tx: Transaction, revision: number, next: Workshop): Promise<WorkshopRow> {
  const now = await readWorkshop(tx);
  if (now.revision !== revision) {
    throw new HttpError(
      409,
      'stale',
      'Another window changed the workshop meanwhile. Look at its change, then save again.',
      now,
    );
  }
  return put(tx, revision + 1, next);
}

/** A change to the workshop at its newest revision: for data that only one page writes. */
export async function changeWorkshop(
  tx: Transaction,
  change: (now: Workshop) => Workshop,
): Promise<WorkshopRow> {
  const { revision, workshop: now } = await readWorkshop(tx);
  return put(tx, revision + 1, change(now));
}

async function put(tx: Transaction, revision: number, next: Workshop): Promise<WorkshopRow> {
  const row = { id: ONLY, revision, document: JSON.stringify(next) };
  await tx.insert(workshop).values(row).onConflictDoUpdate({ target: workshop.id, set: row });
  return { revision, workshop: next };
}
