import { readFile } from 'node:fs/promises';
import { readStl } from '../../core/files/reading-back';
import type { Kernels } from '../../core/shape/kernels/kernel';
import type { TriangleMesh } from '../../core/shape/mesh/mesh';
import { type ModelAnswer, readModel } from '../models/read-model';
import { kernels } from './kernels';
import { buildLadder, buildPiece, type LadderTask, type PieceFiles } from './piece';
import { build, type SolidAnswer, type SolidTask } from './task';

/** A file that somebody brought. */
export interface ModelTask {
  file: Uint8Array;
}
type Built = SolidTask & {
  /** Where the triangles of bodies from files are kept, by SHA-256. */
  modelFiles: Readonly<Record<string, string>>;
};

/** Bodies that were asked for lately; a thread lives for minutes. */
const read = new Map<string, TriangleMesh>();
const MOST_READ = 12;

/** Runs in a worker thread of the pool: kernels start with the first task and stay warm. */
export default async function run(
  task: Built | LadderTask | ModelTask | 'piece',
): Promise<SolidAnswer | PieceFiles | ModelAnswer> {
  if (task === 'piece') return buildPiece();
  if ('ladder' in task) return buildLadder(task);
  const started = await kernels();
  if ('file' in task) return readModel(task.file, started);
  await withModels(started, task.modelFiles);
  return build(task, started);
}

async function withModels(started: Kernels, files: Built['modelFiles']): Promise<void> {
  for (const [sha256, path] of Object.entries(files)) {
    if (read.has(sha256)) continue;
    // Gone from the disk: the part then says that the body is not at hand.
    const bytes = await readFile(path).catch(() => null);
    if (bytes) read.set(sha256, readStl(bytes));
    if (read.size > MOST_READ) read.delete(read.keys().next().value!);
  }
  started.models = read;
}
