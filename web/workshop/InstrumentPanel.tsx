import { zodResolver } from '@hookform/resolvers/zod';
import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import { useState } from 'react';
import { useFieldArray, useForm, useWatch } from 'react-hook-form';
import styled from 'styled-components';
import { ulid } from 'ulid';
import { z } from 'zod';
import { RepeatabilityAnswer } from '../../contract/workshop';
import type { Instrument } from '../../core/job/workshop';
import { formatPlain } from '../../core/quantity/format';
import { get } from '../api/client';
import { Button, Dialog, Select } from '../ui/controls';
import { FormField } from '../ui/FormField';
import { Notice, Panel, Row, Stack } from '../ui/layout';
import { lengthIn, typedLength } from '../ui/typed-length';
import { ListHead, Remove, Tail } from './list-look';
import { NumberField } from './NumberField';
import { useWorkshopForm } from './workshop-form';

/** Initial figures for a new instrument of each kind. Common practice, no source. */
const KINDS: { value: Instrument['kind']; label: string; resolution: number; maxError: number }[] = [
  { value: 'calipers', label: 'calipers', resolution: 0.01, maxError: 0.03 },
  { value: 'rule', label: 'rule', resolution: 0.5, maxError: 0.2 },
  { value: 'micrometer', label: 'micrometer', resolution: 0.01, maxError: 0.004 },
  { value: 'depth-gauge', label: 'depth gauge', resolution: 0.02, maxError: 0.04 },
  { value: 'pin-gauges', label: 'pin gauges', resolution: 0.05, maxError: 0.005 },
  { value: 'radius-gauge', label: 'radius gauge', resolution: 0.25, maxError: 0.1 },
  { value: 'tape', label: 'tape', resolution: 1, maxError: 0.5 },
  { value: 'protractor', label: 'protractor', resolution: 0.5, maxError: 0.3 },
  { value: 'flatbed', label: 'flatbed scanner', resolution: 0.05, maxError: 0.15 },
  { value: 'other', label: 'other', resolution: 0.1, maxError: 0.1 },
];

type Asking = { what: 'zero' | 'block'; at: number };

