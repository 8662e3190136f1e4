import { useQuery } from '@tanstack/react-query';
import { Download } from 'lucide-react';
import styled from 'styled-components';
import { Batch } from '../../../contract/jobs';
import type { Version } from '../../../core/job/history';
import { counting } from '../../../core/job/history';
import { formatPlain } from '../../../core/quantity/format';
import { get } from '../../api/client';
import { useBench } from '../../job/bench-context';

/** Where the brief wants several: beds, hours, plastic and money, and files with as many as fit on a bed. */
export function BatchLines({ version }: { version: Version }) {
  const { job, resolved, document, workshop } = useBench('job', 'resolved', 'document', 'workshop');
  const wanted = document.brief.quantity ?? 1;
  const made = counting(resolved.history)
    .prints.filter(p => p.versionId === version.id)
    .reduce((sum, p) => sum + p.pieces, 0);
  const left = Math.max(0, wanted - made);
  const path = `/jobs/${job.id}/versions/${version.id}/batch`;
  const { data } = useQuery({
    queryKey: [path, left],
    queryFn: () => get(`${path}?pieces=${left}`, Batch),
    enabled: wanted > 1 && left > 0,
  });
  if (wanted <= 1) return null;
  if (left === 0) return <Lines>All {wanted} pieces of this version are printed.</Lines>;
  const last = data ? left % data.onOneBed : 0;
  const files = data ? [...new Set([Math.min(left, data.onOneBed), last].filter(n => n > 1))] : [];
  return (
    <Lines>
      <p>
        {made > 0 ? `${made} of ${wanted} pieces are printed. ` : ''}
        {left} {left === 1 ? 'piece' : 'pieces'}
        {data
          ? `: about ${formatPlain(data.hours, 1)} h, ${formatPlain(data.grams, 0)} g, ${data.cost.toFixed(2)} ${workshop.currency}. ${bedsInWords(data)}`
          : '…'}
      </p>
      {files.map(n => (
        <a key={n} href={`/api${path}.3mf?pieces=${n}`} download>
          <Download size={14} aria-hidden /> {n} on one bed, 3MF
        </a>
      ))}
    </Lines>
  );
}

function bedsInWords({ onOneBed, beds }: Batch): string {
  if (onOneBed === 0) return 'Not even one lies on this printer’s bed as it is drawn.';
  if (beds === 1) return 'They fit on one bed.';
  return `${onOneBed} ${onOneBed === 1 ? 'fits' : 'fit'} on one bed: ${beds} beds.`;
}

const Lines = styled.div`
  display: flex; flex-wrap: wrap; align-items: center; gap: 6px 14px; margin-top: 8px; font-size: 14px;
  a { display: inline-flex; gap: 5px; align-items: center; font-weight: 600; }
`;
