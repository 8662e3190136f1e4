import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { ImportAnswer } from '../../contract/import';
import { post } from '../api/client';
import { Button, Dialog } from '../ui/controls';
import { Notice, Stack } from '../ui/layout';

/** Brings a job in from a bundle that Sagoma exported. */
export function ImportButton() {
  const client = useQueryClient();
  const [answer, setAnswer] = useState<ImportAnswer | Error | null>(null);
  const [busy, setBusy] = useState(false);
  const take = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    setBusy(true);
    try {
      setAnswer(await post('/import', ImportAnswer, file as Blob));
      await client.invalidateQueries({ queryKey: ['rack'] });
    } catch (error) {
      setAnswer(error as Error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <FileTrigger acceptedFileTypes={['.zip', 'application/zip']} onSelect={files => void take(files)}>
        <Button $small isDisabled={busy}>
          {busy ? 'Reading the bundle…' : 'Import a job'}
        </Button>
      </FileTrigger>
      <Dialog title="Import" isOpen={answer !== null} onClose={() => setAnswer(null)}>
        {answer instanceof Error ? (
          <Notice level="stop">{answer.message}</Notice>
        ) : (
          <Stack $gap={8}>
            {answer?.jobs.map(job => (
              <Notice key={job.id} level={job.outcome.startsWith('kept') ? 'warn' : 'note'}>
                <b>{job.title}</b>: {job.message}
              </Notice>
            ))}
            {answer && answer.missing > 0 ? (
              <Notice level="warn">
                {answer.missing === 1 ? 'One file is' : `${answer.missing} files are`} not in the bundle:
                missing or damaged where it was made. Sagoma makes a version’s files anew where they are asked
                for.
              </Notice>
            ) : null}
          </Stack>
        )}
      </Dialog>
    </>
  );
}
