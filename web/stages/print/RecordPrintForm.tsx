import { useState } from 'react';
import styled from 'styled-components';
import type { Version } from '../../../core/job/history';
import { parseQuantity } from '../../../core/quantity/parse';
import { useBench } from '../../job/bench-context';
import { Button, TextField } from '../../ui/controls';
import { Row } from '../../ui/layout';

const MOST = { hours: 2000, grams: 100_000 };

/** "It is printed": what it took, or our estimate where nothing is typed. */
export function RecordPrintForm({ version }: { version: Version }) {
  const { session, say, go } = useBench('session', 'say', 'go');
  const [typed, setTyped] = useState({ hours: '', grams: '', note: '' });
  const [busy, setBusy] = useState(false);
  const hours = read(typed.hours, MOST.hours);
  const grams = read(typed.grams, MOST.grams);
  const record = async () => {
    if (hours.problem || grams.problem) return;
    setBusy(true);
    try {
      await session.append('prints', () => ({
        versionId: version.id,
        hours: hours.value,
        grams: grams.value,
        note: typed.note,
      }));
      go('try');
    } catch (error) {
      say((error as Error).message, 'stop');
    } finally {
      setBusy(false);
    }
  };
  return (
    <Form
      onSubmit={event => {
        event.preventDefault();
        void record();
      }}
    >
      <TextField
        label="Hours"
        placeholder="estimate"
        value={typed.hours}
        onChange={value => setTyped({ ...typed, hours: value })}
        problem={hours.problem}
      />
      <TextField
        label="Grams"
        placeholder="estimate"
        value={typed.grams}
        onChange={value => setTyped({ ...typed, grams: value })}
        problem={grams.problem}
      />
      <TextField
        label="Note"
        placeholder="seam, supports, settings"
        value={typed.note}
        onChange={value => setTyped({ ...typed, note: value.slice(0, 2000) })}
      />
      <Row>
        <Button $small type="submit" isDisabled={busy}>
          {busy ? 'Freezing its files…' : 'It is printed'}
        </Button>
      </Row>
    </Form>
  );
}

function read(text: string, most: number): { value: number | null; problem?: string } {
  if (text.trim() === '') return { value: null };
  const typed = parseQuantity(text, 'count');
  if (!typed.ok) return { value: null, problem: typed.message };
  const { value } = typed.quantity;
  return value < 0 || value > most ? { value: null, problem: `Between 0 and ${most}.` } : { value };
}

const Form = styled.form`
  display: grid; grid-template-columns: 92px 92px 1fr; gap: 10px; margin-top: 12px; padding-top: 12px; border-top: 1px solid var(--rule);
  > :last-child { grid-column: 1 / -1; }
`;
