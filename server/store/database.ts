import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { createClient } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { ROOT } from '../root';
import * as schema from './schema';

export type Database = LibSQLDatabase<typeof schema>;
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

export interface Store {
  db: Database;
  folder: string;
  /** Runs one transaction after another: SQLite has one writer, and a second fails at once instead of waiting. */
  write<T>(work: (tx: Transaction) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

const MIGRATIONS = join(ROOT, 'server/store/migrations');

/**
 * Opens the data folder's database, brings it up to date and hands it out.
 * @throws Error with a sentence when a newer Sagoma wrote it
 */
export async function openStore(folder: string): Promise<Store> {
  mkdirSync(folder, { recursive: true });
  const path = join(folder, 'sagoma.db');
  const isNew = !existsSync(path);
  const client = createClient({ url: `file:${path}` });
  await client.execute('PRAGMA journal_mode = WAL');
  const db = drizzle(client, { schema });
  const known = (
    JSON.parse(readFileSync(join(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as {
      entries: { when: number }[];
    }
  ).entries;
  const applied = isNew ? [] : await appliedMigrations(client);
  const newest = Math.max(...known.map(e => e.when));
  if (applied.some(when => when > newest)) {
    client.close();
    throw new Error(
      `The data in ${folder} was written by a newer Sagoma. Update Sagoma, or point SAGOMA_DATA at another folder.`,
    );
  }
  if (applied.length > 0 && applied.length < known.length) {
    const backup = join(folder, `sagoma-before-${applied.length + 1}.db`);
    if (!existsSync(backup)) await client.execute({ sql: 'VACUUM INTO ?', args: [backup] });
  }
  await migrate(db, { migrationsFolder: MIGRATIONS });

  let last: Promise<unknown> = Promise.resolve();
  return {
    db,
    folder,
    write(work) {
      const turn = last.then(
        () => db.transaction(work, { behavior: 'immediate' }),
        () => db.transaction(work, { behavior: 'immediate' }),
      );
      last = turn.catch(() => undefined);
      return turn;
    },
    async close() {
      await last;
      client.close();
    },
  };
}

async function appliedMigrations(client: ReturnType<typeof createClient>): Promise<number[]> {
  const table = await client.execute("select 1 from sqlite_master where name = '__drizzle_migrations'");
  if (table.rows.length === 0) return [];
  const rows = await client.execute('select created_at from __drizzle_migrations');
  return rows.rows.map(row => Number(row.created_at));
}
