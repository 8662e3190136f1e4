import { useState } from 'react';
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { BenchVerdicts } from '../../../contract/bench';
import { counting, type Print, type TryMate, type Version } from '../../../core/job/history';
import { MARK_OF, VERDICT_WORDS, VERDICTS, type Verdict } from '../../../core/learn/verdict';
import { formatPercent } from '../../../core/quantity/format';
import { parseQuantity } from '../../../core/quantity/parse';
import { singleReading } from '../../../core/work/dimension';
import { type Outcome, restWaits } from '../../../core/work/outcome';
import { lastPrint, namesOf } from '../../../core/work/overview';
import { versionWords } from '../../../core/work/show';
import { post } from '../../api/client';
import { useBench } from '../../job/bench-context';
import { EffortNotes } from '../../job/EffortNotes';
import { useInstrumentInHand } from '../../job/instrument-in-hand';
import { Button, Select, TextField } from '../../ui/controls';
import { Empty, Lead, MarkShape, Notice, Panel, Row, Stack } from '../../ui/layout';
import { FONTS } from '../../ui/theme';

/** Verdict on every surface, and what to change. */
export function TryStage() {
  const { document, resolved, go, overview } = useBench('document', 'resolved', 'go', 'overview');
  const last = lastPrint(counting(resolved.history));
  if (!last) {
    return (
      <Empty
        title="Nothing to try yet"
        action={
          <Button $look="main" onPress={() => go(overview.next.stage, overview.next.key)}>
            {overview.next.action}
          </Button>
        }
      >
        Once a version is printed, put it on here and say how each surface feels. Every verdict narrows the
        next number.
      </Empty>
    );
  }
  const { print, version, outcome } = last;
  const words = versionWords(version.number, version.partId, document);
  const tried = outcome !== null;
  return (
    <>
      <h1>{tried ? `What ${words} taught` : `How does ${words} sit?`}</h1>
      <Lead>
        {tried
          ? 'The verdict is in the ledger; the next numbers follow from it.'
          : 'Put it on the object. One word for each surface is enough; a caliper on the print says more.'}
      </Lead>
      {outcome ? <Lesson outcome={outcome} next={resolved.nextNumber} /> : null}
      <TryForm key={print.id} version={version} print={print} outcome={outcome} />
    </>
  );
}

function Lesson({ outcome, next }: { outcome: Outcome; next: number }) {
  const { resolved, go } = useBench('resolved', 'go');
  const { right, unjudged } = outcome;
  const waits = restWaits(outcome);
  return (
    <Panel style={{ marginBottom: 14 }}>
      <Stack $gap={10}>
        {right ? (
          <Notice level="note">
            Every surface sits right. Put it in service on Keep; the numbers stay for the next one.
          </Notice>
        ) : (
          <>
            {unjudged.length > 0 ? (
              <Notice level={waits ? 'warn' : 'note'}>
                Not judged yet: {namesOf(resolved, unjudged)}.{' '}
                {waits ? 'Say below how it sits; until then the part is not done.' : ''}
              </Notice>
            ) : null}
            <ul style={{ margin: 0, paddingLeft: 20 }}>
              {resolved.ledger.mates.map(m => (
                <li key={m.mate.id}>{m.reason}</li>
              ))}
            </ul>
          </>
        )}
        <EffortNotes />
        <Row $wrap>
          {right ? (
            <Button $look="main" onPress={() => go('keep')}>
              Put it in service
            </Button>
          ) : waits ? null : (
            <Button $look="main" onPress={() => go('print')}>
              Make version {next}
            </Button>
          )}
          {!right && !waits && resolved.ledger.pAllRight !== null ? (
            <span className="soft">{formatPercent(resolved.ledger.pAllRight)} likely to sit right</span>
          ) : null}
        </Row>
      </Stack>
    </Panel>
  );
}

const EFFORTS = [
  { id: 'too-easy', word: 'too easy' },
  { id: 'good', word: 'good' },
  { id: 'too-hard', word: 'too hard' },
] as const;
const WHEN = [
  { id: 'on', word: 'going on' },
  { id: 'off', word: 'coming off' },
  { id: 'home', word: 'when home' },
] as const;

interface Draft {
  verdict?: Verdict;
  printed: string;
  effort: NonNullable<TryMate['effort']>;
}

