import { proxy, type Remote, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import type { Scan } from '../../core/job/scans';
import type { OtherScan, ScanApi, ScanAsked, ScanReply, ShownScan } from '../workers/scan-protocol';

const NONE: readonly OtherScan[] = [];

export interface Busy {
  what: string;
  /** 0 to 1 */
  share: number;
}

export interface OpenScan {
  shown: ShownScan | null;
  problem: string | null;
  busy: Busy | null;
  /** Asks the worker; null where the answer is no longer wanted. */
  ask<T>(
    question: (
      api: Remote<ScanApi>,
      progress: (what: string, share: number) => void,
    ) => Promise<ScanReply<T>>,
  ): Promise<ScanReply<T> | null>;
}

const BROKEN =
  'Sagoma failed at this scan: it may be larger than this machine’s memory. Export it coarser, or close other pages and load this one again.';

interface OpenWorker {
  worker: Worker;
  api: Remote<ScanApi>;
}

/**
 * One worker holds the scan that is open; it ends with the page, which frees its memory.
 * @param asked its `from` is the same object while it is the same scan
 */
export function useScan({ from, unit, steps: wanted, others: beside = NONE }: ScanAsked): OpenScan {
  const [open, setOpen] = useState<OpenWorker | null>(null);
  const [shown, setShown] = useState<ShownScan | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState<Busy | null>(null);
  const steps = JSON.stringify(wanted);
  const merged = new Set(wanted.flatMap(s => (s.kind === 'merge' ? [s.scan] : [])));
  const others = JSON.stringify(beside.filter(o => merged.has(o.id)));
  useEffect(() => {
    let isWanted = true;
    const worker = new Worker(new URL('../workers/scan-worker.ts', import.meta.url), {
      type: 'module',
    });
    const api = wrap<ScanApi>(worker);
    const fail = () => {
      if (!isWanted) return;
      setBusy(null);
      setProblem(BROKEN);
    };
    worker.addEventListener('error', fail);
    setOpen({ worker, api });
    setShown(null);
    setProblem(null);
    setBusy({ what: 'Fetching the file', share: 0 });
    const progress = proxy((what: string, share: number) => {
      if (isWanted) setBusy({ what, share });
    });
    api
      .open(
        {
          from,
          unit,
          steps: JSON.parse(steps) as Scan['steps'],
          others: JSON.parse(others) as OtherScan[],
        },
        progress,
      )
      .then(reply => {
        if (!isWanted) return;
        setBusy(null);
        if (reply.ok) setShown(reply.scan);
        else setProblem(reply.message);
      })
      .catch(fail);
    return () => {
      isWanted = false;
      worker.terminate();
    };
  }, [from, unit, steps, others]);
  return {
    shown,
    problem,
    busy,
    async ask(question) {
      if (!open) return null;
      const progress = proxy((what: string, share: number) => setBusy({ what, share }));
      setBusy({ what: 'Looking', share: 0 });
      try {
        return await question(open.api, progress);
      } catch (error) {
        // Our own worker failed: the page goes on and reports it.
        return { ok: false, message: error instanceof Error ? `${BROKEN} (${error.message})` : BROKEN };
      } finally {
        setBusy(null);
      }
    },
  };
}