/** The workshop's instruments, and how far each can be trusted. */
export function InstrumentPanel() {
  const { control, setValue } = useWorkshopForm();
  const { fields, append, remove } = useFieldArray({ control, name: 'instruments', keyName: 'key' });
  const instruments = useWatch({ control, name: 'instruments' });
  const [asking, setAsking] = useState<Asking | null>(null);
  const learned = useQuery({
    queryKey: ['repeatability'],
    queryFn: () => get('/workshop/repeatability', RepeatabilityAnswer),
  });
  const change = (at: number, to: Partial<Instrument>) =>
    setValue(`instruments.${at}`, { ...instruments[at]!, ...to });
  const asked = asking && instruments[asking.at];
  return (
    <Panel>
      <ListHead
        title="Instruments"
        onAdd={() => {
          const { value: kind, resolution, maxError } = KINDS[0]!;
          append({ id: ulid(), name: 'New instrument', kind, resolution, maxError }, { shouldFocus: false });
        }}
      />
      {fields.map(({ key }, i) => {
        const x = instruments[i];
        if (!x) return null;
        const angle = x.kind === 'protractor';
        const known = learned.data?.instruments.find(l => l.instrumentId === x.id)?.learned;
        return (
          // Another kind brings other figures: what was half typed for the previous one goes.
          <Item key={`${key} ${x.kind}`}>
            <Fields>
              <FormField control={control} name={`instruments.${i}.name`} label="Name" />
              <Select
                label="Kind"
                value={x.kind}
                options={KINDS}
                onChange={kind => {
                  const usual = KINDS.find(k => k.value === kind)!;
                  change(i, { kind, resolution: usual.resolution, maxError: usual.maxError });
                }}
              />
              <NumberField
                label={`Shows steps of, ${angle ? '°' : 'mm'}`}
                name={`instruments.${i}.resolution`}
              />
              <NumberField
                label={`May be wrong by, ± ${angle ? '°' : 'mm'}`}
                name={`instruments.${i}.maxError`}
              />
              {x.kind === 'calipers' ? (
                <NumberField
                  label="Flats of the inside jaws, mm"
                  name={`instruments.${i}.jawLand`}
                  usual={0}
                />
              ) : null}
              <Tail>
                <Remove name={x.name} last={fields.length === 1} onRemove={() => remove(i)} />
              </Tail>
            </Fields>
            {angle ? null : (
              <Row $wrap $gap={10} style={{ fontSize: 14 }}>
                <Button $small onPress={() => setAsking({ what: 'zero', at: i })}>
                  Check its zero
                </Button>
                <Button $small onPress={() => setAsking({ what: 'block', at: i })}>
                  Read a known block
                </Button>
                <span className="soft">{counting(x)}</span>
              </Row>
            )}
            {known ? (
              <Row $wrap $gap={10} style={{ fontSize: 14, marginTop: 6 }}>
                <span className="soft">
                  In your hands it repeats within {formatPlain(known.sd, 3)} mm (sd), from {known.readings}{' '}
                  readings of {known.things} {known.things === 1 ? 'thing' : 'things'}
                  {x.repeatability === undefined ? '.' : `; ${formatPlain(x.repeatability, 3)} mm is used.`}
                </span>
                {x.repeatability !== undefined && Math.abs(x.repeatability - known.sd) < 5e-4 ? null : (
                  <Button $small onPress={() => change(i, { repeatability: Number(known.sd.toFixed(4)) })}>
                    Use it
                  </Button>
                )}
                {x.repeatability === undefined ? null : (
                  <Button $small $look="quiet" onPress={() => change(i, { repeatability: undefined })}>
                    Back to the hands’ figure
                  </Button>
                )}
              </Row>
            ) : null}
          </Item>
        );
      })}
      {asked && asking.what === 'zero' ? (
        <ZeroDialog
          instrument={asked}
          onClose={() => setAsking(null)}
          onRead={offset => {
            change(asking.at, { zero: { offset, at: new Date().toISOString() } });
            setAsking(null);
          }}
        />
      ) : null}
      {asked && asking.what === 'block' ? (
        <BlockDialog
          instrument={asked}
          onClose={() => setAsking(null)}
          onChange={to => change(asking.at, to)}
        />
      ) : null}
    </Panel>
  );
}

function counting(x: Instrument): string {
  const parts = [
    x.zero
      ? `zero ${formatPlain(x.zero.offset, 3)} mm on ${format(new Date(x.zero.at), 'd MMM')}${x.zero.offset === 0 ? '' : ', taken off every reading'}`
      : 'zero not checked',
  ];
  const last = x.checks?.at(-1);
  if (last) {
    parts.push(
      `read a ${formatPlain(last.block, 3)} block as ${formatPlain(last.reading, 3)} on ${format(new Date(last.at), 'd MMM')}`,
    );
  }
  return `${parts.join('; ')}.`;
}

function ZeroDialog({
  instrument,
  onClose,
  onRead,
}: {
  instrument: Instrument;
  onClose(): void;
  onRead(offset: number): void;
}) {
  const { control, handleSubmit } = useForm({
    resolver: zodResolver(Zero),
    defaultValues: { zero: '' },
    mode: 'onChange',
  });
  const offset = lengthIn(useWatch({ control, name: 'zero' }) ?? '');
  return (
    <Dialog title={`Zero of ${instrument.name}`} isOpen onClose={onClose} width={440}>
      <form onSubmit={event => void handleSubmit(({ zero }) => onRead(lengthIn(zero)!))(event)}>
        <Stack $gap={12}>
          <p className="soft">
            Wipe the jaws and close them gently, or set it down on the flat. What does it read?
          </p>
          <FormField control={control} name="zero" label="It reads, mm" autoFocus placeholder="0.00" />
          {offset !== null && offset !== 0 && Math.abs(offset) <= MOST_ZERO ? (
            <Notice level="note">
              {formatPlain(offset, 3)} mm will be taken off readings from now on; those already kept stay as
              they are. Setting it to zero is better still.
            </Notice>
          ) : null}
          <Row style={{ justifyContent: 'flex-end' }}>
            <Button $look="main" type="submit">
              That is its zero
            </Button>
          </Row>
        </Stack>
      </form>
    </Dialog>
  );
}

