import { useEffect, useRef, useState } from 'react';
import type { Press } from '../../../../core/shape/additions/pressed';
import { useBench } from '../../../job/bench-context';
import { type Moved, moversOf } from '../../../solid/movers';

/** What moves the pressed place; null while it is being found out. */
export function useMovers(press: Press): Moved | Error | null {
  const { work, resolved } = useBench('work', 'resolved');
  const [moved, setMoved] = useState<Moved | Error | null>(null);
  const partId = resolved.part.id;
  // Found out once for each press: typing meanwhile must not start it anew.
  const asked = useRef({ work, partId });
  asked.current = { work, partId };
  useEffect(() => {
    let gone = false;
    setMoved(null);
    moversOf(asked.current.work, asked.current.partId, press).then(
      found => {
        if (!gone && found) setMoved(found);
      },
      (error: Error) => {
        if (!gone) setMoved(error);
      },
    );
    return () => {
      gone = true;
    };
  }, [press]);
  return moved;
}
