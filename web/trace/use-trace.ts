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
  'Sagoma failed at this photo: it may be larger than this machine’s memory. Close other pages and load this one anew.';

/** One worker holds the picture that is looked at; it ends with the page, and its memory with it. */
export function useTrace(jobId: string, photoId: string, { tidy, ...asked }: TraceAsked): OpenTrace {
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
  const taken = JSON.stringify(tidy);
  /** What the trace that is shown was made by: how it is read, and what was taken of the tidying. */
  const [done, setDone] = useState<{ how: string; taken: string } | null>(null);
  const latest = useRef(taken);
  latest.current = taken;
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
        { ...(JSON.parse(how) as Omit<TraceAsked, 'tidy'>), tidy: JSON.parse(now) as string[] },
        progress,
      )
      .then(reply => {
        if (!isWanted) return;
        setBusy(null);
        setTrace(reply.ok ? reply.trace : null);
        setDone(reply.ok ? { how, taken: now } : null);
        if (!reply.ok) setProblem(reply.message);
      })
      .catch(() => {
        if (isWanted) setProblem(BROKEN);
      });
    return () => {
      isWanted = false;
    };
  }, [api, how]);

  // What was taken of the tidying is laid on what was found: nothing is looked for anew.
  useEffect(() => {
    if (!api || done?.how !== how || done.taken === taken) return;
    let isWanted = true;
    api
      .tidy(JSON.parse(taken) as string[])
      .then(reply => {
        if (!isWanted || !reply.ok) return;
        setTrace(reply.trace);
        setDone({ how, taken });
      })
      .catch(() => {
        if (isWanted) setProblem(BROKEN);
      });
    return () => {
      isWanted = false;
    };
  }, [api, done, how, taken]);

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
