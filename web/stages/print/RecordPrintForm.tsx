import { zodResolver } from '@hookform/resolvers/zod';
import { useEffect, useState } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import styled from 'styled-components';
import { z } from 'zod';
import { MOST_PIECES } from '../../../core/job/fields';
import { counting, type Print, type Version } from '../../../core/job/history';
import type { AsSliced } from '../../../core/job/history/print';
import { FAILURE_WORDS, FAILURES, type Failure } from '../../../core/learn/happened';
import { formatPlain } from '../../../core/quantity/format';
import { parseQuantity } from '../../../core/quantity/parse';
import { BenchPhotos } from '../../job/BenchPhotos';
import { useBench } from '../../job/bench-context';
import { Button, Select } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Notice, Row } from '../../ui/layout';
import type { SlicedFigures } from './sliced/SlicedFile';

const MOST = { hours: 2000, grams: 100_000 };

const FAILED = FAILURES.map(value => ({ value, label: `failed: ${FAILURE_WORDS[value]}` }));

const field = (most: number, least = 0, whole = false) =>
  z.string().superRefine((text, ctx) => {
    const { problem } = read(text, most, least, whole);
    if (problem) ctx.addIssue({ code: 'custom', message: problem });
  });
/** The printer's settings, each with its bounds. */
const TOLD = {
  lineWidth: { label: 'Line width, mm', least: 0.1, most: 3 },
  passes: { label: 'Passes', least: 1, most: 60 },
  temperature: { label: 'Nozzle, °C', least: 20, most: 500 },
  outsides: { label: 'Outsides larger by, mm', least: -2, most: 2 },
  holes: { label: 'Holes larger by, mm', least: -2, most: 2 },
} as const satisfies Record<keyof AsSliced, { label: string; least: number; most: number }>;
const TOLD_NAMES = Object.keys(TOLD) as (keyof AsSliced)[];

const told = (name: keyof AsSliced) => field(TOLD[name].most, TOLD[name].least, name === 'passes');

const Printed = z.object({
  spool: z.string().trim().max(60, 'At most 60 characters.'),
  lineWidth: told('lineWidth'),
  passes: told('passes'),
  temperature: told('temperature'),
  outsides: told('outsides'),
  holes: told('holes'),
  pieces: z.string().superRefine((text, ctx) => {
    const count = piecesIn(text);
    if (typeof count === 'string') ctx.addIssue({ code: 'custom', message: count });
  }),
  hours: field(MOST.hours),
  grams: field(MOST.grams),
  note: z.string().max(2000, 'At most 2000 characters.'),
  /** In the form of a browser's date and time field, in local time; empty where there is none. */
  finished: z.string().refine(text => text === '' || Date.parse(text) <= Date.now() + 60_000, {
    error: 'That is still to come: check the day and the time.',
  }),
  failed: z.enum(FAILURES).nullable(),
  hand: z.enum(['drawn', 'other']),
});

/**
 * "It is printed": its actual cost, or our estimate where nothing is typed. A print that failed costs, and teaches
 * nothing.
 */
