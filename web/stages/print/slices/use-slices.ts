import { useEffect, useRef, useState } from 'react';
import { posesAsked } from '../../../../core/work/poses-asked';
import { useBench } from '../../../job/bench-context';
import { kernelLine } from '../../../solid/kernel-worker';
import type { ShownSlice } from '../../../workers/solid-protocol';

/** Slices of the part with its current numbers, one for each surface that must fit; null while unknown. */
export function useSlices(wanted: boolean): ShownSlice[] | null {
  const { resolved } = useBench('resolved');
  const { part, parameters, ledger } = resolved;
  const { now, settings, machine } = posesAsked(resolved);
  const asked = {
    of: { recipe: part.recipe, additions: part.additions, parameters },
    surfaces: ledger.mates.map(m => m.mate.ours.surface),
    how: { now, settings, machine },
  };
  const key = JSON.stringify(asked);
  const [state, setState] = useState<{ key: string; slices: ShownSlice[] } | null>(null);
  const latest = useRef(asked);
  latest.current = asked;
  useEffect(() => {
    if (!wanted) return;
    let gone = false;
    const { of, surfaces, how } = latest.current;
    kernelLine('slices')
      .ask(api => api.slices(of, surfaces, how))
      .then(
        answer => {
          if (!gone && answer) setState({ key, slices: answer.ok ? answer.slices : [] });
        },
        // Without slices the other options are compared alone.
        () => {
          if (!gone) setState({ key, slices: [] });
        },
      );
    return () => {
      gone = true;
    };
  }, [key, wanted]);
  return state?.key === key ? state.slices : null;
}