/** A larger offset cannot be a zero error, mm. */
const MOST_ZERO = 5;
const Zero = z.object({
  zero: typedLength(x =>
    Math.abs(x) > MOST_ZERO ? 'That cannot be its zero: clean the jaws and set it again.' : undefined,
  ),
});
const Block = z.object({
  block: typedLength(x => (x <= 0 ? 'Above 0.' : undefined)),
  reading: typedLength(),
});

interface BlockProps {
  instrument: Instrument;
  onClose(): void;
  onChange(to: Partial<Instrument>): void;
}

function BlockDialog({ instrument, onClose, onChange }: BlockProps) {
  const { control, handleSubmit } = useForm({
    resolver: zodResolver(Block),
    defaultValues: { block: '', reading: '' },
    mode: 'onChange',
  });
  const typed = useWatch({ control });
  const [nominal, shown] = [lengthIn(typed.block ?? ''), lengthIn(typed.reading ?? '')];
  const offset = instrument.zero?.offset ?? 0;
  const error = nominal === null || shown === null ? null : shown - offset - nominal;
  const bad = error !== null && Math.abs(error) > instrument.maxError + 1e-9;
  const keep = (more: Partial<Instrument>) =>
    handleSubmit(said => {
      const check = {
        at: new Date().toISOString(),
        block: lengthIn(said.block)!,
        reading: lengthIn(said.reading)!,
      };
      onChange({ checks: [...(instrument.checks ?? []), check].slice(-100), ...more });
      onClose();
    });
  return (
    <Dialog title={`A known block under ${instrument.name}`} isOpen onClose={onClose} width={480}>
      <form onSubmit={event => void keep({})(event)}>
        <Stack $gap={12}>
          <p className="soft">
            A gauge block, a bearing ring or a new drill’s shank: something whose size you trust. One reading,
            without squeezing.
          </p>
          <FormField control={control} name="block" label="The block is, mm" autoFocus />
          <FormField control={control} name="reading" label="It reads, mm" />
          {error === null ? null : bad ? (
            <Notice level="warn">
              Off by {formatPlain(error, 3)} mm{offset === 0 ? '' : ' with its zero taken off'}: more than the
              ± {formatPlain(instrument.maxError, 3)} mm it is trusted to. Clean it and check its zero; if it
              stays, trust it less.
            </Notice>
          ) : (
            <Notice level="note">
              Off by {formatPlain(error, 3)} mm{offset === 0 ? '' : ' with its zero taken off'}, within its ±{' '}
              {formatPlain(instrument.maxError, 3)} mm.
            </Notice>
          )}
          <Row style={{ justifyContent: 'flex-end' }} $gap={8} $wrap>
            {bad ? (
              <Button onPress={() => void keep({ maxError: Number(Math.abs(error).toFixed(3)) })()}>
                Keep, and trust it to ± {formatPlain(Math.abs(error), 3)}
              </Button>
            ) : null}
            <Button $look="main" type="submit">
              Keep the check
            </Button>
          </Row>
        </Stack>
      </form>
    </Dialog>
  );
}

const Item = styled.div`border-top: 1px solid var(--rule); padding: 8px 0 10px;`;
const Fields = styled.div`
  display: grid; grid-template-columns: minmax(150px, 1.5fr) repeat(auto-fit, minmax(110px, 1fr)); gap: 10px; align-items: start; margin-bottom: 8px;
`;
