import { Camera, Image, RotateCcw, ScanLine, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import { useBench } from '../job/bench-context';
import { Button, IconButton } from '../ui/controls';
import { FileButton } from '../ui/FileButton';
import { Lead, Notice, Row, Stack } from '../ui/layout';
import type { OutboxState, Waiting } from './outbox';
import { outbox, useOutbox } from './phone-outbox';

/** Listed one by one: phones then offer nothing else. */
const PICTURES = 'image/jpeg,image/png,image/webp';

/** Photos reach the bench at once; without a connection they wait here. */
export function PhonePhotos() {
  const { job, document } = useBench('job', 'document');
  const state = useOutbox();
  const { waiting, kept, trouble } = state;
  const take = (file: File, trace: boolean) =>
    void outbox.add({
      id: ulid(),
      jobId: job.id,
      name: file.name,
      trace: trace ? ulid() : null,
      file,
      at: Date.now(),
    });
  return (
    <>
      <h1>Photo</h1>
      <Lead>It is on the bench as soon as it is taken.</Lead>
      <Keys>
        <FileButton
          label="Photo of the object"
          accept={PICTURES}
          camera
          main
          onFile={file => take(file, false)}
        >
          <Camera size={20} /> Photo of the object
        </FileButton>
        <FileButton
          label="Photo on the sheet"
          accept={PICTURES}
          camera
          main
          onFile={file => take(file, true)}
        >
          <ScanLine size={20} /> Photo on the sheet, to trace
        </FileButton>
        <FileButton label="Picture of this phone" accept={PICTURES} onFile={file => take(file, false)}>
          <Image size={16} /> One that this phone has
        </FileButton>
      </Keys>
      <p className="soft" style={{ fontSize: 14, margin: '8px 0 14px' }}>
        To trace: lay it in the middle of the printed sheet, hold the phone level above it, the whole sheet in
        the picture.
      </p>
      {kept || waiting.length === 0 ? null : (
        <Notice level="warn">
          This browser keeps nothing: leave the page open until all is sent, and leave private browsing for
          the next time.
        </Notice>
      )}
      {trouble && waiting.length > 0 ? (
        <Notice level="warn">{trouble} Photos stay in this phone and are sent when it is back.</Notice>
      ) : null}
      <Stack $gap={8} style={{ margin: '10px 0' }}>
        {waiting.map(photo => (
          <WaitingPhoto key={photo.id} photo={photo} state={state} elsewhere={photo.jobId !== job.id} />
        ))}
      </Stack>
      {document.photos.length > 0 ? (
        <>
          <h2 style={{ fontSize: 16, margin: '14px 0 8px' }}>On the bench</h2>
          <Grid>
            {document.photos.toReversed().map(photo => (
              <img
                key={photo.id}
                src={`/api/jobs/${job.id}/photos/${photo.id}`}
                alt={photo.label}
                loading="lazy"
              />
            ))}
          </Grid>
        </>
      ) : null}
    </>
  );
}

function WaitingPhoto({
  photo,
  state,
  elsewhere,
}: {
  photo: Waiting;
  state: OutboxState;
  elsewhere: boolean;
}) {
  const picture = useObjectUrl(photo.file);
  const refused = state.refused.get(photo.id);
  return (
    <Item>
      <img src={picture} alt="" />
      <div>
        <b>{photo.trace ? 'On the sheet' : 'Of the object'}</b>
        <p className="soft" role="status">
          {refused ?? (state.sending === photo.id ? 'Sending…' : 'Waits to be sent')}
          {elsewhere ? ' It goes to the job that was on the bench.' : ''}
        </p>
      </div>
      {refused ? (
        <Row $gap={4}>
          <Button $small onPress={() => outbox.again(photo.id)}>
            <RotateCcw size={15} /> Again
          </Button>
          <IconButton aria-label="Throw it away" onPress={() => void outbox.remove(photo.id)}>
            <Trash2 size={16} />
          </IconButton>
        </Row>
      ) : null}
    </Item>
  );
}

function useObjectUrl(file: Blob): string {
  const [url, setUrl] = useState('');
  useEffect(() => {
    const made = URL.createObjectURL(file);
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [file]);
  return url;
}

const Keys = styled.div`
  display: flex; flex-direction: column; gap: 10px;
  button { width: 100%; justify-content: center; gap: 8px; }
  button:not(:last-of-type) { min-height: 60px; font-size: 17px; }
  button:last-of-type { min-height: 44px; }
`;
const Item = styled.div`
  display: flex; align-items: center; gap: 10px; border: 1px solid var(--rule); border-radius: 6px; background: var(--raised); padding: 8px;
  > div:nth-child(2) { flex: 1; min-width: 0; }
  img { width: 56px; height: 56px; object-fit: cover; border-radius: 4px; flex: none; background: var(--tint); }
  p { font-size: 14px; overflow-wrap: anywhere; }
`;
const Grid = styled.div`
  display: grid; grid-template-columns: repeat(3, 1fr); gap: 6px;
  img { width: 100%; aspect-ratio: 1; object-fit: cover; border-radius: 4px; background: var(--tint); }
`;
