import { useState } from 'react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import { type CsvOutcome, fillable, readingsFromCsv } from '../../../core/files/readings-csv';
import { useBench } from '../../job/bench-context';
import { Button, Dialog } from '../../ui/controls';
import { Notice, Row, Stack } from '../../ui/layout';

/** Readings from a table: its content is shown before anything is taken in. */
export function CsvDialog({ onClose }: { onClose(): void }) {
  const { document, workshop, edit, say } = useBench('document', 'workshop', 'edit', 'say');
  const [seen, setSeen] = useState<(CsvOutcome & { name: string }) | null>(null);
  const look = async (file: File) => {
    const text = await file.text().catch(() => '');
    const outcome = readingsFromCsv(text, document, {
      instruments: workshop.instruments,
      now: new Date().toISOString(),
      newId: ulid,
    });
    setSeen({ ...outcome, name: file.name });
  };
  const take = async () => {
    if (!seen) return;
    if (await edit({ kind: 'add-readings', readings: seen.readings })) {
      say(`${seen.readings.length} ${seen.readings.length === 1 ? 'reading' : 'readings'} taken in.`);
      onClose();
    }
  };
  return (
    <Dialog title="Readings from a table" isOpen onClose={onClose} width={560}>
      <Stack $gap={12}>
        <p className="soft">
          A CSV file whose first row names the columns: “dimension” and “reading” at least; “unit”, “time”,
          “instrument”, “source” if it has them. Dimensions here: {fillable(document.dimensions).join(', ')}.
        </p>
        <FileField
          type="file"
          accept=".csv,.tsv,.txt,text/csv"
          aria-label="CSV file"
          onChange={event => {
            const file = event.target.files?.[0];
            if (file) void look(file);
          }}
        />
        {seen ? (
          <>
            <p>
              <b>{seen.name}</b>: {seen.readings.length} {seen.readings.length === 1 ? 'reading' : 'readings'}{' '}
              understood
              {seen.problems.length > 0 ? `, ${seen.problems.length} not` : ''}.
            </p>
            {seen.problems.slice(0, 8).map(p => (
              <Notice key={p.row} level="warn">
                Row {p.row}: {p.message}
              </Notice>
            ))}
            {seen.problems.length > 8 ? <p className="soft">and {seen.problems.length - 8} more.</p> : null}
          </>
        ) : null}
        <Row style={{ justifyContent: 'flex-end' }}>
          <Button $look="main" isDisabled={!seen || seen.readings.length === 0} onPress={() => void take()}>
            {seen && seen.problems.length > 0 ? 'Take in what was understood' : 'Take them in'}
          </Button>
        </Row>
      </Stack>
    </Dialog>
  );
}

const FileField = styled.input`font: inherit; max-width: 100%;`;
