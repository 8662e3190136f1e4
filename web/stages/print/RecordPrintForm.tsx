import { zodResolver } from '@hookform/resolvers/zod';
import { useEffect } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import styled from 'styled-components';
import { z } from 'zod';
import { MOST_PIECES } from '../../../core/job/document';
import type { Version } from '../../../core/job/history';
import { FAILURE_WORDS, FAILURES, type Failure } from '../../../core/learn/happened';
import { parseQuantity } from '../../../core/quantity/parse';
import { useBench } from '../../job/bench-context';
import { Button, Select } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Row } from '../../ui/layout';
import type { SlicedFigures } from './sliced/SlicedFile';

const MOST = { hours: 2000, grams: 100_000 };

const FAILED = FAILURES.map(value => ({ value, label: `failed: ${FAILURE_WORDS[value]}` }));

const field = (most: number) =>
  z.string().superRefine((text, ctx) => {
    const { problem } = read(text, most);
    if (problem) ctx.addIssue({ code: 'custom', message: problem });
  });
const Printed = z.object({
  pieces: z.string().superRefine((text, ctx) => {
    const count = piecesIn(text);
    if (typeof count === 'string') ctx.addIssue({ code: 'custom', message: count });
  }),
  hours: field(MOST.hours),
  grams: field(MOST.grams),
  note: z.string().max(2000, 'At most 2000 characters.'),
  failed: z.enum(FAILURES).nullable(),
});

/** "It is printed": what it took, or our estimate where nothing is typed; a print that failed costs, and teaches nothing. */
export function RecordPrintForm({ version, figures }: { version: Version; figures: SlicedFigures | null }) {
  const { session, say, go } = useBench('session', 'say', 'go');
  const { control, handleSubmit, formState, setValue } = useForm({
    resolver: zodResolver(Printed),
    defaultValues: { pieces: '1', hours: '', grams: '', note: '', failed: null as Failure | null },
    mode: 'onChange',
  });
  const failed = useWatch({ control, name: 'failed' }) ?? null;
  useEffect(() => {
    if (!figures) return;
    setValue('pieces', String(figures.pieces));
    setValue('grams', figures.grams === null ? '' : String(figures.grams));
    setValue('note', figures.note);
  }, [figures, setValue]);
  const record = handleSubmit(async ({ pieces, hours, grams, note }) => {
    try {
      await session.append('prints', () => ({
        versionId: version.id,
        pieces: Number(piecesIn(pieces)),
        hours: read(hours, MOST.hours).value,
        grams: read(grams, MOST.grams).value,
        note,
        failed,
      }));
      if (failed === null) go('try');
      else {
        setValue('failed', null);
        say(
          'Its hours and grams are in the logbook; it says nothing of the fit. Print it again when you like.',
        );
      }
    } catch (error) {
      say((error as Error).message, 'stop');
    }
  });
  return (
    <Form onSubmit={event => void record(event)}>
      <FormField control={control} name="pieces" label="Pieces" />
      <FormField control={control} name="hours" label="Hours" placeholder="estimate" />
      <FormField control={control} name="grams" label="Grams" placeholder="estimate" />
      <FormField control={control} name="note" label="Note" placeholder="seam, supports, settings" />
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

function read(text: string, most: number): { value: number | null; problem?: string } {
  if (text.trim() === '') return { value: null };
  const typed = parseQuantity(text, 'count');
  if (!typed.ok) return { value: null, problem: typed.message };
  const { value } = typed.quantity;
  return value < 0 || value > most ? { value: null, problem: `Between 0 and ${most}.` } : { value };
}

const Form = styled.form`
  display: grid; grid-template-columns: 66px 88px 88px 1fr; gap: 10px; margin-top: 12px; padding-top: 12px; border-top: 1px solid var(--rule);
  > :nth-child(n + 5) { grid-column: 1 / -1; }
`;
