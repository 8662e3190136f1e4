import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { gt, inArray, lt, sql } from 'drizzle-orm';
import type { SQLiteColumn, SQLiteTable } from 'drizzle-orm/sqlite-core';
import type { Store } from '../store/database';
import { bench, blobs, edits, history, jobs, solids, workshop } from '../store/schema';

/** How long a file that nothing names, and a built solid, are kept, days. */
export const GRACE = 30;

/** Everything that may name a file. An undone edit does: undo and redo bring its photo back. */
const NAMING: [SQLiteTable, SQLiteColumn][] = [
  [jobs, jobs.document],
  [edits, edits.changes],
  [history, history.document],
  [workshop, workshop.document],
  [bench, bench.document],
  [solids, solids.mesh],
  [solids, solids.step],
];

/**
 * Removes files that nothing has named for a while: photos taken back, solids of old numbers. Only at the start, before
 * anybody is answered: a file that is just being stored is named a moment later.
 * @returns the number of files removed
 */
export async function sweepBlobs(store: Store, now = new Date()): Promise<number> {
  const before = new Date(now.getTime() - GRACE * 24 * 3_600_000);
  // Solids are built again when they are needed.
  await store.write(tx => tx.delete(solids).where(lt(solids.at, before.toISOString())));
  const old = await filesBefore(join(store.folder, 'blobs'), before);
  for (const [table, column] of NAMING) {
    if (old.size === 0) break;
    for await (const text of textsOf(store, table, column))
      for (const [sha256] of text.matchAll(/[0-9a-f]{64}/g)) old.delete(sha256);
  }
  const gone = [...old.keys()];
  for (let i = 0; i < gone.length; i += 500)
    await store.write(tx => tx.delete(blobs).where(inArray(blobs.sha256, gone.slice(i, i + 500))));
  for (const path of old.values()) await rm(path, { force: true });
  await removeUnfinished(join(store.folder, 'blobs'));
  return gone.length;
}

/** Left over from a program that ended before this one: at the start nobody is writing it any more. */
async function removeUnfinished(folder: string): Promise<void> {
  for (const part of await readdir(folder).catch(() => []))
    for (const name of await readdir(join(folder, part)).catch(() => []))
      if (name.startsWith('.')) await rm(join(folder, part, name), { force: true });
}

/** Paths by hash of the files last stored before a time. */
async function filesBefore(folder: string, before: Date): Promise<Map<string, string>> {
  const found = new Map<string, string>();
  for (const part of await readdir(folder).catch(() => []))
    for (const name of await readdir(join(folder, part)).catch(() => [])) {
      const path = join(folder, part, name);
      if (/^[0-9a-f]{64}$/.test(name) && (await stat(path)).mtime < before) found.set(name, path);
    }
  return found;
}

/** One column's texts, a page at a time: the logbook of a thousand jobs need not be in memory at once. */
async function* textsOf(store: Store, table: SQLiteTable, column: SQLiteColumn): AsyncGenerator<string> {
  const rowid = sql<number>`rowid`;
  for (let last = -1; ; ) {
    const rows = await store.db
      .select({ rowid, text: sql<string | null>`${column}` })
      .from(table)
      .where(gt(rowid, last))
      .orderBy(rowid)
      .limit(500);
    if (rows.length === 0) return;
    for (const { text } of rows) if (text) yield text;
    last = rows.at(-1)!.rowid;
  }
}
