import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import styled from 'styled-components';
import { z } from 'zod';
import { Activity } from '../../../contract/jobs';
import { formatPlain } from '../../../core/quantity/format';
import { get } from '../../api/client';
import { useBench } from '../../job/bench-context';
import { Lead, Notice, Panel, Row, Stack } from '../../ui/layout';
import { FONTS } from '../../ui/theme';
import { FailedPanel } from './FailedPanel';
import { InService } from './InService';
import { Logbook } from './Logbook';
import { PutAway } from './PutAway';
import { WorthIt } from './WorthIt';

/** In service, the logbook, and the bundle to share. */
export function KeepStage() {
  const { overview, workshop, job } = useBench('overview', 'workshop', 'job');
  return (
    <>
      <h1>Kept</h1>
      <Lead>
        {overview.prints} {overview.prints === 1 ? 'print' : 'prints'}
        {overview.failed > 0 ? `, ${overview.failed} of them failed` : ''}, {formatPlain(overview.hours, 1)}{' '}
        h, {formatPlain(overview.grams, 1)} g, {overview.cost.toFixed(2)} {workshop.currency}.
      </Lead>
      <Columns>
        <Stack $gap={14}>
          <FailedPanel />
          <InService />
          <Panel>
            <Row $between $wrap>
              <h2>Hand it over, share it, move it</h2>
              <Row $gap={8}>
                <FileLink href={`/api/jobs/${job.id}/hand-over.pdf`} download>
                  Hand-over sheet
                </FileLink>
                <FileLink href={`/api/jobs/${job.id}/bundle`} download>
                  Export the job
                </FileLink>
              </Row>
            </Row>
            <p className="soft">
              The sheet goes with the part: what it is, its plastic, limits, cautions, when to look again. A
              bundle holds the readings, versions, prints and their files, for any rack; its sizes are
              compensated for this workshop’s printer.
            </p>
          </Panel>
          <PutAway />
        </Stack>
        <Stack $gap={14}>
          <Logbook />
          <WorthIt />
          <ActivityPanel />
        </Stack>
      </Columns>
    </>
  );
}

function ActivityPanel() {
  const { job } = useBench('job');
  const activity = useQuery({
    queryKey: ['activity', job.id, job.revision, job.updatedAt],
    queryFn: () => get(`/jobs/${job.id}/activity`, z.object({ activity: z.array(Activity) })),
  });
  return (
    <Panel>
      <details>
        <summary>Every edit</summary>
        {activity.error ? <Notice level="stop">{activity.error.message}</Notice> : null}
        {activity.data?.activity.length === 0 ? <p className="soft">No edit yet.</p> : null}
        <List>
          {activity.data?.activity.map(a => (
            <li key={a.id}>
              <small className="number soft">{format(new Date(a.at), 'd MMM HH:mm')}</small> {a.words}
            </li>
          ))}
        </List>
      </details>
    </Panel>
  );
}

const Columns = styled.div`
  display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); gap: 14px; max-width: 1180px;
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); }
`;
const List = styled.ul`list-style: none; padding: 0; margin: 8px 0 0; max-height: 300px; overflow: auto; font-size: 14px; li { padding: 3px 0; overflow-wrap: anywhere; }`;
const FileLink = styled.a`
  display: inline-flex; align-items: center; min-height: 32px; padding: 0 11px; border: 1px solid var(--blue); border-radius: 4px; text-decoration: none; font: 600 14px ${FONTS.text}; white-space: nowrap;
`;
