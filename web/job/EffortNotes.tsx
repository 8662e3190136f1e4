import { effortAdvice } from '../../core/job/effort';
import { Button } from '../ui/controls';
import { Notice } from '../ui/layout';
import { useBench } from './bench-context';

/** What the hands said of the effort, where the size itself sat right, and what to change for it. */
export function EffortNotes() {
  const { document, resolved, job, edit } = useBench();
  return effortAdvice(document, resolved, job.history).map(({ mate, words, remedy }) => (
    <Notice
      key={mate.id}
      level="note"
      action={
        remedy ? (
          <Button
            $small
            onPress={() =>
              void edit({
                kind: 'parameter',
                partId: resolved.part.id,
                name: remedy.parameter,
                expression: { text: remedy.text, unit: 'mm' },
              })
            }
          >
            {remedy.label}
          </Button>
        ) : undefined
      }
    >
      {words}
    </Notice>
  ));
}
