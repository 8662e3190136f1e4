import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { HANDS, type Hand, Queue, type QueueItem, QueueTakes } from '../../contract/queue';
import { MOST_PIECES } from '../../core/job/fields';
import { formatHours, formatPlain } from '../../core/quantity/format';
import { get } from '../api/client';
import { useStream } from '../api/events';
import { fetchAnew } from '../api/fetch-anew';
import { sinceWords } from '../ui/clock-words';
import { Checkbox, Select, TextField } from '../ui/controls';
import { Empty, Failure, Lead, Loading, Panel, Stack } from '../ui/layout';
import { TopBar } from '../ui/TopBar';
import { PlatePanel } from './PlatePanel';
import { type Choice, type Chosen, choiceOf, choiceOfAid } from './wishes';

/** What waits for a printer, over all jobs; several can share a bed. */
export default function QueuePage() {
  const client = useQueryClient();
  // Changes while another page was open were not received here.
  const queue = useQuery({ queryKey: ['queue'], queryFn: () => get('/queue', Queue), staleTime: 0 });
  const [chosen, setChosen] = useState<Chosen>({});
  useStream(event => {
    if (event.kind === 'job' || event.kind === 'back') void fetchAnew(client, 'queue');
  });
  useEffect(() => {
    document.title = 'Waiting for a printer';
  }, []);
  const choose = (key: string, choice: Choice | null) =>
    setChosen(({ [key]: _, ...others }) => (choice ? { ...others, [key]: choice } : others));
  const { data } = queue;
  // What was printed or removed meanwhile can no longer be chosen.
  const there = new Set(data ? [...data.items.map(i => i.versionId), ...data.aids.map(a => a.id)] : []);
  const still = Object.entries(chosen).filter(([key]) => there.has(key));
  return (
    <>
      <TopBar />
      <Page>
        <h1>Waiting for a printer</h1>
        <Lead>
          What is on a printer, and what waits for one: versions that were made and not printed, what is
          missing of a batch once one sat right, ladders and gauges. Choose several: they share a bed.
        </Lead>
        {queue.error ? <Failure error={queue.error} retry={() => void queue.refetch()} /> : null}
        {queue.isPending ? <Loading what="Looking through the jobs" /> : null}
        {data && data.items.length + data.aids.length + data.running.length === 0 ? (
          <Empty title="Nothing waits">
            A version that is made on Print stands here until a print of it came out; so does a ladder until
            it is tried, and a gauge until it is measured.
          </Empty>
        ) : null}
        {data && data.items.length + data.aids.length + data.running.length > 0 ? (
          <Columns>
            <Stack $gap={14}>
              {data.printers.map(printer => {
                const items = data.items.filter(i => i.printerId === printer.id);
                const aids = data.aids.filter(a => a.printerId === printer.id);
                const running = data.running.filter(r => r.printerId === printer.id);
                return items.length + aids.length + running.length === 0 ? null : (
                  <Panel key={printer.id} aria-label={printer.name}>
                    <h2>{printer.name}</h2>
                    <List>
                      {running.map(print => (
                        <li key={print.startId}>
                          <Words>
                            <b>
                              {print.number} · {print.title}
                            </b>
                            <span className="soft">
                              {print.words}
                              {print.pieces > 1 ? `, ${print.pieces} pieces` : ''},{' '}
                              {sinceWords(print.since, print.ready)}
                            </span>
                          </Words>
                          <Link to={`/jobs/${print.jobId}/print?part=${print.partId}`}>how it came out</Link>
                        </li>
                      ))}
                      {items.map(item => (
                        <ItemRow
                          key={item.versionId}
                          item={item}
                          chosen={chosen[item.versionId] ?? null}
                          onChoose={choice => choose(item.versionId, choice)}
                        />
                      ))}
                      {aids.map(aid => (
                        <li key={aid.id}>
                          <Checkbox
                            aria-label={`${aid.title}, ${aid.words}`}
                            isSelected={aid.id in chosen}
                            onChange={on => choose(aid.id, on ? choiceOfAid(aid) : null)}
                          >
                            <Words>
                              <b>
                                {aid.number} · {aid.title}
                              </b>
                              <span className="soft">
                                {aid.words}, {aid.material}
                              </span>
                            </Words>
                          </Checkbox>
                          <Link to={`/jobs/${aid.jobId}/fit`}>open</Link>
                        </li>
                      ))}
                    </List>
                  </Panel>
                );
              })}
              {data.more > 0 ? (
                <p className="soft">{data.more} more wait: they come up as these are printed.</p>
              ) : null}
            </Stack>
            <PlatePanel
              choices={still.map(([, choice]) => choice)}
              printers={data.printers}
              onPrinted={() => setChosen({})}
            />
          </Columns>
        ) : null}
      </Page>
    </>
  );
}

