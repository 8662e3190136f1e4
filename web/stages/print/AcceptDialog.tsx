import { useState } from 'react';
import type { Finding } from '../../../core/shape/findings/finding';
import { Button, Dialog, TextField } from '../../ui/controls';
import { Notice, Row, Stack } from '../../ui/layout';

interface Props {
  /** What stopped the version; null while nothing did. */
  stops: readonly Finding[] | null;
  onAccept(reason: string): void;
  onClose(): void;
}

/** A stop can be overruled by whoever knows better, with a reason that stays in the version. */
export function AcceptDialog({ stops, onAccept, onClose }: Props) {
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState<string>();
  const accept = () => {
    if (reason.trim() === '') setProblem('Say why it is right all the same.');
    else onAccept(reason.trim());
  };
  return (
    <Dialog title="Better not printed like this" isOpen={stops !== null} onClose={onClose}>
      <Stack>
        {stops?.map((f, i) => (
          <Notice key={i} level={f.level}>
            {f.message}
          </Notice>
        ))}
        <TextField
          label="Right all the same, because"
          placeholder="it is a gauge, half the size on purpose"
          value={reason}
          onChange={text => {
            setReason(text.slice(0, 300));
            setProblem(undefined);
          }}
          problem={problem}
        />
        <Row $wrap>
          <Button $look="main" onPress={onClose}>
            Mend it first
          </Button>
          <Button onPress={accept}>Make it all the same</Button>
        </Row>
      </Stack>
    </Dialog>
  );
}
