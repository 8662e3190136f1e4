import { closeSync, openSync, readdirSync, readFileSync, rmSync, statSync, writeSync } from 'node:fs';
import { uptime } from 'node:os';
import { join } from 'node:path';

/** A sentence for whoever starts Sagoma: what is wrong with the data folder, and what to do. */
export class FolderProblem extends Error {
  override name = 'FolderProblem';
}

const LOCK = 'sagoma.lock';
/** Start time of the machine, s. */
const startedAt = (): number => Math.round(Date.now() / 1000 - uptime());

/** Whether a process with this number runs, including somebody else's. */
function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

/**
 * Claims a data folder for this process alone: two servers on one folder would each trust their own numbers.
 * @returns a function that releases it
 * @throws FolderProblem where another Sagoma has it, or it cannot be written
 */
export function takeFolder(folder: string): () => void {
  const path = join(folder, LOCK);
  for (let tries = 0; ; tries++) {
    try {
      const file = openSync(path, 'wx');
      writeSync(file, `${process.pid} ${startedAt()}`);
      closeSync(file);
      return () => rmSync(path, { force: true });
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException;
      if (code !== 'EEXIST') throw unwritable(folder, error as NodeJS.ErrnoException);
      const [pid = 0, boot] = readFileSync(path, 'utf8').split(' ').map(Number);
      // After a restart of the machine its number may belong to any other program.
      const before = boot !== undefined && Math.abs(boot - startedAt()) > 60;
      // Our own from before, in tests; or that of a killed Sagoma.
      if (tries > 0 || (!before && pid !== process.pid && pid > 0 && isRunning(pid)))
        throw new FolderProblem(
          `Another Sagoma (process ${pid}) works on ${folder} already. Stop it first, or point SAGOMA_DATA at another folder.`,
        );
      rmSync(path, { force: true });
    }
  }
}

export const unwritable = (folder: string, error: NodeJS.ErrnoException): FolderProblem =>
  new FolderProblem(
    error.code === 'ENOSPC'
      ? `The disk that holds ${folder} is full. Make room, then start Sagoma again.`
      : `Sagoma cannot write to ${folder} (${error.code ?? error.message}). Give this user the right to, or point SAGOMA_DATA at another folder.`,
  );

/** What a crash left half written beside the stored files. */
export function sweepTemporary(folder: string): number {
  const blobs = join(folder, 'blobs');
  let swept = 0;
  for (const part of list(blobs))
    for (const name of list(join(blobs, part)))
      if (name.startsWith('.')) {
        rmSync(join(blobs, part, name), { force: true });
        swept++;
      }
  return swept;
}

function list(folder: string): string[] {
  try {
    return readdirSync(folder);
  } catch (error) {
    if (['ENOENT', 'ENOTDIR'].includes((error as NodeJS.ErrnoException).code ?? '')) return [];
    throw error;
  }
}

/** The file that a path leads to now; null where there is none: moved, deleted, or another disk. */
export function fileAt(path: string): string | null {
  try {
    const { dev, ino } = statSync(path);
    return `${dev}:${ino}`;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null;
    throw error;
  }
}
