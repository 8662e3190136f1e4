import { useEffect, useRef, useState } from 'react';
import { isSameDirection, type Pose } from '../../../../core/print/pose';
import type { Estimate } from '../../../../core/print/time';
import { posesAsked } from '../../../../core/work/poses-asked';
import { useBench } from '../../../job/bench-context';
import { kernelLine } from '../../../solid/kernel-worker';
import type { ShownPose } from '../../../workers/solid-protocol';

export interface Poses {
  poses: ShownPose[];
  /** Number of pieces; 0 where it is in one piece. */
  pieces: number;
  /** For a part in pieces: time and plastic of all of them at once. */
  laid: Estimate | null;
}

/**
 * The possible poses of the part; null while they are worked out. Earlier results stay on the screen meanwhile.
 * @param after waits for a pause of this length, ms; null: nothing is asked yet
 */
export function usePoses(after: number | null = 0): { found: Poses | Error | null; busy: boolean } {
  const { resolved } = useBench('resolved');
  const { recipe, additions } = resolved.part;
  const asked = { part: { recipe, additions, parameters: resolved.parameters }, poses: posesAsked(resolved) };
  const key = JSON.stringify(asked);
  const [state, setState] = useState<{ key: string; found: Poses | Error } | null>(null);
  const now = useRef(asked);
  now.current = asked;
  useEffect(() => {
    if (after === null) return;
    let gone = false;
    const ask = () => {
      const { part, poses } = now.current;
      kernelLine('poses')
        .ask(api => api.poses(part, poses))
        .then(
          answer => {
            if (gone || !answer) return;
            const found = answer.ok
              ? { poses: answer.poses, pieces: answer.pieces, laid: answer.laid }
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

/** The current pose of a part, and its time and plastic; neither while unknown. */
export function asPlaced(
  found: Poses | Error | null,
  pose: Pose,
): { ranked?: ShownPose; estimate?: Estimate } {
  if (!found || found instanceof Error) return {};
  const ranked = found.poses.find(p => isSameDirection(p.plan.pose.down, pose.down));
  return { ranked, estimate: ranked?.estimate ?? found.laid ?? undefined };
}
