import { type ReactNode, useState } from 'react';
import type { Dimension, Reading } from '../../../core/job/document';
import { useBench } from '../../job/bench-context';
import { Button, Dialog, Select, TextField } from '../../ui/controls';
import { Row, Stack } from '../../ui/layout';
import { answers } from './answers';
import { ownDimension } from './own-dimension';

interface Props {
  /** What was found, as it is called. */
  title: string;
  kind: Dimension['kind'];
  /** How large it is, or a choice of its sizes. */
  size: ReactNode;
  /** What it was found on: scan, photo. */
  off: 'scan' | 'photo';
  reading(): Reading;
  /** What it costs to take it; `read`: calipers read the same. */
  note(read: boolean): ReactNode;
  /** Other readings that may be taken with it. */
  also?(take: (with_: Reading) => void): ReactNode;
  onClose(): void;
}

const OWN = 'own';

/** A size off a scan or a photo becomes a reading: of a dimension that the recipe asks for, or of one of its own. */
export function TakeReadingDialog({ title, kind, size, off, reading, note, also, onClose }: Props) {
  const { document, resolved, edit, say, select } = useBench('document', 'resolved', 'edit', 'say', 'select');
  const wanted = new Set(resolved.needed.map(n => n.dimension.id));
  const fitting = document.dimensions
    .filter(d => !d.derived && answers(d.kind, kind))
    .sort((a, b) => Number(wanted.has(b.id)) - Number(wanted.has(a.id)));
  const [to, setTo] = useState<string>(
    fitting.find(d => wanted.has(d.id) && d.readings.length === 0)?.id ?? fitting[0]?.id ?? OWN,
  );
  const [name, setName] = useState(title);
  const target = fitting.find(d => d.id === to);
  const called = target?.label ?? (name.trim() || title);
  const take = async (...more: Reading[]) => {
    let dimensionId = target?.id;
    if (dimensionId === undefined) {
      const fresh = ownDimension(called, kind, document.dimensions);
      if (!(await edit({ kind: 'add-dimension', dimension: fresh }))) return;
      dimensionId = fresh.id;
    }
    const of = dimensionId;
    const readings = [reading(), ...more].map(r => ({ dimensionId: of, reading: r }));
    if (!(await edit({ kind: 'add-readings', readings }))) return;
    select(of);
    say(`${called} has a reading off the ${off}.`);
    onClose();
  };
  return (
    <Dialog title={`Take ${title.toLowerCase()} as a reading`} isOpen onClose={onClose} width={480}>
      <Stack $gap={12}>
        {size}
        <Select
          label="It is a reading of"
          value={target ? to : OWN}
          options={[
            ...fitting.map(d => ({ value: d.id, label: d.label })),
            { value: OWN, label: 'a new dimension of your own' },
          ]}
          onChange={setTo}
        />
        {target ? null : (
          <TextField label="What it is called" value={name} onChange={setName} maxLength={120} />
        )}
        {note(target?.readings.some(r => r.source === 'seat' && r.struck === null) ?? false)}
        {also?.(with_ => void take(with_))}
        <Row style={{ justifyContent: 'flex-end' }}>
          <Button $look="main" onPress={() => void take()}>
            Take it
          </Button>
        </Row>
      </Stack>
    </Dialog>
  );
}
