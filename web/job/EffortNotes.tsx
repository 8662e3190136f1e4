import { useBench } from './bench-context';
import { RemedyNotice } from './RemedyNotice';

/** Remarks on the effort, where the size itself sat right, and what to change for it. */
export function EffortNotes() {
  const { resolved } = useBench('resolved');
  return resolved.effortAdvice.map(({ mate, words, remedy }) => (
    <RemedyNotice key={mate.id} level="note" remedy={remedy}>
      {words}
    </RemedyNotice>
  ));
}
