import { kernels } from './kernels';
import { buildPiece, type PieceFiles } from './piece';
import { build, type SolidAnswer, type SolidTask } from './task';

/** Runs in a worker thread of the pool: kernels start with the first task and stay warm. */
export default async function run(task: SolidTask | 'piece'): Promise<SolidAnswer | PieceFiles> {
  return task === 'piece' ? buildPiece() : build(task, await kernels());
}
