import { useQuery, useQueryClient } from '@tanstack/react-query';
import { format } from 'date-fns';
import { lazy, Suspense, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { Found, Rack as RackAnswer, type RackJob } from '../../contract/rack';
import type { Away } from '../../core/job/document';
import { get } from '../api/client';
import { useStream } from '../api/events';
import { fetchAnew } from '../api/fetch-anew';
import { Button, fieldBox, Select } from '../ui/controls';
import { Empty, Failure, Loading, Row, VerdictMark } from '../ui/layout';
import { PartThumbnail } from '../ui/PartThumbnail';
import { TopBar } from '../ui/TopBar';
import { FONTS } from '../ui/theme';
import { ImportButton } from './ImportButton';
import { UnreadableJob } from './UnreadableJob';

// The dialog needs the recipes, and with them much of the core: the rack itself needs none of it.
const loadDialog = () => import('./NewJobDialog');
const NewJobDialog = lazy(loadDialog);

/** Home: the jobs as repair tags, those that wait for the maker first. */
export function Rack() {
  const client = useQueryClient();
  // Changes while another page was open were not received here.
  const rack = useQuery({ queryKey: ['rack'], queryFn: () => get('/jobs', RackAnswer), staleTime: 0 });
  const [making, setMaking] = useState(false);
  const [wanted, setWanted] = useState('');
  useStream(event => {
    if (event.kind === 'job' || event.kind === 'back') void fetchAnew(client, 'rack');
  });
  useEffect(() => {
    document.title = 'Sagoma';
  }, []);
  useEffect(() => {
    if (!rack.isSuccess) return;
    // Fetched once the jobs are shown, so that the dialog opens at once and nothing delays the jobs.
    // If that fails it is fetched when the dialog is opened, which then reports the error.
    const timer = setTimeout(() => void loadDialog().catch(() => undefined), 300);
    return () => clearTimeout(timer);
  }, [rack.isSuccess]);
  const name = rack.data?.workshop ?? '';
  const [where, setWhere] = useState<Where>('rack');
  /** How many tags of a group are shown, by its title. */
  const [shown, setShown] = useState<Readonly<Record<string, number>>>({});
  const found = useFound(wanted);
  const all = rack.data?.jobs ?? [];
  const away = all.some(job => job.away !== null);
  const jobs = all.filter(
    job => whereIs(job) === where && (matches(job, wanted) || (found?.has(job.id) ?? false)),
  );
  const waiting = all.reduce(
    (sum, job) => sum + (job.away === null ? job.toPrint.length + job.aids.length : 0),
    0,
  );
  const groups = [
    { title: 'Waiting for you', jobs: jobs.filter(j => j.next.waits) },
    { title: 'Look how it holds', jobs: jobs.filter(j => !j.next.waits && isDue(j)) },
    { title: 'On the bench', jobs: jobs.filter(j => !j.next.waits && !isDue(j) && !j.inService) },
    { title: 'In service', jobs: jobs.filter(j => !j.next.waits && !isDue(j) && j.inService) },
  ];
  return (
    <>
      <TopBar>
        <Find
          aria-label="Find a job"
          placeholder="Find a job…"
          value={wanted}
          onChange={e => setWanted(e.target.value)}
          type="search"
        />
        <Button $look="plain" onPress={() => setMaking(true)}>
          New job
        </Button>
      </TopBar>
      <Page>
        <Head>
          <h1>{name ? `${name}, ${format(new Date(), 'EEEE')}` : ' '}</h1>
          <Row $gap={10}>
            {waiting > 0 ? (
              <Link to="/queue">
                {waiting === 1 ? 'One print waits' : `${waiting} prints wait`} for a printer
              </Link>
            ) : null}
            {away ? (
              <Select
                label="Which jobs"
                hideLabel
                value={where}
                options={WHERE}
                onChange={chosen => setWhere(chosen)}
              />
            ) : null}
            <ImportButton />
          </Row>
        </Head>
        {rack.error ? <Failure error={rack.error} retry={() => void rack.refetch()} /> : null}
        {rack.isPending ? <Loading what="Taking the jobs off the hook" /> : null}
        {rack.data && rack.data.jobs.length === 0 ? (
          <Empty
            title="No jobs yet"
            action={
              <Button $look="main" onPress={() => setMaking(true)}>
                Start the first job
              </Button>
            }
          >
            A job is one object and the part you make for it. Take the thing that is broken, a pair of
            calipers, and start: Sagoma asks for one number after the other.
          </Empty>
        ) : null}
        {rack.data && rack.data.jobs.length > 0 && jobs.length === 0 ? (
          <p className="soft">
            {wanted.trim()
              ? `Nothing like “${wanted}” was written in any of these jobs.`
              : 'No job hangs here.'}
          </p>
        ) : null}
        {(rack.data?.unreadable ?? []).map(job => (
          <UnreadableJob key={job.id} job={job} />
        ))}
        {groups.map(group =>
          group.jobs.length === 0 ? null : (
            <section key={group.title} aria-label={group.title}>
              <Group>
                {group.title} <small>{group.jobs.length === 1 ? '1 job' : `${group.jobs.length} jobs`}</small>
              </Group>
              {group.jobs.slice(0, shown[group.title] ?? PAGE).map(job => (
                <Tag key={job.id} job={job} />
              ))}
              {group.jobs.length > (shown[group.title] ?? PAGE) ? (
                <Button
                  $look="quiet"
                  onPress={() =>
                    setShown(now => ({ ...now, [group.title]: (now[group.title] ?? PAGE) + PAGE }))
                  }
                >
                  {Math.min(PAGE, group.jobs.length - (shown[group.title] ?? PAGE))} more of{' '}
                  {group.jobs.length}
                </Button>
              ) : null}
            </section>
          ),
        )}
      </Page>
      {making ? (
        <Suspense fallback={null}>
          <NewJobDialog isOpen onClose={() => setMaking(false)} />
        </Suspense>
      ) : null}
    </>
  );
}

/** Tags of a group that are shown at once: thousands take a browser seconds. */
const PAGE = 60;

type Where = 'rack' | Away;
const WHERE: { value: Where; label: string }[] = [
  { value: 'rack', label: 'on the rack' },
  { value: 'archived', label: 'put away' },
  { value: 'recipe', label: 'kept as recipes' },
  { value: 'removed', label: 'removed, kept for 30 days' },
];
const whereIs = ({ away }: RackJob): Where => away ?? 'rack';

/** Fewer letters find everything. */
const LEAST_LETTERS = 2;

/** Jobs that the server finds in all text that was written; null while it was not asked or has not answered. */
function useFound(wanted: string): ReadonlySet<string> | null {
  const asked = useDeferredValue(wanted.trim());
  const { data } = useQuery({
    queryKey: ['search', asked],
    queryFn: () => get(`/jobs/search?q=${encodeURIComponent(asked)}`, Found),
    enabled: asked.length >= LEAST_LETTERS,
  });
  return useMemo(() => (data ? new Set(data.ids) : null), [data]);
}

/** Somebody should look at it by now: what is due depends on the day, not on the job. */
const isDue = ({ lookAt }: RackJob): boolean => lookAt !== null && new Date(lookAt) <= new Date();

const matches = (job: RackJob, wanted: string) =>
  `${job.number} ${job.title} ${job.object} ${job.state}`.toLowerCase().includes(wanted.trim().toLowerCase());

function Tag({ job }: { job: RackJob }) {
  return (
    <TagLink
      to={`/jobs/${job.id}/${job.next.stage}?part=${job.partId}`}
      data-waits={job.next.waits ? '' : undefined}
    >
      <span className="hole" />
      <span className="number">{job.number}</span>
      <span className="part">
        <PartThumbnail of={job.thumbnail} label="Cut through the part" />
      </span>
      <span className="words">
        <b>{job.title}</b>
        <span className="soft">{job.object || 'object not named yet'}</span>
        <span className="marks">
          {job.marks.map((mark, i) => (
            <VerdictMark
              key={i}
              mark={mark.verdict}
              label={`${mark.words}: ${mark.verdict ?? 'not tried yet'}`}
            />
          ))}
        </span>
      </span>
      <span className="next">
        <b>{isDue(job) && !job.next.waits ? 'Look how it holds' : job.next.action}</b>
        <span className="soft">{job.next.reason}</span>
      </span>
    </TagLink>
  );
}

const Page = styled.main`padding: 22px 28px 60px; max-width: 1400px; margin: 0 auto;`;
const Head = styled.div`display: flex; justify-content: space-between; align-items: center; gap: 16px; min-height: 40px; h1 { overflow-wrap: anywhere; }`;
const Find = styled.input`${fieldBox} width: 260px; background: var(--raised);`;
const Group = styled.h2`margin: 18px 0 9px; small { font: 14px ${FONTS.text}; color: var(--soft); margin-left: 6px; }`;
const TagLink = styled(Link)`
  display: flex; align-items: center; gap: 14px; min-height: 92px; padding: 10px 22px 10px 20px; margin-bottom: 8px; text-decoration: none; color: var(--ink);
  background: var(--sheet); border: 1px solid var(--rule); border-left: 0; position: relative; margin-left: 18px;
  &::before {
    content: ''; position: absolute; left: -18px; top: -1px; bottom: -1px; width: 18px; background: var(--rule); clip-path: polygon(100% 0, 0 28%, 0 72%, 100% 100%);
  }
  &::after {
    content: ''; position: absolute; left: -17px; top: 0; bottom: 0; width: 19px; background: var(--sheet); clip-path: polygon(100% 0, 0 28.5%, 0 71.5%, 100% 100%);
  }
  &:hover, &:hover::after { background: var(--raised); }
  &[data-waits] { border-color: var(--blue); &::before { background: var(--blue); } }
  .hole { width: 13px; height: 13px; border-radius: 50%; background: var(--paper); border: 1px solid var(--rule); margin-left: -18px; z-index: 1; flex: none; }
  .number { font-size: 15px; font-weight: 600; width: 26px; color: var(--soft); flex: none; }
  .part { width: 104px; height: 66px; flex: none; }
  .part svg { width: 100%; height: 100%; display: block; }
  .words, .next { display: flex; flex-direction: column; gap: 2px; min-width: 0; overflow-wrap: anywhere; }
  .words { flex: 1 1 40%; }
  .words b, .next b { font: 600 17px ${FONTS.label}; }
  .words b { display: -webkit-box; -webkit-line-clamp: 2; -webkit-box-orient: vertical; overflow: hidden; }
  .next { text-align: right; align-items: flex-end; flex: 0 1 38%; }
  .next b { color: var(--blue); }
  .soft { font-size: 14px; }
  .marks { display: flex; gap: 7px; min-height: 14px; margin-top: 4px; }
  @media (max-width: 700px) { .part { display: none; } .next .soft { display: none; } }
`;
