import { Button, Dialog } from '../ui/controls';
import { Row, Stack } from '../ui/layout';
import { useBench } from './bench-context';

/** Two windows changed the job: both sides are shown, and nothing happens until the maker decides. */
export function ConflictDialog() {
  const { session, state } = useBench('session', 'state');
  const { conflict } = state;
  return (
    <Dialog
      title="Another window was quicker"
      isOpen={conflict !== null}
      onClose={() => session.resolveConflict(false)}
    >
      <Stack>
        <p>While you worked here, this was done in another window:</p>
        <ul style={{ margin: 0 }}>
          {(conflict?.theirs ?? []).map((words, i) => (
            <li key={i}>{words}</li>
          ))}
        </ul>
        <p>
          Yours, not saved yet: <b>{conflict?.yours}</b>
        </p>
        <Row $wrap>
          <Button $look="main" onPress={() => session.resolveConflict(true)}>
            Keep both: put mine on top
          </Button>
          <Button onPress={() => session.resolveConflict(false)}>Leave mine out</Button>
        </Row>
      </Stack>
    </Dialog>
  );
}
