import { zodResolver } from '@hookform/resolvers/zod';
import { useForm } from 'react-hook-form';
import { VoidRow } from '../../../contract/jobs';
import type { HistoryKindName } from '../../../core/job/history';
import { useBench } from '../../job/bench-context';
import { Button, Dialog } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Notice, Row, Stack } from '../../ui/layout';

/** A row of the logbook that is to be voided. */
export interface Voiding {
  kind: HistoryKindName;
  id: string;
  name: string;
}

const Why = VoidRow.pick({ reason: true });

/** Asks why something that was made or tried does not count; it stays, struck through. */
export function VoidDialog({ voiding: { kind, id, name }, onClose }: { voiding: Voiding; onClose(): void }) {
  const { session } = useBench('session');
  const { control, handleSubmit, setError, formState } = useForm({
    resolver: zodResolver(Why),
    defaultValues: { reason: '' },
  });
  const send = handleSubmit(async ({ reason }) => {
    try {
      await session.append('void', () => ({ kind, id, reason }));
      onClose();
    } catch (failure) {
      setError('root', { message: (failure as Error).message });
    }
  });
  return (
    <Dialog title={`Why does ${name} not count?`} isOpen onClose={onClose}>
      <form onSubmit={event => void send(event)}>
        <Stack>
          <p className="soft">
            It stays in the logbook, struck through; nothing is learned from it any more.
          </p>
          <FormField
            control={control}
            name="reason"
            label="Reason"
            placeholder="printed with the wrong spool"
            autoFocus
          />
          {formState.errors.root ? <Notice level="stop">{formState.errors.root.message}</Notice> : null}
          <Row>
            <Button $look="danger" type="submit" isDisabled={formState.isSubmitting}>
              It does not count
            </Button>
            <Button $look="quiet" onPress={onClose}>
              Cancel
            </Button>
          </Row>
        </Stack>
      </form>
    </Dialog>
  );
}
