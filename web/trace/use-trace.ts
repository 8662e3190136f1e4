import { proxy, type Remote, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { ShownTrace, TraceApi, TraceAsked, TraceReply } from '../workers/trace-protocol';

export interface OpenTrace {
  /** Of the picture, px; null until it is read. */
  size: { width: number; height: number } | null;
  trace: ShownTrace | null;
  problem: string | null;
  /** What is being done. */
  busy: string | null;
  ask<T>(question: (api: Remote<TraceApi>) => Promise<TraceReply<T>>): Promise<TraceReply<T> | null>;
}

const BROKEN =
  'Sagoma failed at this photo: it may be larger than this machine’s memory. Close other pages and load this one again.';

type Said = Pick<TraceAsked, 'tidy' | 'parting'>;

/** One worker holds the picture that is open; it ends with the page, which frees its memory. */
export function useTrace(jobId: string, photoId: string, { tidy, parting, ...asked }: TraceAsked): OpenTrace {
  const [api, setApi] = useState<Remote<TraceApi> | null>(null);
  const [size, setSize] = useState<OpenTrace['size']>(null);
  const [trace, setTrace] = useState<ShownTrace | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState<string | null>('Reading the photo');
  useEffect(() => {
    let isWanted = true;
    const worker = new Worker(new URL('../workers/trace-worker.ts', import.meta.url), { type: 'module' });
    const remote = wrap<TraceApi>(worker);
    const fail = () => {
      if (!isWanted) return;
      setBusy(null);
      setProblem(BROKEN);
    };
    worker.addEventListener('error', fail);
    setApi(null);
    setSize(null);
    setTrace(null);
    setProblem(null);
    setBusy('Reading the photo');
    remote
      .open({ jobId, photoId })
      .then(reply => {
        if (!isWanted) return;
        if (!reply.ok) {
          setBusy(null);
          setProblem(reply.message);
          return;
        }
        setSize(reply);
        setApi(() => remote);
      })
      .catch(fail);
    return () => {
      isWanted = false;
      worker.terminate();
    };
  }, [jobId, photoId]);

  const how = JSON.stringify(asked);
  const said = JSON.stringify({ tidy, parting: parting ?? [] });
  /** The inputs of the trace that is shown: its settings, and the corrections of its outline. */
  const [done, setDone] = useState<{ how: string; said: string } | null>(null);
  const latest = useRef(said);
  latest.current = said;
  useEffect(() => {
    if (!api) return;
    let isWanted = true;
    const progress = proxy((step: string) => {
      if (isWanted) setBusy(step);
    });
    setBusy('Looking at the photo');
    const now = latest.current;
    setProblem(null);
    api
      .trace(
        { ...(JSON.parse(how) as Omit<TraceAsked, 'tidy' | 'parting'>), ...(JSON.parse(now) as Said) },
        progress,
      )
      .then(reply => {
        if (!isWanted) return;
        setBusy(null);
        setTrace(reply.ok ? reply.trace : null);
        setDone(reply.ok ? { how, said: now } : null);
        if (!reply.ok) setProblem(reply.message);
      })
      .catch(() => {
        if (isWanted) setProblem(BROKEN);
      });
    return () => {
      isWanted = false;
    };
  }, [api, how]);

  // Corrections of the outline are applied to the existing result: nothing is traced again.
  useEffect(() => {
    if (!api || done?.how !== how || done.said === said) return;
    let isWanted = true;
    api
      .shape(JSON.parse(said) as Said)
      .then(reply => {
        if (!isWanted || !reply.ok) return;
        setTrace(reply.trace);
        setDone({ how, said });
      })
      .catch(() => {
        if (isWanted) setProblem(BROKEN);
      });
    return () => {
      isWanted = false;
    };
  }, [api, done, how, said]);

  return {
    size,
    trace,
    problem,
    busy,
    async ask(question) {
      if (!api) return null;
      try {
        return await question(api);
      } catch (error) {
        return { ok: false, message: error instanceof Error ? `${BROKEN} (${error.message})` : BROKEN };
      }
    },
  };
}
