import { useMemo, useState } from 'react';
import { type Control, useController, useForm, useWatch } from 'react-hook-form';
import styled from 'styled-components';
import type { Dimension } from '../../../core/job/document';
import type { Edit } from '../../../core/job/edits';
import { DERIVE_KINDS, type DeriveSlot, deriveKind } from '../../../core/measure/derive';
import { deriveFigure } from '../../../core/measure/figures';
import { evaluateDimensions } from '../../../core/work/dimensions';
import { showSize, valueWords } from '../../../core/work/show';
import { DrawingView } from '../../drawing/DrawingView';
import { useBench } from '../../job/bench-context';
import { Button, Dialog, Select } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Notice, Panel, Row, Stack } from '../../ui/layout';
import { FONTS } from '../../ui/theme';
import {
  EXPRESSION,
  type Filling,
  NEW,
  NUMBER,
  planOf,
  resolverFor,
  type Said,
  saidOf,
  sentence,
  sumWrongAt,
  USUAL_DOUBT,
} from './work-out';

interface Props {
  dimension: Dimension;
  onClose(): void;
  /** With the dimension to read next, where new ones were added. */
  onDone(next: string | null): void;
}

/** How a dimension that cannot be measured is derived from others. */
export function WorkOutDialog({ dimension, onClose, onDone }: Props) {
  const { document, resolved, workshop, unit, edit } = useBench(
    'document',
    'resolved',
    'workshop',
    'unit',
    'edit',
  );
  const kinds = DERIVE_KINDS.filter(k => (k.result === 'angle') === (dimension.kind === 'angle'));
  const { control, handleSubmit, formState, setValue } = useForm({
    resolver: resolverFor(dimension, document.dimensions),
    defaultValues: saidOf(dimension),
  });
  const said = useWatch({ control, compute: (now: Said) => now });
  const [lit, setLit] = useState<string | null>(null);
  const kind = said.kind === EXPRESSION ? undefined : deriveKind(said.kind);
  const others = document.dimensions.filter(d => d.id !== dimension.id);
  const plan = useMemo(
    () => planOf(said, dimension, document.dimensions),
    [said, dimension, document.dimensions],
  );
  const preview = useMemo(() => {
    if (!plan.ok) return null;
    const dimensions = [...document.dimensions, ...plan.fresh].map(d =>
      d.id === dimension.id ? { ...d, derived: plan.derived } : d,
    );
    return evaluateDimensions({ ...document, dimensions }, workshop).get(dimension.id) ?? null;
  }, [plan, document, dimension.id, workshop]);

  const save = handleSubmit(async now => {
    const made = planOf(now, dimension, document.dimensions);
    if (!made.ok) return;
    const edits: Edit[] = [
      ...made.fresh.map(d => ({ kind: 'add-dimension' as const, dimension: d })),
      { kind: 'derive', dimensionId: dimension.id, derived: made.derived },
    ];
    for (const step of edits) if (!(await edit(step))) return;
    onDone(made.fresh[0]?.id ?? null);
  });
  return (
    <Dialog title={`Work out: ${dimension.label}`} isOpen onClose={onClose} width={760}>
      <form onSubmit={event => void save(event)}>
        <Columns>
          <Stack $gap={12}>
            <Select
              label="How"
              value={said.kind}
              options={[
                ...kinds.map(k => ({ value: k.id, label: k.title })),
                { value: EXPRESSION, label: 'A sum of your own' },
              ]}
              onChange={id => setValue('kind', id)}
            />
            {kind ? (
              <>
                <p className="soft">{kind.purpose}</p>
                {kind.slots.map(slot => (
                  <SlotRow
                    key={`${kind.id} ${slot.key}`}
                    slot={slot}
                    control={control}
                    others={others}
                    onLit={() => setLit(slot.key)}
                  />
                ))}
                {kind.counts.map(c => (
                  <FormField
                    key={`${kind.id} ${c.key}`}
                    control={control}
                    name={`counts.${c.key}`}
                    label={sentence(c.label)}
                    placeholder={String(c.default)}
                    inputMode="decimal"
                  />
                ))}
              </>
            ) : (
              <SumField
                control={control}
                dimension={dimension}
                wrongAt={formState.errors.text ? sumWrongAt(said.text, dimension, document.dimensions) : null}
                text={said.text}
                names={others.map(d => d.name)}
              />
            )}
          </Stack>
          <Stack $gap={12}>
            {kind ? (
              <Panel style={{ padding: 0, overflow: 'hidden' }}>
                <DrawingView
                  drawing={deriveFigure(kind.id)}
                  valueFor={d =>
                    shownFor(said.slots[d.key], document.dimensions, id => {
                      const known = resolved.dimensions.get(id);
                      return known?.evaluation
                        ? showSize(known.dimension.kind, known.evaluation.value, unit)
                        : null;
                    })
                  }
                  lit={lit}
                  height={250}
                />
              </Panel>
            ) : null}
            <Worked aria-live="polite">
              {kind ? <p className="soft">{kind.formula}</p> : null}
              {preview?.worked && 'text' in preview.worked ? (
                <>
                  <p className="number">{preview.worked.text}</p>
                  <p>
                    <b className="number">{valueWords(preview, unit)}</b>
                  </p>
                </>
              ) : (
                <p className="soft">
                  {preview?.worked && 'problem' in preview.worked
                    ? preview.worked.problem
                    : 'The numbers appear here once they are all there.'}
                </p>
              )}
            </Worked>
            {formState.errors.kind ? <Notice level="stop">{formState.errors.kind.message}</Notice> : null}
          </Stack>
        </Columns>
        <Row style={{ justifyContent: 'flex-end', marginTop: 14 }} $gap={8}>
          <Button $look="quiet" onPress={onClose}>
            Leave it
          </Button>
          <Button $look="main" type="submit" isDisabled={formState.isSubmitting}>
            Work it out this way
          </Button>
        </Row>
      </form>
    </Dialog>
  );
}

