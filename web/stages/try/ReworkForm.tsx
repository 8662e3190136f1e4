import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import styled from 'styled-components';
import { z } from 'zod';
import { Rework } from '../../../core/job/history/rework';
import { JUDGED_WORDS, type JudgedBy } from '../../../core/learn/signed';
import { VERDICT_WORDS, VERDICTS, type Verdict } from '../../../core/learn/verdict';
import type { Rescue } from '../../../core/work/rescue';
import { useBench } from '../../job/bench-context';
import { Button, Select } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Notice, Row } from '../../ui/layout';
import { numberProblem, valueFor } from '../number-field';

const BY: JudgedBy[] = ['eye', 'caliper', 'feeler', 'tape'];
const MOST = 5;

const Worked = z.object({
  /** Empty where nobody knows. */
  amount: z.string().superRefine((text, context) => {
    const message = text.trim() === '' ? undefined : numberProblem(text, 0, MOST);
    if (message) context.addIssue({ code: 'custom', message });
  }),
  note: Rework.shape.note.unwrap(),
});

/** Handwork on one surface of a print, and how it sits since: the amount shows how far the print was off. */
export function ReworkForm({ rescue, printId, onDone }: { rescue: Rescue; printId: string; onDone(): void }) {
  const { session } = useBench('session');
  const [by, setBy] = useState<JudgedBy>('eye');
  const [after, setAfter] = useState<Verdict>('right');
  const { control, handleSubmit, setError, formState } = useForm({
    resolver: zodResolver(Worked),
    defaultValues: { amount: '', note: '' },
  });
  const record = handleSubmit(async ({ amount, note }) => {
    try {
      await session.append('reworks', () => ({
        printId,
        mateId: rescue.mateId,
        how: rescue.how,
        amount: amount.trim() === '' ? null : (valueFor(amount) ?? null),
        by,
        after,
        note,
      }));
      onDone();
    } catch (failure) {
      setError('root', { message: (failure as Error).message });
    }
  });
  return (
    <form onSubmit={event => void record(event)}>
      <Fields>
        <FormField
          control={control}
          name="amount"
          label="How much, mm across"
          placeholder={String(rescue.amount)}
          autoFocus
        />
        <Select<JudgedBy>
          label="Judged"
          value={by}
          options={BY.map(value => ({ value, label: JUDGED_WORDS[value] }))}
          onChange={setBy}
        />
        <Select<Verdict>
          label="It sits now"
          value={after}
          options={VERDICTS.map(value => ({ value, label: VERDICT_WORDS[value] }))}
          onChange={setAfter}
        />
      </Fields>
      <FormField control={control} name="note" label="Anything else" />
      {formState.errors.root ? <Notice level="stop">{formState.errors.root.message}</Notice> : null}
      <Row $gap={8} style={{ marginTop: 8 }}>
        <Button $small type="submit" isDisabled={formState.isSubmitting}>
          Record it
        </Button>
        <Button $small $look="quiet" onPress={onDone}>
          Cancel
        </Button>
      </Row>
    </form>
  );
}

const Fields = styled.div`
  display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 10px; margin: 8px 0;
  @media (max-width: 620px) { grid-template-columns: minmax(0, 1fr); }
`;
