import { type Remote, wrap } from 'comlink';
import { type Finding, finding } from '../../core/shape/findings/finding';
import type { SolidApi } from '../workers/solid-protocol';
import { type KernelWorker, SolidLine } from './solid-line';

/** A worker with the kernels. Long work that may be cancelled opens and ends one of its own. */
export function openKernel(): KernelWorker {
  const worker = new Worker(new URL('../workers/solid-worker.ts', import.meta.url), { type: 'module' });
  const api: Remote<SolidApi> = wrap<SolidApi>(worker);
  return {
    api,
    onBreak: broken => worker.addEventListener('error', broken),
    end: () => worker.terminate(),
  };
}

/**
 * A separate worker for each kind of question, so that checks on the fine triangles, and comparing, never delay typing.
 */
const lines: Partial<Record<keyof SolidApi, SolidLine>> = {};

/** The queue of the worker for one kind of question; the worker starts with the first question. */
export function kernelLine(kind: keyof SolidApi): SolidLine {
  lines[kind] ??= new SolidLine(openKernel);
  return lines[kind];
}

/** A failure of the kernel itself, as a finding. */
export const brokenKernel = (error: Error): Finding[] => [
  finding('kernel-broken', 'stop', { why: error.message }),
];
