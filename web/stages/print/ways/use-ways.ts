import { useEffect, useRef, useState } from 'react';
import { isSameWay, type Pose } from '../../../../core/print/pose';
import type { Estimate } from '../../../../core/print/time';
import { waysAsked } from '../../../../core/work/ways-to-lie';
import { useBench } from '../../../job/bench-context';
import { kernelLine } from '../../../solid/kernel-worker';
import type { ShownWay } from '../../../workers/solid-protocol';

export interface Ways {
  ways: ShownWay[];
  /** What the part falls into; 0 where it is one. */
  pieces: number;
  /** Of a part in pieces: what all of them take at once. */
  laid: Estimate | null;
}

/**
 * How the part may lie; null while that is worked out. What was found before stays on the screen meanwhile.
 * @param after what is asked about must stand still for so long, ms; null: nothing is asked yet
 */
export function useWays(after: number | null = 0): { found: Ways | Error | null; busy: boolean } {
  const { resolved } = useBench('resolved');
  const { recipe, additions } = resolved.part;
  const asked = { part: { recipe, additions, parameters: resolved.parameters }, ways: waysAsked(resolved) };
  const key = JSON.stringify(asked);
  const [state, setState] = useState<{ key: string; found: Ways | Error } | null>(null);
  const now = useRef(asked);
  now.current = asked;
  useEffect(() => {
    if (after === null) return;
    let gone = false;
    const ask = () => {
      const { part, ways } = now.current;
      kernelLine('ways')
        .ask(api => api.ways(part, ways))
        .then(
          answer => {
            if (gone || !answer) return;
            const found = answer.ok
              ? { ways: answer.ways, pieces: answer.pieces, laid: answer.laid }
              : new Error(answer.findings[0]?.message ?? 'The solid could not be built.');
            setState({ key, found });
          },
          (error: Error) => {
            if (!gone) setState({ key, found: error });
          },
        );
    };
    const later = setTimeout(ask, after);
    return () => {
      clearTimeout(later);
      gone = true;
    };
  }, [key, after]);
  return { found: state?.found ?? null, busy: state?.key !== key };
}

/** The way in which a part lies now, and what it takes so; neither while they are not known. */
export function asItLies(found: Ways | Error | null, pose: Pose): { way?: ShownWay; estimate?: Estimate } {
  if (!found || found instanceof Error) return {};
  const way = found.ways.find(w => isSameWay(w.plan.pose.down, pose.down));
  return { way, estimate: way?.estimate ?? found.laid ?? undefined };
}
