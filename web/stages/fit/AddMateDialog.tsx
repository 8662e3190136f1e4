import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { type Control, useForm, useWatch } from 'react-hook-form';
import { ulid } from 'ulid';
import { z } from 'zod';
import { type Dimension, type Mate, Tolerance } from '../../../core/job/document';
import { windowFor } from '../../../core/job/workshop';
import { SIGNED_KINDS, type SignedKind, USUAL_SENSE } from '../../../core/learn/signed';
import { formatPlain } from '../../../core/quantity/format';
import { parseQuantity } from '../../../core/quantity/parse';
import { carriesMate } from '../../../core/shape/own-mates';
import type { Span } from '../../../core/shape/span/span';
import type { Place } from '../../../core/shape/vector';
import { useBench } from '../../job/bench-context';
import { Button, Checkbox, Dialog, Select } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Notice, Row, Stack } from '../../ui/layout';
import { ownDimension } from '../measure/own-dimension';

const KINDS = ['fit', ...SIGNED_KINDS] as const;
type Kind = (typeof KINDS)[number];
const KIND_WORDS: Record<Kind, string> = {
  fit: 'goes over or into something: judged by its feel',
  length: 'a length that must be right: too long, too short',
  position: 'a place that must be right: too far out, too far in',
  angle: 'an angle that must be right: too open, too closed',
  flush: 'an edge that must lie flush: proud, sunk',
};

/** Typed in the dialog, kept with the job as a dimension of its own. */
const NEW = 'new';

const Wish = z
  .object({
    name: z.string().trim().min(1, 'Give it a name.').max(120, 'At most 120 characters.'),
    kind: z.enum(KINDS),
    number: z.string().min(1, 'Say which number of the part it is.'),
    dimension: z.string(),
    value: z.string().max(60),
    side: z.enum(['inside', 'outside']),
    round: z.boolean(),
    under: z.string().max(60),
    over: z.string().max(60),
    more: z.string().trim().max(120),
    less: z.string().trim().max(120),
  })
  .superRefine((wish, context) => {
    const say = (path: keyof typeof wish, message: string) =>
      context.addIssue({ code: 'custom', path: [path], message });
    const measure = wish.kind === 'angle' ? 'angle' : 'length';
    if (wish.dimension === NEW && wish.value.trim() !== '') {
      const typed = parseQuantity(wish.value, measure);
      if (!typed.ok) say('value', typed.message);
      else if (wish.kind === 'fit' && typed.quantity.value <= 0) say('value', 'A size is above 0.');
    }
    if (wish.kind === 'fit') return;
    for (const path of ['under', 'over'] as const) {
      const typed = parseQuantity(wish[path], measure);
      if (wish[path].trim() === '') say(path, 'Say how much of it is still right.');
      else if (!typed.ok) say(path, typed.message);
      else if (typed.quantity.value < 0) say(path, 'Without a sign.');
    }
    const bounds = toleranceOf(wish);
    if (bounds && !Tolerance.safeParse(bounds).success) say('over', 'One of the two must be above 0.');
    if (!wish.more) say('more', 'Give it a word.');
    if (!wish.less) say('less', 'Give it a word.');
  });
type Wish = z.infer<typeof Wish>;

function toleranceOf({ under, over, kind }: Pick<Wish, 'under' | 'over' | 'kind'>) {
  const measure = kind === 'angle' ? 'angle' : 'length';
  const [low, high] = [parseQuantity(under, measure), parseQuantity(over, measure)];
  return low.ok && high.ok ? { min: -low.quantity.value, max: high.quantity.value } : null;
}

/** What is known already of something that must fit. */
export interface Preset {
  number?: string;
  dimension?: string;
  kind?: Kind;
  /** Two faces, or one hole or boss, that were pressed on the solid; `number` moves them. */
  on?: PressedOn;
}

export interface PressedOn {
  places: readonly Place[];
  span: Span;
  /** What it should come to, where that was said. */
  wanted: number | null;
  /** So much larger it gets for each mm or degree of the number. */
  rate: number;
}

/** The size is the number itself, mm or degrees: screens show hundredths. */
const ITSELF = 0.005;

