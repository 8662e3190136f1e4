import { useEffect, useRef, useState } from 'react';
import type { Part } from '../../core/job/document';
import type { CheckContext } from '../../core/shape/checks/context';
import type { Finding } from '../../core/shape/findings/finding';
import { Recent } from '../../core/shape/recent';
import type { Parameters } from '../../core/shape/recipes/parameters';
import type { LoadResult } from '../../core/shape/strength/loads';
import type { ShownSolid } from '../workers/solid-protocol';
import { brokenKernel, kernelLine } from './kernel-worker';

export interface SolidState {
  solid: ShownSolid | null;
  /** Checks on the finished triangles; null while they run. */
  findings: Finding[] | null;
  /** The effect of its loads; null while that is worked out. */
  loads: LoadResult[] | null;
  /** Why there is no solid for these numbers. */
  refused: Finding[] | null;
  /** A newer solid is being made; the one shown belongs to older numbers. */
  busy: boolean;
}

/** The checks start after this pause in typing, ms. */
const CHECK_AFTER = 350;
/** Returning to numbers that were shown a moment ago, from another stage or by undo, costs nothing. */
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
  /** The solid on the screen and the numbers that made it: loads and readings alone do not change it. */
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
    const { context: asks, ...part } = asked.current;
    let later: ReturnType<typeof setTimeout> | undefined;
    const check = async (solid: ShownSolid) => {
      const answer = await kernelLine('check')
        .ask(api => api.check(part, asks))
        .catch((error: Error) => ({ findings: brokenKernel(error), loads: [] }));
      if (!current || !answer) return;
      const { findings, loads } = answer;
      recent.put(key, { solid, findings, loads, refused: null, busy: false });
      setState(now => ({ ...now, findings, loads }));
    };
    const show = (solid: ShownSolid) => {
      made.current = { shape, solid };
      setState({ solid, findings: null, loads: null, refused: null, busy: false });
      later = setTimeout(() => void check(solid), CHECK_AFTER);
    };
    const build = async () => {
      setState(now => ({ ...now, busy: true, findings: null }));
      const answer = await kernelLine('show')
        .ask(api => api.show(part))
        .catch((error: Error) => ({ ok: false as const, findings: brokenKernel(error) }));
      if (!current || !answer) return;
      if (answer.ok) show(answer.solid);
      else setState(now => ({ ...now, busy: false, refused: answer.findings, findings: answer.findings }));
    };
    if (made.current?.shape === shape) show(made.current.solid);
    else void build();
    return () => {
      clearTimeout(later);
      current = false;
    };
  }, [key, shape]);
  return state;
}
