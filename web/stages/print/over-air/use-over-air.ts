import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { rulesOf, settingsOf } from '../../../../core/print/of-printer';
import type { OverAirAsked } from '../../../../core/print/over-air/over-air';
import type { Remedy } from '../../../../core/print/over-air/remedies';
import { useBench } from '../../../job/bench-context';
import { kernelLine } from '../../../solid/kernel-worker';
import type { ShownHang, ShownSolid } from '../../../workers/solid-protocol';

export interface OverAirFound {
  solid: ShownSolid;
  hangs: ShownHang[];
  /** Those that were found, by place in the list. */
  remedies: Readonly<Record<number, Remedy>>;
  /** Whether more are being tried. */
  trying: boolean;
}

/** What hangs over air in the part's current pose; null while that is worked out. */
export function useOverAir(): OverAirFound | Error | null {
  const { resolved } = useBench('resolved');
  const { part, printer, parameters } = resolved;
  const asked: OverAirAsked = {
    now: part.pose,
    rules: rulesOf(printer),
    layer: settingsOf(printer, part.quality).layer,
  };
  const of = { recipe: part.recipe, additions: part.additions, parameters };
  const key = JSON.stringify([of, asked]);
  const [state, setState] = useState<{ key: string; found: OverAirFound | Error } | null>(null);
  const now = useRef({ of, asked });
  now.current = { of, asked };
  useEffect(() => {
    let gone = false;
    const line = kernelLine('overAir');
    const look = async () => {
      const { of: spec, asked: how } = now.current;
      const answer = await line.ask(api => api.overAir(spec, how));
      if (gone || !answer) return;
      if (!answer.ok) {
        setState({ key, found: new Error(answer.findings[0]?.message ?? 'The solid could not be built.') });
        return;
      }
      const { solid, hangs } = answer;
      const asks = hangs.some(h => h.kind !== 'bridge' && h.area > 0);
      const show = (remedies: Readonly<Record<number, Remedy>>, trying: boolean) =>
        setState({ key, found: { solid, hangs, remedies, trying } });
      show({}, asks);
      if (!asks) return;
      let answered = false;
      let soFar: Readonly<Record<number, Remedy>> = {};
      const found = proxy((place: number, remedy: Remedy) => {
        if (gone || answered) return;
        soFar = { ...soFar, [place]: remedy };
        show(soFar, true);
      });
      const mended = await line.ask(api => api.remedies(spec, how, found));
      // Progress messages may arrive after the answer.
      answered = true;
      if (!gone && mended) show(mended.ok ? mended.remedies : soFar, false);
    };
    look().catch((error: Error) => {
      if (!gone) setState({ key, found: error });
    });
    return () => {
      gone = true;
    };
  }, [key]);
  return state?.key === key ? state.found : null;
}
