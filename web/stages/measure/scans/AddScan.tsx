import { ScanLine } from 'lucide-react';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import { MOST_BYTES } from '../../../../core/scan/scan-file';
import { useBench } from '../../../job/bench-context';
import { sendScan } from '../../../scan/send-scan';
import { Button } from '../../../ui/controls';

const TYPES = '.stl,.obj,.ply,.off,.3mf,.xyz,.asc,.txt,.csv';

/** A file is chosen, or dropped anywhere on what is inside. */
export function useAddScan(onAdded: (id: string) => void) {
  const { job, session, say } = useBench('job', 'session', 'say');
  const [sending, setSending] = useState<string | null>(null);
  const send = async (file: File) => {
    if (file.size > MOST_BYTES) {
      say(`${file.name} is larger than ${MOST_BYTES / 1e6} MB: export it coarser.`, 'stop');
      return;
    }
    setSending(file.name);
    try {
      const { scan } = await sendScan(job.id, file);
      await session.refresh();
      onAdded(scan.id);
    } catch (error) {
      say((error as Error).message, 'stop');
    } finally {
      setSending(null);
    }
  };
  return { sending, send };
}

export function AddScanButton({
  sending,
  send,
  main = false,
}: {
  sending: string | null;
  send(file: File): Promise<void>;
  main?: boolean;
}) {
  const file = useRef<HTMLInputElement>(null);
  return (
    <>
      <Hidden
        ref={file}
        type="file"
        accept={TYPES}
        aria-label="Scan of the object"
        tabIndex={-1}
        onChange={event => {
          const chosen = event.target.files?.[0];
          event.target.value = '';
          if (chosen) void send(chosen);
        }}
      />
      <Button
        $small={!main}
        $look={main ? 'main' : undefined}
        isDisabled={sending !== null}
        onPress={() => file.current?.click()}
      >
        <ScanLine size={16} /> {sending ? `Reading ${sending.slice(0, 24)}…` : 'Add a scan'}
      </Button>
    </>
  );
}

const Hidden = styled.input`display: none;`;
