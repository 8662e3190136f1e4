import { useState } from 'react';
import { ulid } from 'ulid';
import type { MeasuredThread } from '../../../core/job/document';
import { dimensionsForThread } from '../../../core/job/threads';
import { useBench } from '../../job/bench-context';
import { Button, Checkbox, Dialog, Select, TextField } from '../../ui/controls';
import { Row, Stack } from '../../ui/layout';
import { nameFor } from './own-dimension';

/** A thread on the object: what it is called and which way it faces; its dimensions come with it. */
export function AddThreadDialog({
  onClose,
  onAdded,
}: {
  onClose(): void;
  onAdded(thread: MeasuredThread): void;
}) {
  const { document, edit } = useBench('document', 'edit');
  const [label, setLabel] = useState('');
  const [side, setSide] = useState<MeasuredThread['side']>('external');
  const [measured, setMeasured] = useState<'usual' | 'other'>('usual');
  const [ridge, setRidge] = useState(false);
  const add = async () => {
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
    // All of a thread's names begin alike, and unlike any other in the job.
    const base = nameFor(
      name,
      document.dimensions.map(d => ({ name: d.name.replace(/_(major|hole|core)$/, '') })),
    );
    if (
      await edit({ kind: 'add-thread', thread, dimensions: dimensionsForThread(thread, base.slice(0, 25)) })
    )
      onAdded(thread);
  };
  return (
    <Dialog title="Measure a thread" isOpen onClose={onClose} width={460}>
      <form
        onSubmit={event => {
          event.preventDefault();
          void add();
        }}
      >
        <Stack $gap={12}>
          <TextField
            label="Where is it?"
            value={label}
            onChange={setLabel}
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
            onChange={s => setSide(s)}
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
            onChange={m => setMeasured(m)}
          />
          <Checkbox isSelected={ridge} onChange={setRidge}>
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
