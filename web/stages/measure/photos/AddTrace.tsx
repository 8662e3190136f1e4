import { Camera } from 'lucide-react';
import { useState } from 'react';
import { ulid } from 'ulid';
import type { Trace } from '../../../../core/job/traces';
import { fileFrom } from '../../../api/client';
import { useBench } from '../../../job/bench-context';
import { Button } from '../../../ui/controls';
import { FileButton } from '../../../ui/FileButton';
import { sendPhoto } from '../photos';
import { newTrace } from './new-trace';

interface Props {
  /** The file that is on its way. */
  sending: string | null;
  send(file: File, known?: Partial<Pick<Trace, 'by' | 'thickness'>>): Promise<void>;
  main?: boolean;
}

/** MB; a phone's photo is a tenth of that. */
const MOST_FILE = 120;

export function useAddTrace(onAdded: (id: string) => void) {
  const { job, document, session, edit, say } = useBench('job', 'document', 'session', 'edit', 'say');
  const [sending, setSending] = useState<string | null>(null);
  const send: Props['send'] = async (file, known = {}) => {
    if (file.size > MOST_FILE * 1e6) {
      say(`${file.name} is larger than ${MOST_FILE} MB: give the picture itself.`, 'stop');
      return;
    }
    setSending(file.name);
    try {
      const last = document.traces?.at(-1)?.by;
      const { photo } = await sendPhoto(job.id, file, { whole: true });
      const trace = await newTrace({ id: ulid(), photo: photo.id, file, last, known });
      await session.refresh();
      if (await edit({ kind: 'add-trace', trace })) onAdded(trace.id);
    } catch (error) {
      say((error as Error).message, 'stop');
    } finally {
      setSending(null);
    }
  };
  return { sending, send };
}

/** Where the practice bench is on: its camera's file is handled like any other. */
export function PracticeCameraButton({ sending, send }: Omit<Props, 'main'>) {
  const { job, resolved, workshop, say } = useBench('job', 'resolved', 'workshop', 'say');
  const [taking, setTaking] = useState(false);
  if (!workshop.practiceBench) return null;
  const take = async () => {
    setTaking(true);
    try {
      const path = `/bench/jobs/${job.id}/photo`;
      const { content, headers } = await fileFrom('POST', path, { partId: resolved.part.id });
      const nth = (job.document.traces?.length ?? 0) + 1;
      const number = (name: string) => Number(headers.get(name));
      await send(new File([content], `practice photo ${nth}.jpg`), {
        thickness: number('x-sagoma-thickness'),
        by: {
          kind: 'sheet',
          paper: 'a4',
          middle: 'white',
          f35: number('x-sagoma-f35'),
          bars: { across: number('x-sagoma-bar-across'), along: number('x-sagoma-bar-along') },
        },
      });
    } catch (error) {
      say((error as Error).message, 'stop');
    } finally {
      setTaking(false);
    }
  };
  return (
    <Button $small isDisabled={taking || sending !== null} onPress={() => void take()}>
      {taking ? 'Photographing the practice object…' : 'Practice camera'}
    </Button>
  );
}

export const AddTraceButton = ({ sending, send, main }: Props) => (
  <FileButton
    label="Photo to trace"
    accept="image/jpeg,image/png,image/webp"
    main={main}
    isDisabled={sending !== null}
    onFile={file => void send(file)}
  >
    <Camera size={16} /> {sending ? `Reading ${sending.slice(0, 24)}…` : 'Add a photo to trace'}
  </FileButton>
);
