import { useEffect, useRef, useState } from 'react';
import type { Work } from '../../../../core/work/work';
import { useBench } from '../../../job/bench-context';

/**
 * The answer to a question about a pressed place of the solid; null while it is worked out.
 * @param about the press: worked out once for each, so that typing meanwhile does not start it again
 */
export function useFoundOut<T>(
  about: unknown,
  ask: (work: Work, partId: string) => Promise<T | null>,
): T | Error | null {
  const { work, resolved } = useBench('work', 'resolved');
  const [found, setFound] = useState<T | Error | null>(null);
  const now = { ask, work, partId: resolved.part.id };
  const asked = useRef(now);
  asked.current = now;
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked anew for each press alone
  useEffect(() => {
    let gone = false;
    setFound(null);
    asked.current.ask(asked.current.work, asked.current.partId).then(
      answer => {
        if (!gone && answer) setFound(() => answer);
      },
      (error: Error) => {
        if (!gone) setFound(error);
      },
    );
    return () => {
      gone = true;
    };
  }, [about]);
  return found;
}
