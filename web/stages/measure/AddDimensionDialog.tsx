import { useState } from 'react';
import type { Dimension } from '../../../core/job/document';
import { useBench } from '../../job/bench-context';
import { Button, Checkbox, Dialog, Select, TextField } from '../../ui/controls';
import { Row, Stack } from '../../ui/layout';
import { nameFor, ownDimension } from './own-dimension';

const KINDS: { value: Dimension['kind']; label: string }[] = [
  { value: 'outside', label: 'an outside: over something' },
  { value: 'inside', label: 'an inside: between or across a hole' },
  { value: 'depth', label: 'a depth: down into something' },
  { value: 'step', label: 'a step: from one face to another' },
  { value: 'length', label: 'a length' },
  { value: 'angle', label: 'an angle' },
];

interface Props {
  onClose(): void;
  /** @param workOut whether it shall be worked out rather than read */
  onAdded(dimension: Dimension, workOut: boolean): void;
}

/** A dimension of the maker’s own. */
export function AddDimensionDialog({ onClose, onAdded }: Props) {
  const { document, edit } = useBench('document', 'edit');
  const [label, setLabel] = useState('');
  const [kind, setKind] = useState<Dimension['kind']>('outside');
  const [critical, setCritical] = useState(false);
  const [note, setNote] = useState('');
  const [tried, setTried] = useState(false);
  const add = async (workOut: boolean) => {
    setTried(true);
    if (!label.trim()) return;
    const dimension = ownDimension(label.trim(), kind, document.dimensions, { critical, note: note.trim() });
    if (await edit({ kind: 'add-dimension', dimension })) onAdded(dimension, workOut);
  };
  return (
    <Dialog title="A dimension of your own" isOpen onClose={onClose}>
      <form
        onSubmit={event => {
          event.preventDefault();
          void add(false);
        }}
      >
        <Stack $gap={12}>
          <TextField
            label="What is it called?"
            value={label}
            onChange={setLabel}
            maxLength={120}
            placeholder="Distance of the two ears"
            problem={tried && !label.trim() ? 'Give it a name.' : undefined}
            hint={label.trim() ? `In sums it is called ${nameFor(label, document.dimensions)}.` : undefined}
            autoFocus
          />
          <Select label="What kind of size is it?" value={kind} options={KINDS} onChange={k => setKind(k)} />
          <Checkbox isSelected={critical} onChange={setCritical}>
            The fit depends on it: ask for three readings
          </Checkbox>
          <TextField label="Note" value={note} onChange={setNote} rows={2} maxLength={4000} />
          <Row style={{ justifyContent: 'flex-end' }} $gap={8} $wrap>
            <Button onPress={() => void add(true)}>Add, and work it out from others</Button>
            <Button $look="main" type="submit">
              Add, and read it
            </Button>
          </Row>
        </Stack>
      </form>
    </Dialog>
  );
}
