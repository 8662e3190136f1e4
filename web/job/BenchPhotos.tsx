import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { Unreachable } from '../api/client';
import { sendPhoto } from '../stages/measure/photos';
import { Button } from '../ui/controls';
import { Row } from '../ui/layout';
import { useBench } from './bench-context';

const MOST_PHOTOS = 10;

/** Photos that are taken at the bench go to the job; the note being written refers to them. */
export function BenchPhotos({ photos, onChange }: { photos: string[]; onChange(photos: string[]): void }) {
  const { job, document, say } = useBench('job', 'document', 'say');
  const [busy, setBusy] = useState(false);
  /** Those that could not be sent are not sent again by themselves. */
  const [left, setLeft] = useState<readonly File[]>([]);
  const send = async (files: readonly File[]) => {
    setBusy(true);
    const rest = [...files];
    const sent: string[] = [];
    try {
      for (const file of files) {
        sent.push((await sendPhoto(job.id, file)).photo.id);
        rest.shift();
      }
    } catch (error) {
      say((error as Error).message, 'stop');
      if (!(error instanceof Unreachable)) rest.shift();
    } finally {
      setLeft(rest);
      onChange([...photos, ...sent]);
      setBusy(false);
    }
  };
  const take = (files: FileList | null) => send([...(files ?? [])].slice(0, MOST_PHOTOS - photos.length));
  return (
    <Row $gap={6} $wrap>
      {photos.map(id => {
        const photo = document.photos.find(p => p.id === id);
        return photo ? (
          <img
            key={id}
            src={`/api/jobs/${job.id}/photos/${photo.id}`}
            alt={photo.label}
            style={{ height: 40, borderRadius: 3 }}
          />
        ) : null;
      })}
      <FileTrigger
        acceptedFileTypes={['image/*']}
        allowsMultiple
        defaultCamera="environment"
        onSelect={files => void take(files)}
      >
        <Button $small isDisabled={busy || photos.length >= MOST_PHOTOS}>
          {busy ? 'Sending…' : 'Add a photo'}
        </Button>
      </FileTrigger>
      {left.length > 0 && !busy ? (
        <Button $small onPress={() => void send(left)}>
          Send {left.length} that did not go
        </Button>
      ) : null}
    </Row>
  );
}
