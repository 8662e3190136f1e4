import { useEffect, useState } from 'react';
import { isAngleOf } from '../../core/shape/own-mates';
import type { Place } from '../../core/shape/vector';
import { nudgesOf } from '../../core/work/nudges';
import type { Work } from '../../core/work/work';
import type { Stands } from '../workers/solid-protocol';
import { kernelLine } from './kernel-worker';

/** It is searched after this pause in typing, ms: the solid comes first. */
const PAUSE = 500;

/**
 * Where a number of a part appears on its solid; null until that is known, or where it appears nowhere.
 * @param number no search while undefined
 * @param pressed where the maker pressed it
 */
export function useStands(
  work: Work,
  partId: string,
  number: string | undefined,
  pressed: readonly Place[] | undefined,
): Stands | null {
  const { part, parameters, recipe: full } = work.part(partId);
  const spec = full.parameters.find(p => p.name === number);
  const size = number === undefined ? undefined : parameters[number];
  const asks = number !== undefined && spec?.kind === 'length' && typeof size === 'number';
  const angle = number !== undefined && isAngleOf(full.parameters, number);
  const { recipe, additions } = part;
  const key = JSON.stringify([recipe, additions, parameters, asks ? number : null, pressed]);
  const [found, setFound] = useState<{ key: string; stands: Stands | null } | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all that the answer depends on
  useEffect(() => {
    if (!asks) return;
    let gone = false;
    const timer = setTimeout(() => {
      const nudge = nudgesOf(work, partId, number)[0];
      if (!nudge) return;
      kernelLine('movers')
        .ask(api =>
          api.stands(
            { recipe, additions, parameters },
            { size: size as number, angle, nudge, ...(pressed ? { pressed } : {}) },
          ),
        )
        .then(
          answer => {
            if (!gone && answer?.ok) setFound({ key, stands: answer.stands });
          },
          // A kernel error is reported where the solid is shown.
          () => {},
        );
    }, PAUSE);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [key]);
  return found?.key === key ? found.stands : null;
}
