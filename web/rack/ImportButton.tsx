import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { ImportAnswer, type ImportChoice, ImportLook } from '../../contract/import';
import { post } from '../api/client';
import { fetchAnew } from '../api/fetch-anew';
import { Button, Dialog } from '../ui/controls';
import { Notice, Stack } from '../ui/layout';
import { ImportChoices } from './ImportChoices';

/**
 * Imports jobs from a bundle that Sagoma exported; differences to existing jobs are shown before anything is written.
 */
export function ImportButton() {
  const client = useQueryClient();
  const [asked, setAsked] = useState<{ file: File; look: ImportLook } | null>(null);
  const [answer, setAnswer] = useState<ImportAnswer | Error | null>(null);
  const [busy, setBusy] = useState(false);
  const working = async (work: () => Promise<void>) => {
    setBusy(true);
    try {
      await work();
    } catch (error) {
      setAnswer(error as Error);
    } finally {
      setBusy(false);
    }
  };
  const take = (file: File, choices: Record<string, ImportChoice> = {}) =>
    working(async () => {
      const chosen = new URLSearchParams(
        Object.entries(choices).map(([job, choice]) => ['choose', `${job}:${choice}`]),
      );
      const done = await post(`/import?${chosen}`, ImportAnswer, file as Blob);
      setAsked(null);
      setAnswer(done);
      await fetchAnew(client, 'rack');
    });
  const look = (file: File) =>
    working(async () => {
      const found = await post('/import/look', ImportLook, file as Blob);
      if (found.jobs.some(job => job.here === 'otherwise')) setAsked({ file, look: found });
      else await take(file);
    });
  const chosen = (files: FileList | null) => {
    if (files?.[0]) void look(files[0]);
  };
  return (
    <>
      <FileTrigger acceptedFileTypes={['.zip', 'application/zip']} onSelect={chosen}>
        <Button $small isDisabled={busy}>
          {busy ? 'Reading the bundle…' : 'Import a job'}
        </Button>
      </FileTrigger>
      {asked ? (
        <ImportChoices
          look={asked.look}
          busy={busy}
          onClose={() => setAsked(null)}
          onTake={choices => void take(asked.file, choices)}
        />
      ) : null}
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
                missing or damaged where it was made. Sagoma makes a version’s files again when they are asked
                for.
              </Notice>
            ) : null}
          </Stack>
        )}
      </Dialog>
    </>
  );
}
