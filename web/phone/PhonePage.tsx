import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Camera, CircleCheck, Ruler } from 'lucide-react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link, Navigate, NavLink, useParams } from 'react-router';
import styled from 'styled-components';
import { OnBench } from '../../contract/phone';
import { get, ServerSaid } from '../api/client';
import { useConnected, useStream } from '../api/events';
import { fetchAnew } from '../api/fetch-anew';
import { BenchContext } from '../job/bench-context';
import { ConflictDialog } from '../job/ConflictDialog';
import { MessageLine, useMessage } from '../job/MessageLine';
import { OpenJob } from '../job/OpenJob';
import { PartBar } from '../job/PartBar';
import { type OpenJob as Open, useBenchOf } from '../job/use-bench-of';
import { Button } from '../ui/controls';
import { Empty, Failure, Loading, Notice } from '../ui/layout';
import { FONTS } from '../ui/theme';
import { PhonePhotos } from './PhonePhotos';
import { PhoneReadings } from './PhoneReadings';
import { PhoneVerdict } from './PhoneVerdict';
import { useOutbox } from './phone-outbox';

const PAGES = {
  photo: { words: 'Photo', Icon: Camera, Page: PhonePhotos },
  readings: { words: 'Readings', Icon: Ruler, Page: PhoneReadings },
  verdict: { words: 'Verdict', Icon: CircleCheck, Page: PhoneVerdict },
};
type What = keyof typeof PAGES;
const isWhat = (what: string | undefined): what is What => what !== undefined && what in PAGES;

/** The workshop's second screen: the job on the bench, for thumbs. */
export default function PhonePage() {
  const { what } = useParams();
  const client = useQueryClient();
  const connected = useConnected();
  const bench = useQuery({
    queryKey: ['on-bench'],
    queryFn: () => get('/on-bench', OnBench),
    // A phone that is no longer paired receives no events either: it must ask.
    refetchInterval: connected ? false : 4000,
  });
  // Whatever happens to the job that is shown, waiting photos are sent.
  const { waiting } = useOutbox();
  useStream(event => {
    if (event.kind === 'bench' || event.kind === 'back') void fetchAnew(client, 'on-bench');
  });
  // What is being typed stays where it is: the phone changes jobs only when it is asked to.
  const [held, setHeld] = useState<string | null>(null);
  const now = bench.data?.jobId ?? null;
  useEffect(() => {
    if (held === null && now !== null) setHeld(now);
  }, [held, now]);
  if (!isWhat(what)) return <Navigate to="/phone/photo" replace />;
  if (bench.error instanceof ServerSaid && bench.error.status === 401) return <TurnedAway />;
  if (bench.error && held === null) return <Failure error={bench.error} retry={() => void bench.refetch()} />;
  if (bench.isPending) return <Loading what="Looking at the bench" />;
  if (held === null)
    return (
      <Middle>
        <Empty title="Nothing on the bench">Open a job on the computer: it shows here at once.</Empty>
      </Middle>
    );
  return (
    <OpenJob key={held} jobId={held}>
      {open => (
        <PhoneBench
          {...open}
          what={what}
          waiting={waiting.length}
          other={now !== held}
          onOther={() => setHeld(now)}
        />
      )}
    </OpenJob>
  );
}

function TurnedAway() {
  return (
    <Middle>
      <Empty title="This phone has no access" action={<Link to="/pair">Give a code</Link>}>
        It was removed, or never paired. On the computer, open Workshop, then “Pair a phone”. Photos that wait
        in this phone stay in it.
      </Empty>
    </Middle>
  );
}

interface Props extends Open {
  what: What;
  /** Photos that are not sent yet. */
  waiting: number;
  /** Another job is on the bench by now. */
  other: boolean;
  onOther(): void;
}

function PhoneBench({ what, waiting, other, onOther, ...open }: Props) {
  const { document, state } = open;
  const { message, say, clear } = useMessage();
  const onPart = useCallback(() => {}, []);
  // Everything but photos, readings and verdicts is done at the bench.
  const onGo = useCallback(() => say('Do this at the bench, on the computer.'), [say]);
  // Simulated instruments belong to the bench as well.
  const workshop = useMemo(() => ({ ...open.workshop, practiceBench: false }), [open.workshop]);
  const { store } = useBenchOf({ ...open, workshop }, { asked: null, onPart, onGo, say });
  const { Page } = PAGES[what];
  const { number } = state.base!;
  useEffect(() => {
    window.document.title = `${number} · ${document.title} – Sagoma`;
  }, [number, document.title]);
  return (
    <BenchContext value={store}>
      <Tag>
        <b>
          {number} · {document.title}
        </b>
        <small>{document.object.name || 'object not named yet'}</small>
      </Tag>
      <Body>
        {other ? (
          <div style={{ marginBottom: 12 }}>
            <Notice
              level="note"
              action={
                <Button $small onPress={onOther}>
                  Go to it
                </Button>
              }
            >
              Another job lies on the bench now.
            </Notice>
          </div>
        ) : null}
        {what === 'photo' ? null : <PartBar onShape={false} />}
        <Page />
      </Body>
      <Thumbs aria-label="What to do">
        {Object.entries(PAGES).map(([key, { words, Icon }]) => (
          <NavLink key={key} to={`/phone/${key}`} replace>
            <Icon size={22} aria-hidden />
            {words}
            {key === 'photo' && waiting > 0 ? <i title={`${waiting} not sent yet`}>{waiting}</i> : null}
          </NavLink>
        ))}
      </Thumbs>
      <Above>
        <MessageLine message={message} onClose={clear} />
      </Above>
      <ConflictDialog />
    </BenchContext>
  );
}

const Tag = styled.header`
  position: sticky; top: 0; z-index: 10; background: var(--blue); color: var(--on-blue); padding: 8px 16px; min-width: 0;
  b { font: 600 18px/1.2 ${FONTS.label}; display: block; }
  b, small { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; display: block; }
  small { font-size: 13px; opacity: 0.88; }
`;
const Body = styled.main`padding: 14px 14px 110px; max-width: 640px; margin: 0 auto; min-width: 0;`;
const Middle = styled.main`padding: 40px 16px;`;
const Thumbs = styled.nav`
  position: fixed; left: 0; right: 0; bottom: 0; z-index: 15; display: grid; grid-template-columns: repeat(3, 1fr);
  background: var(--sheet); border-top: 1px solid var(--rule); padding-bottom: env(safe-area-inset-bottom);
  a {
    position: relative; display: flex; flex-direction: column; align-items: center; gap: 3px; padding: 9px 0 8px; min-height: 58px;
    color: var(--soft); text-decoration: none; font: 500 13.5px ${FONTS.label}; border-top: 3px solid transparent;
  }
  a.active { color: var(--blue); border-top-color: var(--blue); font-weight: 600; }
  i {
    position: absolute; top: 5px; left: calc(50% + 12px); min-width: 19px; padding: 0 5px; border-radius: 10px; background: var(--loose); color: var(--sheet);
    font: 600 12px/19px ${FONTS.number}; text-align: center;
  }
`;
/** Above the keys at the bottom. */
const Above = styled.div`> div { bottom: 78px; }`;
