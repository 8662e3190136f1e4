import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import { useState } from 'react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import { z } from 'zod';
import { Activity } from '../../../contract/jobs';
import { VERDICT_WORDS } from '../../../core/learn/verdict';
import { capital, formatPlain } from '../../../core/quantity/format';
import { versionWords } from '../../../core/work/show';
import { get } from '../../api/client';
import { useBench } from '../../job/bench-context';
import { Button, Dialog, TextField } from '../../ui/controls';
import { Lead, Notice, Panel, Row, Stack } from '../../ui/layout';
import { FONTS } from '../../ui/theme';

/** In service, the logbook, and the bundle to share. */
export function KeepStage() {
  const { document, resolved, overview, workshop, job, edit } = useBench(
    'document',
    'resolved',
    'overview',
    'workshop',
    'job',
    'edit',
  );
  const { service, brief } = document;
  const wanted = brief.quantity ?? 1;
  const [words, setWords] = useState('');
  const [problem, setProblem] = useState<string>();
  const note = async () => {
    if (words.trim() === '') {
      setProblem('Write a word on how it holds.');
      return;
    }
    if (await edit({ kind: 'service-note', id: ulid(), at: new Date().toISOString(), words: words.trim() }))
      setWords('');
  };
  return (
    <>
      <h1>Kept</h1>
      <Lead>
        {overview.prints} {overview.prints === 1 ? 'print' : 'prints'}, {formatPlain(overview.hours, 1)} h,{' '}
        {overview.cost.toFixed(2)} {workshop.currency}
        {brief.priceToBuy !== null
          ? `; buying ${wanted === 1 ? 'it' : `${wanted} of it`} costs ${(wanted * brief.priceToBuy).toFixed(2)} ${workshop.currency}`
          : ''}
        .
      </Lead>
      <Columns>
        <Stack $gap={14}>
          <Panel>
            <Stack $gap={10}>
              <Row $between>
                <h2>
                  {service.since
                    ? `In service since ${format(new Date(service.since), 'd MMMM yyyy')}`
                    : 'Not in service yet'}
                </h2>
                <Button
                  $small
                  data-next
                  onPress={() =>
                    void edit({ kind: 'in-service', since: service.since ? null : new Date().toISOString() })
                  }
                >
                  {service.since ? 'Take it out of service' : 'Put it in service'}
                </Button>
              </Row>
              {resolved.cautions.map(f => (
                <Notice key={`${f.code}${f.load ?? ''}`} level={f.level}>
                  {f.message}
                </Notice>
              ))}
              <TextField
                label="How does it hold?"
                placeholder="after a week: still clicks, no whitening at the lip"
                rows={2}
                value={words}
                onChange={text => {
                  setWords(text.slice(0, 4000));
                  setProblem(undefined);
                }}
                problem={problem}
              />
              <Row>
                <Button $small onPress={() => void note()}>
                  Note it
                </Button>
              </Row>
              {service.notes.toReversed().map(n => (
                <p key={n.id} style={{ overflowWrap: 'anywhere' }}>
                  <span className="soft">{format(new Date(n.at), 'd MMM yyyy')}</span> {n.words}
                </p>
              ))}
            </Stack>
          </Panel>
          <Panel>
            <Row $between>
              <h2>Share or move it</h2>
              <BundleLink href={`/api/jobs/${job.id}/bundle`} download>
                Export the job
              </BundleLink>
            </Row>
            <p className="soft">
              A bundle holds the readings, versions, prints and their files. Import it on any rack. Its sizes
              are compensated for this workshop’s printer.
            </p>
          </Panel>
        </Stack>
        <Stack $gap={14}>
          <Logbook />
          <ActivityPanel />
        </Stack>
      </Columns>
    </>
  );
}

