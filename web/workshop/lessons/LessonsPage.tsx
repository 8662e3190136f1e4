import { zodResolver } from '@hookform/resolvers/zod';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { format } from 'date-fns';
import { lazy, Suspense, useState } from 'react';
import { useForm } from 'react-hook-form';
import { Link } from 'react-router';
import styled from 'styled-components';
import { LessonsAnswer } from '../../../contract/lessons';
import { WorkshopAnswer } from '../../../contract/workshop';
import type { Workshop } from '../../../core/job/workshop';
import { Muted } from '../../../core/learn/lessons';
import { formatPlain } from '../../../core/quantity/format';
import { type LessonGroup, lessonGroups } from '../../../core/work/lesson-groups';
import { call, get } from '../../api/client';
import { Button } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Empty, Failure, Lead, Loading, Notice, Panel, Row, Stack } from '../../ui/layout';
import { TopBar } from '../../ui/TopBar';

const LessonChart = lazy(() => import('./LessonChart'));

/** What all jobs taught about this workshop's printers and plastics, and what is left out. */
export default function LessonsPage() {
  const shop = useQuery({ queryKey: ['workshop'], queryFn: () => get('/workshop', WorkshopAnswer) });
  const lessons = useQuery({ queryKey: ['lessons'], queryFn: () => get('/lessons', LessonsAnswer) });
  const failed = shop.error ?? lessons.error;
  return (
    <>
      <TopBar />
      <Page>
        <Row $between $wrap>
          <h1>What jobs taught</h1>
          <Link to="/workshop">Back to the workshop</Link>
        </Row>
        <Lead>
          Every tried print says how much tighter than drawn this printer makes a surface in this plastic. The
          next job begins with that; a job never counts its own tries twice.
        </Lead>
        {failed ? (
          <Failure error={failed} retry={() => void Promise.all([shop.refetch(), lessons.refetch()])} />
        ) : shop.data && lessons.data ? (
          <Groups shop={shop.data} evidence={lessons.data.evidence} />
        ) : (
          <Loading what="Reading the logbooks" />
        )}
      </Page>
    </>
  );
}

function Groups({ shop, evidence }: { shop: WorkshopAnswer; evidence: LessonsAnswer['evidence'] }) {
  const groups = lessonGroups(evidence, shop.workshop, new Date().toISOString());
  if (groups.length === 0)
    return (
      <Empty title="No lesson yet">
        Once a print was tried and judged, it stands here: how holes, pegs and slots come out on each printer
        in each plastic.
      </Empty>
    );
  return (
    <Stack $gap={14}>
      {groups.map(group => (
        <Group key={group.words} group={group} shop={shop} />
      ))}
    </Stack>
  );
}

