import { copyFileSync, existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { createClient } from '@libsql/client';
import { FolderProblem, takeFolder } from './folder';

const DATABASE = 'sagoma.db';

/**
 * A whole copy of a data folder: the database at one moment, and every file that it may name. It may run beside the
 * server. Run again into the same folder it copies only new files.
 * @returns how many files were copied
 * @throws FolderProblem where there is no workshop to copy
 */
export async function backUp(from: string, to: string): Promise<number> {
  const database = join(from, DATABASE);
  if (!existsSync(database))
    throw new FolderProblem(`There is no workshop in ${from}: give its data folder.`);
  mkdirSync(to, { recursive: true });
  const fresh = join(to, `.${DATABASE}.new`);
  rmSync(fresh, { force: true });
  const client = createClient({ url: pathToFileURL(database).href });
  try {
    await client.execute({ sql: 'VACUUM INTO ?', args: [fresh] });
  } finally {
    client.close();
  }
  // Files are copied after the database, so that each one it names is there by then.
  const copied = copyFiles(join(from, 'blobs'), join(to, 'blobs'));
  renameSync(fresh, join(to, DATABASE));
  return copied;
}

/**
 * A backup as a data folder again.
 * @throws FolderProblem where the folder already holds a workshop, or a running Sagoma uses it
 */
export function restore(from: string, to: string): number {
  if (!existsSync(join(from, DATABASE))) throw new FolderProblem(`There is no backup in ${from}.`);
  mkdirSync(to, { recursive: true });
  const release = takeFolder(to);
  try {
    if (existsSync(join(to, DATABASE)))
      throw new FolderProblem(
        `${to} holds a workshop already: nothing was changed. Restore into an empty folder.`,
      );
    const copied = copyFiles(join(from, 'blobs'), join(to, 'blobs'));
    copyFileSync(join(from, DATABASE), join(to, DATABASE));
    return copied;
  } finally {
    release();
  }
}

/** Files are named by their content: one that is there is the same. */
function copyFiles(from: string, to: string): number {
  let copied = 0;
  if (!existsSync(from)) return copied;
  for (const part of readdirSync(from)) {
    mkdirSync(join(to, part), { recursive: true });
    for (const name of readdirSync(join(from, part))) {
      if (name.startsWith('.') || existsSync(join(to, part, name))) continue;
      const half = join(to, part, `.${name}`);
      copyFileSync(join(from, part, name), half);
      renameSync(half, join(to, part, name));
      copied++;
    }
  }
  return copied;
}