interface FormProps {
  version: Version;
  print: Print;
  /** Of the tries so far; null before the first. */
  outcome: Outcome | null;
}

function TryForm({ version, print, outcome }: FormProps) {
  const { document, job, session, say, workshop } = useBench('document', 'job', 'session', 'say', 'workshop');
  const [drafts, setDrafts] = useState<Record<string, Draft>>({});
  const [note, setNote] = useState('');
  const [asked, setAsked] = useState(false);
  const { all: instruments, instrument, take } = useInstrumentInHand(workshop.instruments, false);
  const [busy, setBusy] = useState(false);
  const open = new Set(outcome?.unjudged.map(m => m.mateId));
  // What was not judged yet comes first.
  const mates = version.mates
    .toSorted((a, b) => Number(open.has(b.mateId)) - Number(open.has(a.mateId)))
    .flatMap(m => {
      const mate = document.mates.find(x => x.id === m.mateId);
      return mate ? [{ mate, model: m.model }] : [];
    });
  const again = outcome !== null;
  const draftOf = (id: string): Draft => drafts[id] ?? { printed: '', effort: {} };
  const change = (id: string, next: Partial<Draft>) =>
    setDrafts(now => ({ ...now, [id]: { ...(now[id] ?? { printed: '', effort: {} }), ...next } }));
  const sizes = Object.fromEntries(mates.map(({ mate }) => [mate.id, readSize(draftOf(mate.id).printed)]));
  const nothing = mates.every(
    ({ mate }) => !draftOf(mate.id).verdict && draftOf(mate.id).printed.trim() === '',
  );

  const record = async () => {
    setAsked(true);
    if (nothing || Object.values(sizes).some(s => s.problem)) return;
    setBusy(true);
    const said: Record<string, TryMate> = {};
    for (const { mate } of mates) {
      const draft = draftOf(mate.id);
      const value = sizes[mate.id]!.value;
      const entry: TryMate = {
        ...(draft.verdict ? { verdict: draft.verdict } : {}),
        ...(value !== null
          ? { printed: singleReading(value, mate.side, instrument?.id ?? null, workshop) }
          : {}),
        ...(Object.keys(draft.effort).length > 0 ? { effort: draft.effort } : {}),
      };
      if (Object.keys(entry).length > 0) said[mate.id] = entry;
    }
    try {
      await session.append('tries', () => ({ printId: print.id, mates: said, note }));
      setDrafts({});
      setNote('');
      setAsked(false);
    } catch (error) {
      say((error as Error).message, 'stop');
    } finally {
      setBusy(false);
    }
  };
  const practice = async () => {
    try {
      const { verdicts } = await post(`/bench/jobs/${job.id}/try-on`, BenchVerdicts, {
        printId: print.id,
      });
      for (const [id, verdict] of Object.entries(verdicts)) change(id, { verdict });
    } catch (error) {
      say((error as Error).message, 'stop');
    }
  };
  return (
    <Stack $gap={12} style={{ maxWidth: 780 }}>
      {again ? (
        <h2>{open.size > 0 ? 'How does the rest of it sit?' : 'Try it again, or more carefully'}</h2>
      ) : null}
      {mates.map(({ mate, model }) => {
        const draft = draftOf(mate.id);
        return (
          <Panel key={mate.id}>
            <Row $between>
              <h3 id={`verdict-${mate.id}`}>{mate.name}</h3>
              <span className="soft" style={{ fontSize: 14 }}>
                {mate.want.name === 'own' ? 'wanted in your window' : `wanted ${mate.want.name}`}, drawn{' '}
                <span className="number">{model.toFixed(2)}</span> mm
              </span>
            </Row>
            <Verdicts
              aria-labelledby={`verdict-${mate.id}`}
              selectionMode="single"
              selectedKeys={draft.verdict ? [draft.verdict] : []}
              onSelectionChange={keys => change(mate.id, { verdict: [...keys][0] as Verdict | undefined })}
            >
              {VERDICTS.map(v => (
                <ToggleButton key={v} id={v} data-mark={MARK_OF[v]} data-next>
                  <svg width="26" height="15" viewBox="0 0 24 14" aria-hidden>
                    <MarkShape mark={MARK_OF[v]} />
                  </svg>
                  {VERDICT_WORDS[v]}
                </ToggleButton>
              ))}
            </Verdicts>
            <Extra>
              <TextField
                label="The print measures, mm (if you can)"
                placeholder={model.toFixed(2)}
                value={draft.printed}
                onChange={printed => change(mate.id, { printed })}
                problem={sizes[mate.id]!.problem}
              />
              {mate.want.name === 'stretch' || mate.want.name === 'click' ? (
                <Efforts>
                  {WHEN.map(w => (
                    <ToggleButtonGroup
                      key={w.id}
                      aria-label={`Effort ${w.word}`}
                      selectionMode="single"
                      selectedKeys={draft.effort[w.id] ? [draft.effort[w.id]!] : []}
                      onSelectionChange={keys =>
                        change(mate.id, { effort: { ...draft.effort, [w.id]: [...keys][0] as never } })
                      }
                    >
                      <span>{w.word}</span>
                      {EFFORTS.map(e => (
                        <ToggleButton key={e.id} id={e.id}>
                          {e.word}
                        </ToggleButton>
                      ))}
                    </ToggleButtonGroup>
                  ))}
                </Efforts>
              ) : null}
            </Extra>
          </Panel>
        );
      })}
      <TextField
        label="Anything else?"
        placeholder="goes on straight, turns freely"
        value={note}
        onChange={text => setNote(text.slice(0, 2000))}
      />
      {instrument && mates.some(({ mate }) => draftOf(mate.id).printed.trim() !== '') ? (
        <div style={{ maxWidth: 250 }}>
          <Select
            label="Measured with"
            value={instrument.id}
            options={instruments.map(i => ({ value: i.id, label: i.name }))}
            onChange={take}
          />
        </div>
      ) : null}
      {asked && nothing ? <Notice level="stop">Say how at least one surface feels.</Notice> : null}
      <Row $wrap>
        <Button $look={again ? 'plain' : 'main'} isDisabled={busy} onPress={() => void record()}>
          Record the try
        </Button>
        {workshop.practiceBench ? <Button onPress={() => void practice()}>Practice hands</Button> : null}
      </Row>
    </Stack>
  );
}