function Group({ group, shop }: { group: LessonGroup; shop: WorkshopAnswer }) {
  const { before, after, counting, evidence, muted, drift } = group;
  const save = useSaveMuted(shop);
  const [asking, setAsking] = useState<{ before: string | null } | null>(null);
  const { printerId, materialId, surface } = group;
  const jobs = new Set(counting.map(e => e.jobId)).size;
  const prints = counting.reduce((sum, e) => sum + e.prints, 0);
  return (
    <Panel aria-label={group.words}>
      <Row $between $wrap>
        <h2>{group.words}</h2>
        <span className="soft">
          {jobs} {jobs === 1 ? 'job' : 'jobs'}, {prints}{' '}
          {group.hand === null ? (prints === 1 ? 'print' : 'prints') : 'measured'}
        </span>
      </Row>
      <p>
        {group.hand === null ? (
          <>
            They come out <b className="number">{formatPlain(Math.abs(after.mean), 2)} mm</b>{' '}
            {after.mean < 0 ? 'looser' : 'tighter'} than drawn, give or take {formatPlain(after.sd, 2)}; for a
            printer without records it would be {formatPlain(before.mean, 2)}, give or take{' '}
            {formatPlain(before.sd, 2)}.
          </>
        ) : (
          <>
            It calls “tight” <b className="number">{formatPlain(Math.abs(after.mean), 2)} mm</b>{' '}
            {after.mean < 0 ? 'later' : 'earlier'} than the window says, give or take{' '}
            {formatPlain(after.sd, 2)}. Once that is sure, its tries count by its own edges, and what it will
            judge is drawn for it.
          </>
        )}
      </p>
      {drift ? (
        <Notice
          level="warn"
          action={
            <Button $small onPress={() => setAsking({ before: drift.since })}>
              Forget what is older…
            </Button>
          }
        >
          Since {format(new Date(drift.since), 'MMMM yyyy')}{' '}
          {group.hand === null ? 'they come out' : 'it calls things'} {formatPlain(Math.abs(drift.by), 2)} mm{' '}
          {drift.by > 0 ? 'tighter' : 'looser'} than before.{' '}
          {group.hand === null
            ? 'A new nozzle, other settings, another spool?'
            : 'Another person of that name?'}
        </Notice>
      ) : null}
      <Suspense fallback={<Loading what="Drawing the chart" />}>
        <LessonChart group={group} />
      </Suspense>
      <Scroll>
        <table>
          <thead>
            <tr>
              <th scope="col">Job</th>
              <th scope="col">Last try</th>
              <th scope="col">{group.hand === null ? 'Prints' : 'Measured tries'}</th>
              <th scope="col">{group.hand === null ? 'Tighter than drawn, mm' : '“Tight” earlier by, mm'}</th>
              <th scope="col">Give or take</th>
            </tr>
          </thead>
          <tbody>
            {evidence.map(e => (
              <tr key={e.jobId} data-muted={counting.includes(e) ? undefined : ''}>
                <th scope="row">
                  <Link to={`/jobs/${e.jobId}/try`}>{e.title}</Link>
                </th>
                <td>{format(new Date(e.at), 'd MMM yyyy')}</td>
                <td className="number">{e.prints}</td>
                <td className="number">{formatPlain(e.mean, 2)}</td>
                <td className="number">{formatPlain(e.sd, 2)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Scroll>
      {muted.map(m => (
        <Row key={`${m.before}${m.reason}`} $gap={10} $wrap>
          <span className="soft">
            Left out{m.before ? `, what is older than ${format(new Date(m.before), 'd MMM yyyy')}` : ''}:{' '}
            {m.reason}
          </span>
          <Button
            $small
            $look="quiet"
            onPress={() => void save.with((shop.workshop.lessonsMuted ?? []).filter(x => x !== m))}
          >
            Use it again
          </Button>
        </Row>
      ))}
      {asking ? (
        <MuteForm
          older={asking.before}
          onClose={() => setAsking(null)}
          mute={reason =>
            save.with([
              ...(shop.workshop.lessonsMuted ?? []),
              { printerId, materialId, surface, before: asking.before, reason },
            ])
          }
        />
      ) : muted.some(m => m.before === null) ? null : (
        <Button $small $look="quiet" onPress={() => setAsking({ before: null })}>
          Leave it out…
        </Button>
      )}
      {save.problem ? <Notice level="stop">{save.problem}</Notice> : null}
    </Panel>
  );
}

const Why = Muted.pick({ reason: true });

/** Why a lesson is left out. @param older than which day; null for all of it */
function MuteForm({
  older,
  mute,
  onClose,
}: {
  older: string | null;
  mute(reason: string): Promise<boolean>;
  onClose(): void;
}) {
  const { control, handleSubmit, formState } = useForm({
    resolver: zodResolver(Why),
    defaultValues: { reason: '' },
  });
  const save = handleSubmit(async ({ reason }) => {
    if (await mute(reason)) onClose();
  });
  return (
    <form onSubmit={event => void save(event)}>
      <Row $gap={10} $wrap style={{ alignItems: 'flex-end', marginTop: 8 }}>
        <div style={{ flex: '1 1 260px', maxWidth: 420 }}>
          <FormField
            control={control}
            name="reason"
            label={
              older
                ? `Why forget what is older than ${format(new Date(older), 'd MMM yyyy')}?`
                : 'Why leave it out?'
            }
            placeholder="new nozzle"
            autoFocus
          />
        </div>
        <Button $small type="submit" isDisabled={formState.isSubmitting}>
          Leave it out
        </Button>
        <Button $small $look="quiet" onPress={onClose}>
          Never mind
        </Button>
      </Row>
    </form>
  );
}

/** Saves the muted lessons with the workshop's current state on the server. */
function useSaveMuted({ workshop, revision }: { workshop: Workshop; revision: number }) {
  const client = useQueryClient();
  const [problem, setProblem] = useState('');
  return {
    problem,
    async with(lessonsMuted: Muted[]): Promise<boolean> {
      try {
        const next = await call('PUT', '/workshop', WorkshopAnswer, {
          revision,
          workshop: { ...workshop, lessonsMuted },
        });
        client.setQueryData(['workshop'], next);
        setProblem('');
        return true;
      } catch (error) {
        setProblem((error as Error).message);
        return false;
      }
    },
  };
}

const Page = styled.main`padding: 22px 28px 60px; max-width: 980px; margin: 0 auto;`;
const Scroll = styled.div`
  overflow-x: auto; margin: 6px 0;
  table { border-collapse: collapse; font-size: 14.5px; width: 100%; }
  th, td { text-align: left; font-weight: 400; padding: 4px 16px 4px 0; border-top: 1px solid var(--rule); overflow-wrap: anywhere; }
  thead th { color: var(--soft); border-top: 0; }
  tr[data-muted] { opacity: 0.55; text-decoration: line-through; }
`;
