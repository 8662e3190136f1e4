import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { type Control, useForm, useWatch } from 'react-hook-form';
import type { Dimension } from '../../../core/job/document';
import { windowFor } from '../../../core/job/workshop';
import { type SignedKind, USUAL_SENSE } from '../../../core/learn/signed';
import { formatPlain } from '../../../core/quantity/format';
import { carriesMate, isAngleOf } from '../../../core/shape/own-mates';
import { useBench } from '../../job/bench-context';
import { Button, Checkbox, Dialog, Select } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Notice, Row, Stack } from '../../ui/layout';
import {
  canBe,
  countedBy,
  KINDS,
  type Kind,
  mateOf,
  NEW,
  newDimension,
  type PressedOn,
  Wish,
} from './new-mate';

const KIND_WORDS: Record<Kind, string> = {
  fit: 'goes over or into something: judged by its feel',
  length: 'a length that must be right: too long, too short',
  position: 'a place that must be right: too far out, too far in',
  angle: 'an angle that must be right: too open, too closed',
  flush: 'an edge that must lie flush: proud, sunk',
};

/** What is already known of the new mate. */
export interface Preset {
  number?: string;
  dimension?: string;
  kind?: Kind;
  /** Two faces, or one hole or boss, that were pressed on the solid; `number` moves them. */
  on?: PressedOn;
}

/** A new mate: from a number of the part, a size of the object, or a place that was pressed. */
export function AddMateDialog({ preset, onClose }: { preset: Preset; onClose(added?: string): void }) {
  const { document, resolved, edit, workshop } = useBench('document', 'resolved', 'edit', 'workshop');
  const { recipe, parameters, part } = resolved;
  const numbers = recipe.parameters.filter(
    spec =>
      carriesMate(spec) && (spec.shown?.(parameters) ?? true) && (!preset.on || spec.name === preset.number),
  );
  const specOf = (name: string) => recipe.parameters.find(p => p.name === name);
  const angleOf = (name: string) => isAngleOf(recipe.parameters, name);
  const given = document.dimensions.find(d => d.id === preset.dimension);
  const { on } = preset;
  const kinds = KINDS.filter(kind => !on || canBe(kind, on));
  const firstKind: Kind = preset.kind ?? (on ? kinds[0]! : kindFor(given, angleOf(preset.number ?? '')));
  const form = useForm({
    resolver: zodResolver(Wish),
    defaultValues: {
      name: given?.label ?? (on ? '' : (specOf(preset.number ?? '')?.label ?? '')),
      kind: firstKind,
      number: preset.number ?? '',
      dimension: given?.id ?? NEW,
      value: on?.wanted == null ? '' : formatPlain(on.wanted, 3),
      side: on?.span.side ?? (given?.kind === 'outside' ? 'inside' : 'outside'),
      round: on ? on.span.kind === 'diameter' : true,
      under: '',
      over: '',
      ...(firstKind === 'fit' ? { more: '', less: '' } : USUAL_SENSE[firstKind]),
    } as Wish,
  });
  const { control, handleSubmit, setValue, formState } = form;
  const wish = useWatch({ control }) as Wish;
  const [problem, setProblem] = useState<string>();
  const isAngle = wish.kind === 'angle';
  const fitting = numbers.filter(n => angleOf(n.name) === isAngle);
  const sizes = document.dimensions.filter(d => (d.kind === 'angle') === isAngle);
  const choose = (kind: Kind) => {
    setValue('kind', kind);
    if (kind !== 'fit') {
      setValue('more', USUAL_SENSE[kind].more);
      setValue('less', USUAL_SENSE[kind].less);
    }
    if (angleOf(wish.number) !== (kind === 'angle')) setValue('number', '');
    const size = document.dimensions.find(d => d.id === wish.dimension);
    if (size && (size.kind === 'angle') !== (kind === 'angle')) setValue('dimension', NEW);
  };
  const add = handleSubmit(async said => {
    setProblem(undefined);
    const known = document.dimensions.find(d => d.id === said.dimension);
    const read = known ?? newDimension(said, document.dimensions);
    const now = parameters[said.number];
    const counted =
      on && typeof now === 'number'
        ? countedBy(on, now, read, specOf(said.number)?.label ?? said.number, document.dimensions)
        : null;
    const dimension = counted ?? read;
    for (const added of [...(known ? [] : [read]), ...(counted ? [counted] : [])])
      if (!(await edit({ kind: 'add-dimension', dimension: added }))) return;
    const mate = mateOf(said, part.id, dimension.id, {
      flexible: resolved.material.flexible,
      window: windowFor(workshop, said.round && resolved.material.flexible ? 'stretch' : 'slide'),
      pressed: on && typeof now === 'number' ? { ...on, number: now } : undefined,
    });
    if (await edit({ kind: 'add-mate', mate })) onClose(mate.id);
    else setProblem('It was not added: see the message on the page.');
  });
  return (
    <Dialog title="What else must fit?" isOpen onClose={() => onClose()} width={640}>
      <form onSubmit={event => void add(event)}>
        <Stack $gap={12}>
          {on ? (
            <p className="soft">
              Where it was pressed it is {shown(on.span.size)}
              {on.span.kind === 'angle' ? '°' : ' mm'} now.
            </p>
          ) : null}
          <FormField
            control={control}
            name="name"
            label="What is it called?"
            placeholder="Gap between the lugs"
            maxLength={120}
            autoFocus
          />
          <Select
            label="What about it must be right?"
            value={wish.kind}
            options={kinds.map(value => ({ value, label: KIND_WORDS[value] }))}
            onChange={choose}
          />
          <div>
            <Select
              label="Which number of the part is it?"
              value={wish.number}
              placeholder="choose a number"
              options={fitting.map(spec => ({
                value: spec.name,
                label: `${spec.label}, now ${shown(parameters[spec.name])}${isAngle ? '°' : ' mm'}`,
              }))}
              onChange={number => {
                setValue('number', number, { shouldValidate: formState.isSubmitted });
                if (wish.name.trim() === '') setValue('name', specOf(number)?.label ?? '');
              }}
            />
            {formState.errors.number ? (
              <p style={{ color: 'var(--danger)', fontSize: 13.5 }}>{formState.errors.number.message}</p>
            ) : null}
            {fitting.length === 0 ? (
              <Notice level="note">This part has no {isAngle ? 'angle' : 'length'} that could be set.</Notice>
            ) : null}
          </div>
          <Select
            label="What must it go by?"
            value={wish.dimension}
            options={[
              { value: NEW, label: 'a size that is typed here, or read on Measure later' },
              ...sizes.map(d => ({ value: d.id, label: d.label })),
            ]}
            onChange={dimension => setValue('dimension', dimension)}
          />
          {wish.dimension === NEW ? (
            <FormField
              control={control}
              name="value"
              label={`The size it must come to, ${isAngle ? '°' : 'mm'} (empty: read it on Measure)`}
              placeholder={isAngle ? '90' : '12'}
            />
          ) : null}
          {wish.kind === 'fit' ? (
            <Row $wrap $gap={18} style={{ alignItems: 'flex-end' }}>
              <Select
                label="Ours is"
                value={wish.side}
                options={[
                  { value: 'inside', label: 'a hole or a gap: the object goes in' },
                  { value: 'outside', label: 'an outside: it goes into the object' },
                ]}
                onChange={side => setValue('side', side)}
              />
              <Checkbox isSelected={wish.round} onChange={round => setValue('round', round)}>
                It is round
              </Checkbox>
            </Row>
          ) : (
            <SignedFields control={control} kind={wish.kind} />
          )}
          {problem ? <Notice level="stop">{problem}</Notice> : null}
          <Row style={{ justifyContent: 'flex-end' }} $gap={8}>
            <Button $look="quiet" onPress={() => onClose()}>
              Cancel
            </Button>
            <Button $look="main" type="submit" isDisabled={formState.isSubmitting}>
              It must fit
            </Button>
          </Row>
        </Stack>
      </form>
    </Dialog>
  );
}