function readSize(text: string): { value: number | null; problem?: string } {
  if (text.trim() === '') return { value: null };
  const typed = parseQuantity(text, 'length');
  if (!typed.ok) return { value: null, problem: typed.message };
  return typed.quantity.value > 0 && typed.quantity.value < 5000
    ? { value: typed.quantity.value }
    : { value: null, problem: 'A size is above 0 and below 5 m.' };
}

const Verdicts = styled(ToggleButtonGroup)`
  display: grid; grid-template-columns: repeat(5, minmax(0, 1fr)); gap: 6px; margin: 10px 0;
  button {
    display: flex; flex-direction: column; align-items: center; gap: 6px; padding: 11px 4px 9px; min-height: 64px; border: 2px solid transparent; box-shadow: inset 0 0 0 1px var(--rule);
    border-radius: 5px; background: var(--raised); color: var(--ink); cursor: pointer; font: 500 15px ${FONTS.text};
  }
  button[data-selected] { box-shadow: none; font-weight: 600; background: var(--sheet); }
  button[data-selected][data-mark='tight'] { border-color: var(--tight); }
  button[data-selected][data-mark='right'] { border-color: var(--right); }
  button[data-selected][data-mark='loose'] { border-color: var(--loose); }
  @media (max-width: 500px) { grid-template-columns: repeat(2, minmax(0, 1fr)); }
`;
const Extra = styled.div`display: grid; grid-template-columns: 250px 1fr; gap: 20px; @media (max-width: 700px) { grid-template-columns: 1fr; }`;
const Efforts = styled.div`
  display: flex; flex-direction: column; gap: 4px; font-size: 14px;
  > div { display: flex; gap: 5px; align-items: center; }
  span { width: 84px; color: var(--soft); }
  button { padding: 4px 9px; border: 1px solid var(--rule); border-radius: 4px; background: var(--raised); color: var(--ink); cursor: pointer; font: 13.5px ${FONTS.text}; }
  button[data-selected] { border-color: var(--blue); background: var(--tint); font-weight: 600; }
`;
