import { useEffect, useRef, useState } from 'react';
import type { Part } from '../../core/job/document';
import type { CheckContext } from '../../core/shape/checks/context';
import type { Finding } from '../../core/shape/findings/finding';
import { Recent } from '../../core/shape/recent';
import type { Parameters } from '../../core/shape/recipes/parameters';
import type { LoadResult } from '../../core/shape/strength/loads';
import type { ShownSolid, SolidReply, SolidRequest } from '../workers/solid-protocol';
import { SolidLine } from './solid-line';

export interface SolidState {
  solid: ShownSolid | null;
  /** Checks on the finished triangles; null while they run. */
  findings: Finding[] | null;
  /** What its loads do to it; null while that is worked out. */
  loads: LoadResult[] | null;
  /** Why there is no solid for these numbers. */
  refused: Finding[] | null;
  /** A newer solid is being made; the one shown belongs to older numbers. */
  busy: boolean;
}

/** Of their own, so that checks on the fine triangles, and comparing, never hold up typing. */
const workers: Partial<Record<SolidRequest['want'], SolidLine>> = {};
export const worker = (want: SolidRequest['want']) => {
  workers[want] ??= new SolidLine(
    () => new Worker(new URL('../workers/solid-worker.ts', import.meta.url), { type: 'module' }),
  );
  return workers[want];
};
/** The checks wait until nobody has typed for this long, ms. */
const CHECK_AFTER = 350;
/** Coming back to numbers that were shown a moment ago, from another stage or by undo, costs nothing. */
const recent = new Recent<SolidState>(8);

export function useSolid(
  { recipe, additions }: Pick<Part, 'recipe' | 'additions'>,
  parameters: Parameters,
  context: CheckContext,
): SolidState {
  const [state, setState] = useState<SolidState>({
    solid: null,
    findings: null,
    loads: null,
    refused: null,
    busy: true,
  });
  const key = JSON.stringify([recipe, additions, parameters, context]);
  /** What is on the screen, and which numbers made it: loads and readings alone change nothing of that. */
  const made = useRef<{ shape: string; solid: ShownSolid } | null>(null);
  const shape = JSON.stringify([recipe, additions, parameters]);
  const asked = useRef({ recipe, additions, parameters, context });
  asked.current = { recipe, additions, parameters, context };
  useEffect(() => {
    let current = true;
    const known = recent.get(key);
    if (known) {
      setState(known);
      return;
    }
    const request = asked.current;
    let later: ReturnType<typeof setTimeout> | undefined;
    let shown: ShownSolid | null = null;
    const show = (solid: ShownSolid) => {
      shown = solid;
      made.current = { shape, solid };
      setState({ solid, findings: null, loads: null, refused: null, busy: false });
      later = setTimeout(() => worker('check').ask({ ...request, want: 'check' }, checked), CHECK_AFTER);
    };
    const checked = (reply: SolidReply) => {
      if (!current || (reply.kind !== 'checked' && reply.kind !== 'failed')) return;
      const loads = reply.kind === 'checked' ? reply.loads : [];
      recent.put(key, { solid: shown, findings: reply.findings, loads, refused: null, busy: false });
      setState(now => ({ ...now, findings: reply.findings, loads }));
    };
    if (made.current?.shape === shape) show(made.current.solid);
    else {
      setState(now => ({ ...now, busy: true, findings: null }));
      worker('show').ask({ ...request, want: 'show' }, reply => {
        if (!current) return;
        if (reply.kind === 'failed')
          setState(now => ({ ...now, busy: false, refused: reply.findings, findings: reply.findings }));
        else if (reply.kind === 'shown') show(reply.solid);
      });
    }
    return () => {
      clearTimeout(later);
      current = false;
    };
  }, [key, shape]);
  return state;
}
