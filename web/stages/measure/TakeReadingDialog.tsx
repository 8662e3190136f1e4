import { zodResolver } from '@hookform/resolvers/zod';
import type { ReactNode } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { z } from 'zod';
import type { Dimension, Reading } from '../../../core/job/document';
import { useBench } from '../../job/bench-context';
import { Button, Dialog, Select } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Row, Stack } from '../../ui/layout';
import { answers } from './answers';
import { ownDimension } from './own-dimension';

interface Props {
  /** The name of what was found. */
  title: string;
  kind: Dimension['kind'];
  /** Its size, or a choice of its sizes. */
  size: ReactNode;
  /** Where it was found: scan, photo. */
  off: 'scan' | 'photo';
  reading(): Reading;
  /** The reading to add; `read`: calipers read the same. */
  note(read: boolean): ReactNode;
  /** Other readings that can be added with it. */
  also?(take: (with_: Reading) => void): ReactNode;
  onClose(): void;
}

const OWN = 'own';
const Taken = z.object({
  to: z.string(),
  name: z.string().trim().min(1, 'Give it a name.').max(120, 'At most 120 characters.'),
});

/** A size from a scan or a photo becomes a reading: of a dimension that the recipe asks for, or of a new one. */
export function TakeReadingDialog({ title, kind, size, off, reading, note, also, onClose }: Props) {
  const { document, resolved, edit, say, select } = useBench('document', 'resolved', 'edit', 'say', 'select');
  const wanted = new Set(resolved.needed.map(n => n.dimension.id));
  const fitting = document.dimensions
    .filter(d => !d.derived && answers(d.kind, kind))
    .sort((a, b) => Number(wanted.has(b.id)) - Number(wanted.has(a.id)));
  const { control, handleSubmit, setValue, formState } = useForm({
    resolver: zodResolver(Taken),
    defaultValues: {
      to: fitting.find(d => wanted.has(d.id) && d.readings.length === 0)?.id ?? fitting[0]?.id ?? OWN,
      name: title.slice(0, 120),
    },
  });
  const to = useWatch({ control, name: 'to' });
  const target = fitting.find(d => d.id === to);
  const take = (...more: Reading[]) =>
    handleSubmit(async ({ name }) => {
      let of = target?.id;
      if (of === undefined) {
        const fresh = ownDimension(name, kind, document.dimensions);
        if (!(await edit({ kind: 'add-dimension', dimension: fresh }))) return;
        of = fresh.id;
      }
      const dimensionId = of;
      const readings = [reading(), ...more].map(r => ({ dimensionId, reading: r }));
      if (!(await edit({ kind: 'add-readings', readings }))) return;
      select(dimensionId);
      say(`${target?.label ?? name} has a reading off the ${off}.`);
      onClose();
    });
  return (
    <Dialog title={`Take ${title.toLowerCase()} as a reading`} isOpen onClose={onClose} width={480}>
      <form onSubmit={event => void take()(event)}>
        <Stack $gap={12}>
          {size}
          <Select
            label="It is a reading of"
            value={target ? to : OWN}
            options={[
              ...fitting.map(d => ({ value: d.id, label: d.label })),
              { value: OWN, label: 'a new dimension of your own' },
            ]}
            onChange={chosen => setValue('to', chosen)}
          />
          {target ? null : <FormField control={control} name="name" label="What it is called" />}
          {note(target?.readings.some(r => r.source === 'seat' && r.struck === null) ?? false)}
          {also?.(with_ => void take(with_)())}
          <Row style={{ justifyContent: 'flex-end' }}>
            <Button $look="main" type="submit" isDisabled={formState.isSubmitting}>
              Take it
            </Button>
          </Row>
        </Stack>
      </form>
    </Dialog>
  );
}
