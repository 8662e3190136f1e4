import { ScanLine } from 'lucide-react';
import { useState } from 'react';
import { MOST_BYTES } from '../../../../core/scan/scan-file';
import { fileFrom } from '../../../api/client';
import { useBench } from '../../../job/bench-context';
import { sendScan } from '../../../scan/send-scan';
import { Button } from '../../../ui/controls';
import { FileButton } from '../../../ui/FileButton';

interface Props {
  /** The file that is on its way. */
  sending: string | null;
  send(file: File): Promise<void>;
  main?: boolean;
}

const TYPES = '.stl,.obj,.ply,.off,.3mf,.xyz,.asc,.txt,.csv';

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

/** Where the practice bench is on: its scanner's file is handled like any other. */
export function PracticeScanButton({ sending, send }: Omit<Props, 'main'>) {
  const { job, resolved, workshop, say } = useBench('job', 'resolved', 'workshop', 'say');
  const [scanning, setScanning] = useState(false);
  if (!workshop.practiceBench) return null;
  const scan = async () => {
    setScanning(true);
    try {
      const path = `/bench/jobs/${job.id}/scan`;
      const { content } = await fileFrom('POST', path, { partId: resolved.part.id });
      const nth = job.document.scans.length + 1;
      await send(new File([content], `practice scan ${nth}.stl`));
    } catch (error) {
      say((error as Error).message, 'stop');
    } finally {
      setScanning(false);
    }
  };
  return (
    <Button $small isDisabled={scanning || sending !== null} onPress={() => void scan()}>
      {scanning ? 'Scanning the practice object…' : 'Practice scanner'}
    </Button>
  );
}

export const AddScanButton = ({ sending, send, main }: Props) => (
  <FileButton
    label="Scan of the object"
    accept={TYPES}
    main={main}
    isDisabled={sending !== null}
    onFile={file => void send(file)}
  >
    <ScanLine size={16} /> {sending ? `Reading ${sending.slice(0, 24)}…` : 'Add a scan'}
  </FileButton>
);
