import { kernels } from './kernels';
import { buildLadder, buildPiece, type LadderTask, type PieceFiles } from './piece';
import { build, type SolidAnswer, type SolidTask } from './task';

/** Runs in a worker thread of the pool: kernels start with the first task and stay warm. */
export default async function run(task: SolidTask | LadderTask | 'piece'): Promise<SolidAnswer | PieceFiles> {
  if (task === 'piece') return buildPiece();
  return 'ladder' in task ? buildLadder(task) : build(task, await kernels());
}
