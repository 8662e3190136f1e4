import { pieceWords } from '../../../core/job/history/print';
import { capital } from '../../../core/quantity/format';
import type { Running } from '../../../core/work/running';
import { useBench } from '../../job/bench-context';
import { sinceWords } from '../../ui/clock-words';
import { Button } from '../../ui/controls';
import { Notice, Stack } from '../../ui/layout';

/** Prints that are on a printer, until their outcome is recorded. */
export function OnPrinter({ running }: { running: readonly Running[] }) {
  const { session, say } = useBench('session', 'say');
  if (running.length === 0) return null;
  return (
    <Stack $gap={6} style={{ marginTop: 10 }}>
      {running.map(({ start, version, ready }) => (
        <Notice
          key={start.id}
          level="note"
          action={
            <Button
              $small
              $look="quiet"
              onPress={() =>
                void session
                  .append('void', () => ({ kind: 'start', id: start.id, reason: 'not printed after all' }))
                  .catch((error: Error) => say(error.message, 'stop'))
              }
            >
              Not printed after all
            </Button>
          }
        >
          {capital(`${pieceWords(start)}version ${version.number}`)}
          {start.pieces > 1 ? `, ${start.pieces} pieces,` : ''} {sinceWords(start.at, ready)}. Say below how
          it came out; with the time when it finished, its hours are known.
        </Notice>
      ))}
    </Stack>
  );
}
