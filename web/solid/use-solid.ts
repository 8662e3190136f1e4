import { useEffect, useRef, useState } from 'react';
import type { CheckContext, Finding, Parameters } from '../../core/shape/recipes/recipe';
import { Recent } from '../../core/shape/solid-key';
import type { ShownSolid, SolidReply, SolidRequest } from '../workers/solid-protocol';

export interface SolidState {
  solid: ShownSolid | null;
  /** Checks on the finished triangles; null while they run. */
  findings: Finding[] | null;
  /** Why there is no solid for these numbers. */
  refused: Finding[] | null;
  /** A newer solid is being made; the one shown belongs to older numbers. */
  busy: boolean;
}

/** Single-threaded kernels cannot be interrupted: a worker stuck this long on old numbers is replaced, ms. */
const STUCK = 2000;
const MOST_HEAP = 600e6;

/** A worker that holds the kernels, shared by every view of a solid; one shows, another checks. */
class SolidWorker {
  private worker: Worker | undefined;
  private id = 0;
  private warm = false;
  private running: { id: number; since: number } | undefined;
  private waiting: SolidRequest | undefined;
  private onReply: (reply: SolidReply) => void = () => {};

  ask(request: Omit<SolidRequest, 'id'>, onReply: (reply: SolidReply) => void): number {
    this.onReply = onReply;
    this.waiting = { ...request, id: ++this.id };
    this.next();
    return this.id;
  }

  private next(): void {
    if (!this.waiting) return;
    if (this.running) {
      // While the kernels start they are slow for a good reason.
      if (this.warm && performance.now() - this.running.since > STUCK) this.replace();
      else {
        setTimeout(() => this.next(), 50);
        return;
      }
    }
    this.worker ??= this.open();
    this.running = { id: this.waiting.id, since: performance.now() };
    this.worker.postMessage(this.waiting);
    this.waiting = undefined;
  }

  private open(): Worker {
    const worker = new Worker(new URL('../workers/solid-worker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('message', (message: MessageEvent<SolidReply>) => {
      const reply = message.data;
      this.warm = true;
      this.running = undefined;
      if (reply.heap > MOST_HEAP) this.replace();
      // Stale results are dropped: only the newest numbers are ever shown.
      if (reply.id === this.id) this.onReply(reply);
      this.next();
    });
    worker.addEventListener('error', () => {
      this.replace();
      const message =
        'The geometry kernel could not start. Reload the page; if it stays so, this browser lacks WebAssembly.';
      this.onReply({
        id: this.id,
        kind: 'failed',
        findings: [{ code: 'no-kernel', level: 'stop', message }],
        heap: 0,
      });
    });
    return worker;
  }

  private replace(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.running = undefined;
    this.warm = false;
  }
}

/** Two, so that the checks on the fine triangles never hold up typing. */
const workers: { show?: SolidWorker; check?: SolidWorker } = {};
const worker = (want: 'show' | 'check') => {
  workers[want] ??= new SolidWorker();
  return workers[want];
};
/** The checks wait until nobody has typed for this long, ms. */
const CHECK_AFTER = 350;
/** Coming back to numbers that were shown a moment ago, from another stage or by undo, costs nothing. */
const recent = new Recent<SolidState>(8);

export function useSolid(recipe: string, parameters: Parameters, context: CheckContext): SolidState {
  const [state, setState] = useState<SolidState>({ solid: null, findings: null, refused: null, busy: true });
  const key = JSON.stringify([recipe, parameters, context]);
  const asked = useRef({ recipe, parameters, context });
  asked.current = { recipe, parameters, context };
  useEffect(() => {
    let current = true;
    const known = recent.get(key);
    if (known) {
      setState(known);
      return;
    }
    setState(now => ({ ...now, busy: true, findings: null }));
    const { recipe: name, parameters: values, context: against } = asked.current;
    const request = { recipe: name, parameters: values, context: against };
    let later: ReturnType<typeof setTimeout> | undefined;
    let shown: ShownSolid | null = null;
    worker('show').ask({ ...request, want: 'show' }, reply => {
      if (!current) return;
      if (reply.kind === 'failed') {
        setState(now => ({ ...now, busy: false, refused: reply.findings, findings: reply.findings }));
      } else if (reply.kind === 'shown') {
        shown = reply.solid;
        setState({ solid: reply.solid, findings: null, refused: null, busy: false });
        later = setTimeout(() => worker('check').ask({ ...request, want: 'check' }, checked), CHECK_AFTER);
      }
    });
    const checked = (reply: SolidReply) => {
      if (!current || reply.kind === 'shown') return;
      recent.put(key, { solid: shown, findings: reply.findings, refused: null, busy: false });
      setState(now => ({ ...now, findings: reply.findings }));
    };
    return () => {
      clearTimeout(later);
      current = false;
    };
  }, [key]);
  return state;
}
