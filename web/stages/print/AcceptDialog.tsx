import { zodResolver } from '@hookform/resolvers/zod';
import { useForm } from 'react-hook-form';
import { z } from 'zod';
import type { Finding } from '../../../core/shape/findings/finding';
import { Button, Dialog } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Notice, Row, Stack } from '../../ui/layout';

interface Props {
  /** The findings that stopped the version; null while none did. */
  stops: readonly Finding[] | null;
  onAccept(reason: string): void;
  /** Leads to what has to change. */
  onMend(): void;
  onClose(): void;
}

const Reason = z.object({
  reason: z.string().trim().min(1, 'Say why it is right all the same.').max(300, 'At most 300 characters.'),
});

/** A stop can be overruled with a reason, which stays in the version. */
export function AcceptDialog({ stops, onAccept, onMend, onClose }: Props) {
  const { control, handleSubmit } = useForm({
    resolver: zodResolver(Reason),
    defaultValues: { reason: '' },
  });
  const accept = handleSubmit(({ reason }) => onAccept(reason));
  return (
    <Dialog title="Better not printed like this" isOpen={stops !== null} onClose={onClose}>
      <Stack>
        {stops?.map((f, i) => (
          <Notice key={i} level={f.level}>
            {f.message}
          </Notice>
        ))}
        <FormField
          control={control}
          name="reason"
          label="Right all the same, because"
          placeholder="it is a gauge, half the size on purpose"
        />
        <Row $wrap>
          <Button $look="main" onPress={onMend}>
            Mend it first
          </Button>
          <Button onPress={() => void accept()}>Make it all the same</Button>
        </Row>
      </Stack>
    </Dialog>
  );
}
