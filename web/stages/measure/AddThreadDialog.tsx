import { zodResolver } from '@hookform/resolvers/zod';
import { useForm, useWatch } from 'react-hook-form';
import { ulid } from 'ulid';
import { z } from 'zod';
import type { MeasuredThread } from '../../../core/job/document';
import { dimensionsForThread } from '../../../core/job/threads';
import { useBench } from '../../job/bench-context';
import { Button, Checkbox, Dialog, Select } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Row, Stack } from '../../ui/layout';
import { nameFor } from './own-dimension';

const Wish = z.object({
  label: z.string().trim().max(60, 'At most 60 characters.'),
  side: z.enum(['external', 'internal']),
  /** The diameter that is usually reached, or the other one. */
  measured: z.enum(['usual', 'other']),
  ridge: z.boolean(),
});
type Wish = z.infer<typeof Wish>;
const FIRST: Wish = { label: '', side: 'external', measured: 'usual', ridge: false };

/** A thread on the object: its name and its side; its dimensions come with it. */
export function AddThreadDialog({
  onClose,
  onAdded,
}: {
  onClose(): void;
  onAdded(thread: MeasuredThread): void;
}) {
  const { document, edit } = useBench('document', 'edit');
  const { control, handleSubmit, setValue } = useForm<Wish>({
    resolver: zodResolver(Wish),
    defaultValues: FIRST,
  });
  const { side, measured, ridge } = { ...FIRST, ...useWatch({ control }) };
  const add = handleSubmit(async ({ label }) => {
    const name = label.trim() || 'Thread';
    const thread: MeasuredThread = {
      id: ulid(),
      label: name,
      side,
      diameter: ulid(),
      ...(measured === 'other'
        ? { measured: side === 'external' ? ('minor' as const) : ('major' as const) }
        : {}),
      span: ulid(),
      turns: 5,
      ridgeHeight: ridge ? ulid() : null,
      ridgeWidth: ridge ? ulid() : null,
      hand: null,
      taper: null,
      starts: 1,
      crest: null,
      standard: null,
    };
    // All names of a thread begin alike, and unlike any other in the job.
    const base = nameFor(
      name,
      document.dimensions.map(d => ({ name: d.name.replace(/_(major|hole|core)$/, '') })),
    );
    if (
      await edit({ kind: 'add-thread', thread, dimensions: dimensionsForThread(thread, base.slice(0, 25)) })
    )
      onAdded(thread);
  });
  return (
    <Dialog title="Measure a thread" isOpen onClose={onClose} width={460}>
      <form onSubmit={event => void add(event)}>
        <Stack $gap={12}>
          <FormField
            control={control}
            name="label"
            label="Where is it?"
            placeholder="Outlet of the tank"
            maxLength={60}
            autoFocus
          />
          <Select
            label="Which side is on the object?"
            value={side}
            options={[
              { value: 'external', label: 'outside: ridges stand out' },
              { value: 'internal', label: 'inside a hole' },
            ]}
            onChange={s => setValue('side', s)}
          />
          <Select
            label="Which diameter can be reached?"
            value={measured}
            options={
              side === 'external'
                ? [
                    { value: 'usual', label: 'the outside, over the ridges' },
                    { value: 'other', label: 'the core, with the tips of the jaws' },
                  ]
                : [
                    { value: 'usual', label: 'the hole between the ridges' },
                    { value: 'other', label: 'from root to root' },
                  ]
            }
            onChange={m => setValue('measured', m)}
          />
          <Checkbox isSelected={ridge} onChange={on => setValue('ridge', on)}>
            It is coarse or odd: measure the ridge’s height and width too
          </Checkbox>
          <Row style={{ justifyContent: 'flex-end' }}>
            <Button $look="main" type="submit">
              Measure it
            </Button>
          </Row>
        </Stack>
      </form>
    </Dialog>
  );
}
