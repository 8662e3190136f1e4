import { useEffect } from 'react';
import { useBench } from '../job/bench-context';
import { PrintInHand, usePrintInHand } from '../stages/try/print-in-hand';
import { TryForm } from '../stages/try/TryForm';
import { Empty, Notice } from '../ui/layout';

/** How the print sits, entered with the object in the other hand. */
export function PhoneVerdict() {
  const { overview, resolved } = useBench('overview', 'resolved');
  const inHand = usePrintInHand();
  const { shown } = inHand;
  const tries = resolved.history.tries.length;
  useEffect(() => {
    // The result is at the top.
    if (tries > 0) scrollTo(0, 0);
  }, [tries]);
  if (!shown)
    return (
      <Empty title="Nothing to try yet">
        Once a version is printed, put it on and say here how each surface feels.
      </Empty>
    );
  const { print, version, outcome } = shown;
  return (
    <>
      <PrintInHand {...inHand} shown={shown} />
      {outcome ? (
        <div style={{ marginBottom: 14 }}>
          <Notice level="note">
            {outcome.right ? 'Every surface sits right.' : 'Recorded.'} At the bench: {overview.next.action}.{' '}
            {overview.next.reason}
          </Notice>
        </div>
      ) : null}
      <TryForm key={print.id} version={version} print={print} outcome={outcome} />
    </>
  );
}