/** What is still right, and the words for what is not: never assumed silently. */
function SignedFields({ control, kind }: { control: Control<Wish, unknown, unknown>; kind: SignedKind }) {
  const unit = kind === 'angle' ? '°' : 'mm';
  const sense = useWatch({ control });
  const quoted = (word: string | undefined, usual: string) => word?.trim() || usual;
  return (
    <>
      <Row $gap={14} $wrap style={{ alignItems: 'flex-start' }}>
        <FormField
          control={control}
          name="under"
          label={`Still right: ${quoted(sense.less, USUAL_SENSE[kind].less)} by, ${unit}`}
          placeholder={kind === 'angle' ? '1' : '0.2'}
        />
        <FormField
          control={control}
          name="over"
          label={`Still right: ${quoted(sense.more, USUAL_SENSE[kind].more)} by, ${unit}`}
          placeholder={kind === 'angle' ? '1' : '0.2'}
        />
      </Row>
      <Row $gap={14} $wrap style={{ alignItems: 'flex-start' }}>
        <FormField control={control} name="less" label="Below it, the bench says" maxLength={120} />
        <FormField control={control} name="more" label="Above it, the bench says" maxLength={120} />
      </Row>
    </>
  );
}

const shown = (value: unknown) => (typeof value === 'number' ? formatPlain(value, 2) : '?');

function kindFor(given: Dimension | undefined, angle: boolean): Kind {
  if (angle || given?.kind === 'angle') return 'angle';
  if (given?.kind === 'outside' || given?.kind === 'inside') return 'fit';
  return given ? 'length' : 'fit';
}