interface SlotProps {
  slot: DeriveSlot;
  control: Control<Said>;
  others: readonly Dimension[];
  /** The field has the focus: the figure shows it. */
  onLit(): void;
}

function SlotRow({ slot, control, others, onLit }: SlotProps) {
  const at = `slots.${slot.key}` as const;
  const { field } = useController({ control, name: `${at}.from`, defaultValue: NEW });
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: it lights the figure while a field inside has the focus
    <div onFocus={onLit}>
      <Select
        label={`${sentence(slot.label)} (${slot.how})`}
        value={field.value ?? NEW}
        options={[
          { value: NEW, label: 'read it next, as a dimension of its own' },
          ...others.map(d => ({ value: d.id, label: d.label })),
          { value: NUMBER, label: 'a number I know' },
        ]}
        onChange={from => {
          field.onChange(from);
          onLit();
        }}
      />
      {field.value === NUMBER ? (
        <Row $gap={8} style={{ marginTop: 6, alignItems: 'flex-start' }}>
          <FormField control={control} name={`${at}.value`} label="Number" />
          <FormField control={control} name={`${at}.u`} label="give or take" placeholder={USUAL_DOUBT} />
        </Row>
      ) : null}
    </div>
  );
}

interface SumProps {
  control: Control<Said>;
  dimension: Dimension;
  text: string;
  /** Where it cannot be understood. */
  wrongAt: number | null;
  names: readonly string[];
}

/** A sum over names; where it cannot be understood the place is marked below it. */
function SumField({ control, dimension, text, wrongAt, names }: SumProps) {
  return (
    <div>
      <FormField
        control={control}
        name="text"
        label={`Sum, ${dimension.kind === 'angle' ? '°' : 'mm'}`}
        placeholder="bore / 2 + 0.4"
        autoComplete="off"
        spellCheck="false"
      />
      {wrongAt !== null ? (
        <Place aria-hidden>
          {text.slice(0, wrongAt)}
          <mark>{text.slice(wrongAt).match(/^[\w.]+|^./)?.[0] ?? ' '}</mark>
          {text.slice(wrongAt).replace(/^[\w.]+|^./, '')}
        </Place>
      ) : null}
      <p className="soft" style={{ fontSize: 13.5, marginTop: 8 }}>
        Names you can use: {names.join(', ')}. A number may carry its unit; + − * / and brackets, min, max,
        sqrt.
      </p>
    </div>
  );
}

function shownFor(
  filling: Partial<Filling> | undefined,
  taken: readonly Dimension[],
  sizeOf: (id: string) => string | null,
): string | null {
  if (!filling?.from || filling.from === NEW) return null;
  if (filling.from === NUMBER) return filling.value || null;
  return taken.some(d => d.id === filling.from) ? sizeOf(filling.from) : null;
}

const Columns = styled.div`
  display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); gap: 18px; align-items: start;
  @media (max-width: 700px) { grid-template-columns: minmax(0, 1fr); }
`;
const Worked = styled.div`font-size: 15px; b { font-size: 18px; } p { margin-bottom: 4px; overflow-wrap: anywhere; }`;
const Place = styled.pre`
  font: 15px ${FONTS.number}; margin: 6px 0 0; white-space: pre-wrap; color: var(--soft);
  mark { background: var(--danger-tint); color: var(--danger); border-bottom: 2px solid var(--danger); }
`;
