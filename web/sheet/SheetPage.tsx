import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import { FileDown, Printer } from 'lucide-react';
import { useEffect, useMemo } from 'react';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { JobAnswer } from '../../contract/jobs';
import { WorkshopAnswer } from '../../contract/workshop';
import type { Workshop } from '../../core/job/workshop';
import type { Evidence } from '../../core/learn/lessons';
import type { SheetRow } from '../../core/work/sheet';
import { Work } from '../../core/work/work';
import { get } from '../api/client';
import { useLessons } from '../api/use-lessons';
import { DrawingView } from '../drawing/DrawingView';
import { Button } from '../ui/controls';
import { Failure, Loading, Row } from '../ui/layout';
import { FONTS } from '../ui/theme';

/** The measuring sheet as it will be printed. */
export default function SheetPage() {
  const { jobId = '' } = useParams();
  const job = useQuery({
    queryKey: ['sheet', jobId],
    queryFn: () => get(`/jobs/${jobId}`, JobAnswer),
    staleTime: 0,
  });
  const shop = useQuery({ queryKey: ['workshop'], queryFn: () => get('/workshop', WorkshopAnswer) });
  const lessons = useLessons(jobId);
  const failed = job.error ?? shop.error;
  if (failed)
    return <Failure error={failed} retry={() => void Promise.all([job.refetch(), shop.refetch()])} />;
  if (!job.data || !shop.data || lessons === null) return <Loading what="Laying out the sheet" />;
  return <SheetOfJob job={job.data} workshop={shop.data.workshop} lessons={lessons} />;
}

interface Props {
  job: JobAnswer;
  workshop: Workshop;
  lessons: readonly Evidence[];
}

function SheetOfJob({ job, workshop, lessons }: Props) {
  const { sheet } = useMemo(() => Work.of(job, workshop, lessons), [job, workshop, lessons]);
  useEffect(() => {
    document.title = `Sheet: ${sheet.title} – Sagoma`;
  }, [sheet.title]);
  return (
    <Page>
      <Bar>
        <Link to={`/jobs/${job.id}/measure`}>Back to measuring</Link>
        <Row $gap={8} $wrap>
          <Button onPress={() => window.print()}>
            <Printer size={16} /> Print
          </Button>
          <FileLink href={`/api/jobs/${job.id}/sheet.pdf`} download>
            <FileDown size={16} /> PDF
          </FileLink>
          <FileLink href={`/api/jobs/${job.id}/readings.csv`} download>
            <FileDown size={16} /> Readings as CSV
          </FileLink>
        </Row>
      </Bar>
      <Paper>
        <h1>{sheet.title}</h1>
        <p className="soft">
          {sheet.object ? `${sheet.object} · ` : ''}job {job.number} · as of{' '}
          {format(new Date(job.updatedAt), 'd MMMM yyyy, HH:mm')}
        </p>
        {sheet.note ? <p>{sheet.note}</p> : null}
        {sheet.views.map(view => (
          <section key={view.part}>
            {view.part ? <h2>{view.part}</h2> : null}
            <DrawingView
              drawing={view.drawing}
              valueFor={d => view.values[d.key] ?? null}
              lit={null}
              height={330}
            />
          </section>
        ))}
        <table>
          <thead>
            <tr>
              <th>Dimension</th>
              <th>Value, 95 %</th>
              <th>Readings</th>
              <th>How</th>
            </tr>
          </thead>
          <tbody>
            {sheet.rows.map(row => (
              <SheetLine key={row.id} row={row} />
            ))}
          </tbody>
        </table>
        {sheet.threads.map(t => (
          <p key={t.label}>
            <b>
              {t.label}: {t.standard}.
            </b>{' '}
            {t.words}
          </p>
        ))}
        {sheet.open.length > 0 ? <p>Not read yet: {sheet.open.join('; ')}.</p> : null}
        <p className="soft small">A value’s doubt is for 95 %. Struck-out readings are crossed out.</p>
      </Paper>
    </Page>
  );
}

function SheetLine({ row }: { row: SheetRow }) {
  return (
    <tr>
      <td>
        {row.label}
        {row.critical ? <small>the fit depends on it</small> : null}
      </td>
      <td className="number">{row.value || <i>____________</i>}</td>
      <td className="number">
        {row.readings.length > 0
          ? row.readings.map((r, i) => (
              <span key={i} data-struck={r.struck ? '' : undefined}>
                {r.text}
              </span>
            ))
          : row.value
            ? null
            : '______ ______ ______'}
        {row.with ? <small>{row.with}</small> : null}
      </td>
      <td>
        {row.how}
        {row.note ? <small>{row.note}</small> : null}
        {row.source && row.source !== 'the seat' ? <small>Read: {row.source}.</small> : null}
      </td>
    </tr>
  );
}

const Page = styled.main`padding: 18px 20px 60px; @media print { padding: 0; }`;
const Bar = styled.div`
  max-width: 900px; margin: 0 auto 14px; display: flex; justify-content: space-between; align-items: center; gap: 12px; flex-wrap: wrap;
  @media print { display: none; }
`;
const FileLink = styled.a`
  display: inline-flex; align-items: center; gap: 7px; min-height: 40px; padding: 0 16px; border: 1px solid var(--blue); border-radius: 4px; font-weight: 600; text-decoration: none; background: var(--sheet);
`;
const Paper = styled.article`
  max-width: 900px; margin: 0 auto; background: var(--sheet); border: 1px solid var(--rule); border-radius: 6px; padding: 28px 32px;
  h1 { overflow-wrap: anywhere; } > p { margin: 4px 0 10px; } .small { font-size: 13px; }
  table { width: 100%; border-collapse: collapse; font-size: 14.5px; margin: 14px 0; }
  th { text-align: left; font: 600 14px ${FONTS.label}; color: var(--soft); padding: 4px 8px 4px 0; }
  td { border-top: 1px solid var(--rule); padding: 7px 8px 7px 0; vertical-align: top; overflow-wrap: anywhere; }
  td:nth-child(2) { font-weight: 600; white-space: nowrap; } td:nth-child(3) span { margin-right: 10px; display: inline-block; } td:nth-child(3) span[data-struck] { text-decoration: line-through; color: var(--soft); }
  small { display: block; color: var(--soft); font: 13px ${FONTS.text}; }
  tr { break-inside: avoid; }
  @media print { border: 0; padding: 0; max-width: none; }
  @media (max-width: 620px) { padding: 16px; table { font-size: 13px; } td:nth-child(2) { white-space: normal; } }
`;
