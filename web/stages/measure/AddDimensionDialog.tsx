import { zodResolver } from '@hookform/resolvers/zod';
import { useForm, useWatch } from 'react-hook-form';
import { z } from 'zod';
import { Dimension } from '../../../core/job/document';
import { Note } from '../../../core/job/fields';
import { useBench } from '../../job/bench-context';
import { Button, Checkbox, Dialog, Select } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
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

const NewDimension = z.object({
  label: z.string().trim().min(1, 'Give it a name.').max(120, 'At most 120 characters.'),
  kind: Dimension.shape.kind,
  critical: z.boolean(),
  note: Note.trim(),
});

interface Props {
  onClose(): void;
  /** @param workOut whether it will be derived rather than read */
  onAdded(dimension: Dimension, workOut: boolean): void;
}

/** A dimension of the maker’s own. */
export function AddDimensionDialog({ onClose, onAdded }: Props) {
  const { document, edit } = useBench('document', 'edit');
  const { control, handleSubmit, setValue } = useForm({
    resolver: zodResolver(NewDimension),
    defaultValues: { label: '', kind: 'outside' as Dimension['kind'], critical: false, note: '' },
  });
  const { label = '', kind = 'outside', critical = false } = useWatch({ control });
  const add = (workOut: boolean) =>
    handleSubmit(async wish => {
      const { critical: needed, note } = wish;
      const dimension = ownDimension(wish.label, wish.kind, document.dimensions, { critical: needed, note });
      if (await edit({ kind: 'add-dimension', dimension })) onAdded(dimension, workOut);
    });
  return (
    <Dialog title="A dimension of your own" isOpen onClose={onClose}>
      <form onSubmit={event => void add(false)(event)}>
        <Stack $gap={12}>
          <FormField
            control={control}
            name="label"
            label="What is it called?"
            maxLength={120}
            placeholder="Distance of the two ears"
            hint={label.trim() ? `In sums it is called ${nameFor(label, document.dimensions)}.` : undefined}
            autoFocus
          />
          <Select
            label="What kind of size is it?"
            value={kind}
            options={KINDS}
            onChange={k => setValue('kind', k)}
          />
          <Checkbox isSelected={critical} onChange={on => setValue('critical', on)}>
            The fit depends on it: ask for three readings
          </Checkbox>
          <FormField control={control} name="note" label="Note" rows={2} maxLength={4000} />
          <Row style={{ justifyContent: 'flex-end' }} $gap={8} $wrap>
            <Button onPress={() => void add(true)()}>Add, and work it out from others</Button>
            <Button $look="main" type="submit">
              Add, and read it
            </Button>
          </Row>
        </Stack>
      </form>
    </Dialog>
  );
}