/** Anything that must fit: from a number of the part, a size of the object, or a place that was pressed. */
export function AddMateDialog({ preset, onClose }: { preset: Preset; onClose(added?: string): void }) {
  const { document, resolved, edit, workshop } = useBench('document', 'resolved', 'edit', 'workshop');
  const { recipe, parameters, part } = resolved;
  const numbers = recipe.parameters.filter(
    spec =>
      carriesMate(spec) && (spec.shown?.(parameters) ?? true) && (!preset.on || spec.name === preset.number),
  );
  const specOf = (name: string) => recipe.parameters.find(p => p.name === name);
  const angleOf = (name: string) => {
    const spec = specOf(name);
    return spec?.kind === 'length' && spec.measure === 'angle';
  };
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

/** What is still right, and what the bench says of one that is not: never assumed in silence. */
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

/** A size that is typed here is a reading like any other: said, not measured. */
function newDimension(wish: Wish, taken: readonly Dimension[]): Dimension {
  const kind: Dimension['kind'] =
    wish.kind === 'fit'
      ? wish.side === 'inside'
        ? 'outside'
        : 'inside'
      : wish.kind === 'angle'
        ? 'angle'
        : 'length';
  const typed =
    wish.value.trim() === '' ? null : parseQuantity(wish.value, kind === 'angle' ? 'angle' : 'length');
  const readings: Dimension['readings'] = typed?.ok
    ? [
        {
          id: ulid(),
          value: typed.quantity.value,
          text: wish.value.trim(),
          unit: kind === 'angle' ? 'deg' : 'mm',
          at: new Date().toISOString(),
          instrumentId: null,
          source: 'said',
          via: 'typed',
          struck: null,
          // What is decided is not in doubt.
          u: 0,
        },
      ]
    : [];
  return ownDimension(wish.name, kind, taken, { critical: wish.kind === 'fit', readings });
}

/** What a size between pressed faces can be: a feel needs a number that moves it one to one. */
const canBe = (kind: Kind, { span, rate }: PressedOn) =>
  (kind === 'angle') === (span.kind === 'angle') && (kind !== 'fit' || Math.abs(rate - 1) < 0.02);

const pressedOf = ({
  places,
  span,
  number,
}: PressedOn & { number: number }): NonNullable<Mate['pressed']> => ({
  places: places.map(({ point, normal }) => ({ point: [...point], normal: [...normal] })),
  size: Number(span.size.toFixed(4)),
  number,
});

/** What its number should come to where the size is not the number itself: worked out from the size that is read. */
function countedBy(
  { span: { size }, rate }: PressedOn,
  now: number,
  read: Dimension,
  number: string,
  taken: readonly Dimension[],
): Dimension | null {
  const steady = Number((size - rate * now).toFixed(3));
  const times = Number(rate.toFixed(4));
  if (Math.abs(steady) < ITSELF && Math.abs(times - 1) < 0.02) return null;
  const less = steady === 0 ? read.name : `(${read.name} ${steady > 0 ? '-' : '+'} ${Math.abs(steady)})`;
  const text =
    Math.abs(times - 1) < 0.02
      ? less.replace(/^\(|\)$/g, '')
      : `${less} / ${times < 0 ? `(${times})` : times}`;
  return ownDimension(`${read.label}, as “${number}” counts it`, read.kind, [...taken, read], {
    critical: read.critical,
    derived: { by: 'expression', expression: { text, unit: read.kind === 'angle' ? 'deg' : 'mm' } },
  });
}

function mateOf(
  wish: Wish,
  partId: string,
  dimension: string,
  {
    flexible,
    window,
    pressed,
  }: {
    flexible: boolean;
    window: ReturnType<typeof windowFor>;
    pressed: (PressedOn & { number: number }) | undefined;
  },
): Mate {
  const id = ulid();
  const about = {
    ...(pressed ? { pressed: pressedOf(pressed) } : {}),
    id,
    name: wish.name,
    ours: { of: 'part' as const, part: partId, surface: id },
    other: { of: 'object' as const, dimension },
  };
  if (wish.kind !== 'fit')
    return {
      ...about,
      kind: wish.kind,
      number: wish.number,
      rate: pressed ? Number(pressed.rate.toFixed(4)) : 1,
      tolerance: toleranceOf(wish)!,
      sense: { more: wish.more, less: wish.less },
    };
  const soft = wish.round && flexible;
  return {
    ...about,
    kind: 'fit',
    side: wish.side,
    soft: soft ? 'ours' : 'none',
    want: { name: soft ? 'stretch' : 'slide', window, prefer: 'none' },
    own: { number: wish.number, form: wish.round ? 'round' : 'flats', lying: false },
  };
}
