import { kernels } from './kernels';
import { build, type SolidAnswer, type SolidTask } from './task';

/** Runs in a worker thread of the pool: kernels start with the first task and stay warm. */
export default async function run(task: SolidTask): Promise<SolidAnswer> {
  return build(task, await kernels());
}
