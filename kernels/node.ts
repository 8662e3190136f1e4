import ManifoldInit from 'manifold-3d';
import opencascade from 'replicad-opencascadejs';
import type { Kernels } from '../core/shape/kernels/kernel';
import { meshKernel } from '../core/shape/kernels/mesh-kernel';
import { partKernel } from '../core/shape/kernels/part-kernel';
import { readFont } from './font';

let started: Promise<Kernels> | undefined;

/** Bytes of the kernels' heap in this thread; 0 before they have started. */
export const heapInUse = async (): Promise<number> => (started ? (await started).part.memory() : 0);

/** Both kernels in this thread, started once. */
export function kernels(): Promise<Kernels> {
  started ??= start();
  return started;
}

async function start(): Promise<Kernels> {
  // `print` silences the STEP writer, which would otherwise talk on standard output.
  const [oc, manifold] = await Promise.all([opencascade({ print: () => {} }), ManifoldInit()]);
  manifold.setup();
  return { part: partKernel(oc), mesh: meshKernel(manifold), font: readFont() };
}