function Logbook() {
  const { job, document, workshop } = useBench('job', 'document', 'workshop');
  const [voiding, setVoiding] = useState<{
    kind: 'version' | 'print' | 'try';
    id: string;
    name: string;
  } | null>(null);
  const { versions, prints, tries } = job.history;
  const mateName = (id: string) => document.mates.find(m => m.id === id)?.name ?? id;
  return (
    <Panel>
      <h2>Logbook</h2>
      {versions.length === 0 ? <p className="soft">Versions, prints and verdicts gather here.</p> : null}
      {versions.toReversed().map(v => (
        <Entry key={v.id} data-void={v.voided ? '' : undefined}>
          <Row $between>
            <b>
              {capital(versionWords(v.number, v.partId, document))}{' '}
              <small className="soft">{format(new Date(v.at), 'd MMM HH:mm')}</small>
            </b>
            <VoidKey
              row={v}
              onVoid={() =>
                setVoiding({ kind: 'version', id: v.id, name: versionWords(v.number, v.partId, document) })
              }
            />
          </Row>
          {prints
            .filter(p => p.versionId === v.id)
            .map(p => (
              <div key={p.id} data-void={p.voided ? '' : undefined}>
                <Row $between>
                  <span>
                    print {p.number}
                    {p.pieces > 1 ? `, ${p.pieces} pieces` : ''}: {formatPlain(p.hours ?? 0, 1)} h,{' '}
                    {formatPlain(p.grams ?? 0, 1)} g, {(p.cost ?? 0).toFixed(2)} {workshop.currency}
                  </span>
                  <VoidKey
                    row={p}
                    onVoid={() => setVoiding({ kind: 'print', id: p.id, name: `print ${p.number}` })}
                  />
                </Row>
                {tries
                  .filter(t => t.printId === p.id)
                  .map(t => (
                    <Row key={t.id} $between data-void={t.voided ? '' : undefined}>
                      <span className="soft">
                        {Object.entries(t.mates)
                          .map(
                            ([id, m]) =>
                              `${mateName(id)} ${m.verdict ? VERDICT_WORDS[m.verdict] : 'measured'}`,
                          )
                          .join(', ')}
                        {t.note ? `. ${t.note}` : ''}
                      </span>
                      <VoidKey
                        row={t}
                        onVoid={() => setVoiding({ kind: 'try', id: t.id, name: 'this try' })}
                      />
                    </Row>
                  ))}
              </div>
            ))}
        </Entry>
      ))}
      <VoidDialog voiding={voiding} onClose={() => setVoiding(null)} />
    </Panel>
  );
}

function VoidKey({ row, onVoid }: { row: { voided: string | null }; onVoid(): void }) {
  if (row.voided) return <small className="soft">does not count: {row.voided}</small>;
  return (
    <Button $small $look="quiet" onPress={onVoid}>
      Does not count…
    </Button>
  );
}

function VoidDialog({
  voiding,
  onClose,
}: {
  voiding: { kind: string; id: string; name: string } | null;
  onClose(): void;
}) {
  const { session, say } = useBench('session', 'say');
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState<string>();
  const send = async () => {
    if (reason.trim() === '') {
      setProblem('Say why it does not count.');
      return;
    }
    try {
      await session.append('void', () => ({
        kind: voiding!.kind,
        id: voiding!.id,
        reason: reason.trim(),
      }));
      setReason('');
      onClose();
    } catch (error) {
      say((error as Error).message, 'stop');
    }
  };
  return (
    <Dialog
      title={`Why does ${voiding?.name ?? 'it'} not count?`}
      isOpen={voiding !== null}
      onClose={onClose}
    >
      <Stack>
        <p className="soft">It stays in the logbook, struck through; nothing is learned from it any more.</p>
        <TextField
          label="Reason"
          placeholder="printed with the wrong spool"
          value={reason}
          onChange={text => {
            setReason(text.slice(0, 300));
            setProblem(undefined);
          }}
          problem={problem}
          autoFocus
        />
        <Row>
          <Button $look="danger" onPress={() => void send()}>
            It does not count
          </Button>
          <Button $look="quiet" onPress={onClose}>
            Cancel
          </Button>
        </Row>
      </Stack>
    </Dialog>
  );
}

function ActivityPanel() {
  const { job } = useBench('job');
  const activity = useQuery({
    queryKey: ['activity', job.id, job.revision],
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
const Entry = styled.div`
  padding: 8px 0; border-top: 1px solid var(--rule); font-size: 14.5px;
  > div + div { padding-left: 16px; }
  [data-void] span, &[data-void] span, &[data-void] b { text-decoration: line-through; opacity: 0.7; }
`;
const List = styled.ul`list-style: none; padding: 0; margin: 8px 0 0; max-height: 300px; overflow: auto; font-size: 14px; li { padding: 3px 0; overflow-wrap: anywhere; }`;
const BundleLink = styled.a`
  display: inline-flex; align-items: center; min-height: 32px; padding: 0 11px; border: 1px solid var(--blue); border-radius: 4px; text-decoration: none; font: 600 14px ${FONTS.text}; white-space: nowrap;
`;