function ItemRow({
  item,
  chosen,
  onChoose,
}: {
  item: QueueItem;
  chosen: Choice | null;
  onChoose(choice: Choice | null): void;
}) {
  const [text, setText] = useState(String(item.pieces));
  const [of, setOf] = useState('drawn');
  const takes = useQuery({
    queryKey: ['queue-takes', item.versionId],
    queryFn: () => get(`/queue/takes/${item.jobId}/${item.versionId}`, QueueTakes),
    staleTime: 60_000,
  });
  const pieces = Number(text.trim());
  const problem =
    Number.isInteger(pieces) && pieces >= 1 && pieces <= MOST_PIECES
      ? undefined
      : `A whole number, 1 to ${MOST_PIECES}.`;
  const told = (many: number, what: string) =>
    choiceOf(item, many, isHand(what) ? { hand: what } : { slice: what });
  const one = takes.data?.takes;
  return (
    <li>
      <Checkbox
        aria-label={`${item.title}, ${item.words}`}
        isSelected={chosen !== null}
        isDisabled={problem !== undefined || takes.data?.takes === null}
        onChange={on => onChoose(on ? told(pieces, of) : null)}
      >
        <Words>
          <b>
            {item.number} · {item.title}
          </b>
          <span className="soft">
            {item.words}, {item.material}
            {one ? ` · ${formatHours(one.hours)}, ${formatPlain(one.grams, 1)} g each` : ''}
            {takes.isPending ? ' · …' : ''}
            {takes.data && !one ? ' · its solid cannot be built any more' : ''}
          </span>
        </Words>
      </Checkbox>
      <Link to={`/jobs/${item.jobId}/print?part=${item.partId}`}>open</Link>
      {chosen ? (
        <Ask>
          <TextField
            label="Pieces"
            value={text}
            isDisabled={!isHand(of)}
            problem={problem}
            onChange={value => {
              setText(value);
              const many = Number(value.trim());
              if (Number.isInteger(many) && many >= 1 && many <= MOST_PIECES) onChoose(told(many, of));
            }}
          />
          <Select
            label="Of it"
            value={of}
            options={[
              ...HAND_OPTIONS,
              ...item.mates.map(m => ({ value: m.id, label: `only a slice with “${m.name}”` })),
            ]}
            onChange={what => {
              setOf(what);
              onChoose(told(problem ? 1 : pieces, what));
            }}
          />
        </Ask>
      ) : null}
    </li>
  );
}

const HAND_OPTIONS: { value: string; label: string }[] = [
  { value: 'drawn', label: 'the whole part' },
  { value: 'other', label: 'its other hand' },
  { value: 'both', label: 'pairs: the same number of each hand' },
];
const isHand = (what: string): what is Hand => HANDS.some(h => h === what);

const Page = styled.main`padding: 22px 28px 60px; max-width: 1240px; margin: 0 auto;`;
const Columns = styled.div`
  display: grid; grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr); gap: 18px; align-items: start;
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); }
`;
const List = styled.ul`
  list-style: none; margin: 8px 0 0; padding: 0;
  li { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 4px 12px; align-items: center; padding: 9px 0; border-top: 1px solid var(--rule); }
`;
const Words = styled.span`display: flex; flex-direction: column; min-width: 0; overflow-wrap: anywhere; .soft { font-size: 14px; }`;
const Ask = styled.div`grid-column: 1 / -1; display: grid; grid-template-columns: 90px minmax(0, 1fr); gap: 12px; padding-left: 30px;`;
