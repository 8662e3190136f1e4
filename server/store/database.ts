import { existsSync, mkdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { createClient } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { ROOT } from '../root';
import { FolderProblem, fileAt, sweepTemporary, takeFolder, unwritable } from './folder';
import * as schema from './schema';

export type Database = LibSQLDatabase<typeof schema>;
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

export interface Store {
  db: Database;
  folder: string;
  /** Runs one transaction after another: SQLite has one writer, and a second fails at once instead of waiting. */
  write<T>(work: (tx: Transaction) => Promise<T>): Promise<T>;
  /** Counts the writes: whoever caches an answer sees from it whether the answer may be outdated. */
  readonly written: number;
  close(): Promise<void>;
}

const MIGRATIONS = join(ROOT, 'server/store/migrations');

/**
 * Opens the data folder's database, brings it up to date and returns it.
 * @throws Error with a sentence when a newer Sagoma wrote it
 */
export async function openStore(folder: string): Promise<Store> {
  try {
    mkdirSync(folder, { recursive: true });
  } catch (error) {
    throw unwritable(folder, error as NodeJS.ErrnoException);
  }
  const release = takeFolder(folder);
  try {
    return await opened(folder, release);
  } catch (error) {
    release();
    throw error;
  }
}

async function opened(folder: string, release: () => void): Promise<Store> {
  sweepTemporary(folder);
  const path = join(folder, 'sagoma.db');
  const isNew = !existsSync(path) || statSync(path).size === 0;
  // A folder may have any name: `#`, `?` and `%` have a meaning in an address.
  const client = createClient({ url: pathToFileURL(path).href });
  await client.execute('PRAGMA journal_mode = WAL').catch((error: Error) => {
    client.close();
    throw new FolderProblem(
      `${path} cannot be opened as Sagoma’s database (${error.message}). Put back a copy of it, such as sagoma-before-….db beside it, or move it away to start again.`,
    );
  });
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

  const ours = fileAt(path);
  let last: Promise<unknown> = Promise.resolve();
  let written = 0;
  return {
    get written() {
      return written;
    },
    db,
    folder,
    write(work) {
      const run = () => {
        // In a file that nobody finds again, an acknowledged edit would be lost.
        if (fileAt(path) !== ours) throw new FolderGone(folder);
        written++;
        return db.transaction(work, { behavior: 'immediate' }).finally(() => {
          // A read during the write saw the state before it.
          written++;
        });
      };
      const turn = last.then(run, run);
      last = turn.catch(() => undefined);
      return turn;
    },
    async close() {
      await last;
      client.close();
      release();
    },
  };
}

/** The data folder was deleted, moved or replaced under the running server. */
export class FolderGone extends Error {
  override name = 'FolderGone';
  constructor(folder: string) {
    super(
      `The data folder ${folder} is no longer where it was: nothing can be kept. Put it back, then start Sagoma again.`,
    );
  }
}

async function appliedMigrations(client: ReturnType<typeof createClient>): Promise<number[]> {
  const table = await client.execute("select 1 from sqlite_master where name = '__drizzle_migrations'");
  if (table.rows.length === 0) return [];
  const rows = await client.execute('select created_at from __drizzle_migrations');
  return rows.rows.map(row => Number(row.created_at));
}