export function RecordPrintForm({ version, figures }: { version: Version; figures: SlicedFigures | null }) {
  const { session, say, go, resolved } = useBench('session', 'say', 'go', 'resolved');
  const last = counting(resolved.history).prints.findLast(p => p.expected?.printerId === version.printerId);
  const [photos, setPhotos] = useState<string[]>([]);
  const { control, handleSubmit, formState, setValue } = useForm({
    resolver: zodResolver(Printed),
    defaultValues: {
      pieces: '1',
      hours: '',
      grams: '',
      note: '',
      finished: '',
      failed: null as Failure | null,
      hand: 'drawn' as Print['hand'],
      // The spool is most often the same; settings must be entered again: what is not entered is not assumed.
      spool: last?.spool ?? '',
      lineWidth: '',
      passes: '',
      temperature: '',
      outsides: '',
      holes: '',
    },
    mode: 'onChange',
  });
  const failed = useWatch({ control, name: 'failed' }) ?? null;
  const hand = useWatch({ control, name: 'hand' }) ?? 'drawn';
  useEffect(() => {
    if (!figures) return;
    setValue('pieces', String(figures.pieces));
    setValue('hand', figures.hand);
    setValue('grams', figures.grams === null ? '' : String(figures.grams));
    setValue('note', figures.note);
    setValue('lineWidth', formatPlain(figures.lineWidth));
    setValue('outsides', figures.moved === 0 ? '' : (2 * figures.moved).toFixed(2));
    setValue('holes', figures.moved === 0 ? '' : (-2 * figures.moved).toFixed(2));
  }, [figures, setValue]);
  const [outsides, holes] = useWatch({ control, name: ['outsides', 'holes'] });
  const corrected = [outsides, holes].some(text => (Number(text) || 0) !== 0);
  const record = handleSubmit(async ({ pieces, hours, grams, note, spool, finished, hand, ...settings }) => {
    const sliced = TOLD_NAMES.flatMap(name => {
      const { value } = read(settings[name], TOLD[name].most, TOLD[name].least);
      return value === null ? [] : [[name, value]];
    });
    try {
      await session.append('prints', () => ({
        versionId: version.id,
        pieces: Number(piecesIn(pieces)),
        hours: read(hours, MOST.hours).value,
        grams: read(grams, MOST.grams).value,
        note,
        failed,
        hand,
        spool,
        sliced: Object.fromEntries(sliced),
        photos,
        finished: finished === '' ? null : new Date(finished).toISOString(),
      }));
      setPhotos([]);
      if (failed === null) go('try');
      else {
        setValue('failed', null);
        say(
          'Its hours and grams are in the logbook; it says nothing about the fit. Print it again when you like.',
        );
      }
    } catch (error) {
      say((error as Error).message, 'stop');
    }
  });
  const begin = handleSubmit(({ pieces, hand }) =>
    session
      .append('starts', () => ({ versionId: version.id, pieces: Number(piecesIn(pieces)), hand }))
      .then(
        () => undefined,
        (error: Error) => say(error.message, 'stop'),
      ),
  );
  return (
    <Form onSubmit={event => void record(event)}>
      <FormField control={control} name="pieces" label="Pieces" />
      <FormField control={control} name="hours" label="Hours" placeholder="estimate" />
      <FormField control={control} name="grams" label="Grams" placeholder="estimate" />
      <FormField control={control} name="note" label="Note" placeholder="seam, supports, settings" />
      <details>
        <summary>Spool, settings, hand, when it was finished, a photo</summary>
        <Told>
          <FormField control={control} name="spool" label="Spool" placeholder="which roll it was" />
          <Select
            label="Hand"
            value={hand}
            options={[
              { value: 'drawn', label: 'as drawn' },
              { value: 'other', label: 'the other hand' },
            ]}
            onChange={chosen => setValue('hand', chosen)}
          />
          <FormField control={control} name="finished" label="Finished" type="datetime-local" />
          {TOLD_NAMES.map(name => (
            <FormField
              key={name}
              control={control}
              name={name}
              label={TOLD[name].label}
              placeholder="not said"
            />
          ))}
        </Told>
        <p className="soft">
          Larger by: a correction of outlines or holes that is set where you slice, across the whole diameter
          (twice the number per side). Without one leave it empty.
        </p>
        {corrected ? (
          <Notice level="warn">
            Sagoma gives every number what this printer needs already: switch that correction off for the next
            print. What this one teaches is counted with it taken out.
          </Notice>
        ) : null}
        <BenchPhotos photos={photos} onChange={setPhotos} />
      </details>
      <Select
        label="How did it come out?"
        value={failed ?? 'well'}
        options={[{ value: 'well', label: 'it came out' }, ...FAILED]}
        onChange={outcome => setValue('failed', outcome === 'well' ? null : outcome)}
      />
      <Row>
        <Button $small type="submit" isDisabled={formState.isSubmitting}>
          {formState.isSubmitting ? 'Recording it…' : failed === null ? 'It is printed' : 'It failed'}
        </Button>
        <Button $small $look="quiet" isDisabled={formState.isSubmitting} onPress={() => void begin()}>
          It is on the printer now
        </Button>
      </Row>
    </Form>
  );
}

/** A whole number, or what is wrong. */
function piecesIn(text: string): number | string {
  const count = Number(text.trim());
  return Number.isInteger(count) && count >= 1 && count <= MOST_PIECES
    ? count
    : `A whole number, 1 to ${MOST_PIECES}.`;
}

function read(
  text: string,
  most: number,
  least = 0,
  whole = false,
): { value: number | null; problem?: string } {
  if (text.trim() === '') return { value: null };
  const typed = parseQuantity(text, 'count');
  if (!typed.ok) return { value: null, problem: typed.message };
  const { value } = typed.quantity;
  if (value < least || value > most) return { value: null, problem: `Between ${least} and ${most}.` };
  return whole && !Number.isInteger(value) ? { value: null, problem: 'A whole number.' } : { value };
}

const Form = styled.form`
  display: grid; grid-template-columns: 66px 88px 88px 1fr; gap: 10px; margin-top: 12px; padding-top: 12px; border-top: 1px solid var(--rule);
  > :nth-child(n + 5) { grid-column: 1 / -1; }
  details > * + * { margin-top: 8px; } summary { font-size: 14px; cursor: pointer; color: var(--soft); } details p { font-size: 13.5px; }
`;
const Told = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(132px, 1fr)); gap: 10px; align-items: end;
`;
