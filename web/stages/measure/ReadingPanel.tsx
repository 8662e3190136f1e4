import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import { BenchSent } from '../../../contract/bench';
import type { Dimension, JobDocument, Reading } from '../../../core/job/document';
import { LARGEST_READING } from '../../../core/job/fields';
import { readingInLine } from '../../../core/measure/device-line';
import { looksLikeSlip } from '../../../core/measure/evaluate';
import { formatPlain } from '../../../core/quantity/format';
import { parseQuantity } from '../../../core/quantity/parse';
import type { DimensionState } from '../../../core/work/dimension';
import { post } from '../../api/client';
import { useStream } from '../../api/events';
import { useBench } from '../../job/bench-context';
import { useInstrumentInHand } from '../../job/instrument-in-hand';
import { isTyping } from '../../job/use-job-keys';
import { Button, Select } from '../../ui/controls';
import { Notice, Panel, Row } from '../../ui/layout';
import { FONTS } from '../../ui/theme';
import { DotPlot } from './DotPlot';
import { ReadingAdvice } from './ReadingAdvice';
import { ReadingChips } from './ReadingChips';
import { useSerial } from './serial';

const SOURCES: { value: Reading['source']; label: string }[] = [
  { value: 'seat', label: 'the seat itself' },
  { value: 'old-part', label: 'the old part' },
  { value: 'said', label: 'a label or data sheet' },
];
const TURNS = [
  { value: 'none', label: 'not noted' },
  { value: '0', label: 'as first held' },
  { value: '120', label: 'turned a third' },
  { value: '240', label: 'turned two thirds' },
] as const;
type Turn = (typeof TURNS)[number]['value'];
const NEXT_TURN: Record<Turn, Turn> = { none: 'none', '0': '120', '120': '240', '240': '0' };

interface Props {
  state: DimensionState;
  /** The next dimension. */
  next?: string;
  /** Moves to a neighbouring dimension; false at the end of the list. */
  onNext(by: 1 | -1): boolean;
  /** Left out where there is no room for the shelf. */
  onShelf?(question: string): void;
}

/** A value that looks like a slip, waiting for the maker's decision. */
interface Question {
  typed: string;
  via: Reading['via'];
  from: string | null;
  words: string;
  /** Without the slip, mm or degrees. */
  instead: number;
}

/** The field for the current dimension, its readings, and what they show. */
export function ReadingPanel({ state, next, onNext, onShelf }: Props) {
  const { workshop, document, edit, say, unit, job } = useBench(
    'workshop',
    'document',
    'edit',
    'say',
    'unit',
    'job',
  );
  const { dimension, evaluation } = state;
  const angle = dimension.kind === 'angle';
  const field = useRef<HTMLInputElement>(null);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [questions, setQuestions] = useState<Question[]>([]);
  const [turn, setTurn] = useState<Turn>('none');
  const { all: instruments, instrument, take } = useInstrumentInHand(workshop.instruments, angle);
  const [source, setSource] = useState<Reading['source']>(() => usualSource(dimension, document));
  const zeroOf = (id: string | null) => workshop.instruments.find(i => i.id === id)?.zero?.offset ?? 0;
  const zero = zeroOf(instrument?.id ?? null);
  const round = dimension.kind === 'outside' || dimension.kind === 'inside';

  const keep = async (
    typed: string,
    via: Reading['via'],
    from: string | null = instrument?.id ?? null,
    sure = false,
  ) => {
    const read = understand(typed, unit, angle);
    if ('problem' in read) {
      setProblem(read.problem);
      return;
    }
    const known = dimension.readings.findLast(r => r.struck === null)?.value;
    const slip = sure || known === undefined ? null : looksLikeSlip(read.value, known);
    if (slip) {
      setQuestions(now => [...now, { typed, via, from, ...slip }]);
      return;
    }
    const reading: Reading = {
      id: ulid(),
      ...read,
      at: new Date().toISOString(),
      instrumentId: from,
      source,
      via,
      struck: null,
      ...(round && turn !== 'none' ? { turn: Number(turn) } : {}),
      ...(zeroOf(from) !== 0 && source !== 'said' ? { zero: zeroOf(from) } : {}),
    };
    if (await edit({ kind: 'add-reading', dimensionId: dimension.id, reading })) {
      setText('');
      setProblem(null);
      setTurn(NEXT_TURN[turn]);
    }
  };
  const answer = (question: Question, typed: string | null) => {
    setQuestions(now => now.filter(q => q !== question));
    if (typed === null) setText('');
    else void keep(typed, question.via, question.from, true);
    field.current?.focus();
  };
  const takeBack = () => {
    const last = dimension.readings.at(-1);
    if (last) void edit({ kind: 'take-back-reading', dimensionId: dimension.id, readingId: last.id });
  };
  const sent = (line: string, from: string | null) => void keep(readingInLine(line) ?? line, 'stream', from);

  // A caliper on the stream sends to the open dimension; the practice caliper names its dimension.
  useStream(event => {
    if (event.kind !== 'reading') return;
    if (event.jobId && (event.jobId !== job.id || event.dimensionId !== dimension.id)) return;
    sent(event.text, event.instrumentId ?? instrument?.id ?? null);
  });
  const serial = useSerial(line => sent(line, instrument?.id ?? null));
  // A number typed anywhere on this page is a reading: it goes into the field.
  useEffect(() => {
    field.current?.focus();
    const onKey = (event: KeyboardEvent) => {
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        isTyping(event.target) ||
        !/^[\d.,+-]$/.test(event.key)
      )
        return;
      event.preventDefault();
      field.current?.focus();
      setText(now => now + event.key);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);

  const asked = questions[0];
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (event.key === 'Enter' && asked && (text === asked.typed || text.trim() === ''))
      answer(asked, asked.typed);
    else if (event.key === 'Enter' && text.trim() !== '') void keep(text, 'typed');
    else if (event.key === 'Backspace' && text === '') takeBack();
    else if (event.key === 'Tab' && !event.shiftKey && text === '' && onNext(1)) event.preventDefault();
    else if (event.key === 'Escape') {
      setText('');
      setProblem(null);
      setQuestions([]);
    }
  };
  const understood =
    text.trim() === '' ? null : parseQuantity(text, angle ? 'angle' : 'length', angle ? 'deg' : unit);
  return (
    <Panel>
      <h2 id="reading-label">Reading {dimension.readings.length + 1}</h2>
      <FieldBox data-invalid={problem ? '' : undefined}>
        <input
          ref={field}
          data-reading
          data-next
          aria-labelledby="reading-label"
          aria-invalid={problem !== null}
          aria-describedby="reading-help"
          value={text}
          inputMode="decimal"
          autoComplete="off"
          onChange={event => {
            setText(event.target.value);
            setProblem(null);
          }}
          onKeyDown={onKeyDown}
        />
        <span>{angle ? '°' : unit}</span>
      </FieldBox>
      <Help id="reading-help" aria-live="polite">
        {problem || serial.problem ? (
          <b>{problem ?? serial.problem}</b>
        ) : understood?.ok && /[a-z"/”′″]/i.test(text) ? (
          `= ${formatPlain(understood.quantity.value, 4)} ${angle ? '°' : 'mm'}. Enter keeps it.`
        ) : (
          'Enter keeps it · Tab next dimension · a caliper that types works as it is'
        )}
      </Help>
      {asked ? (
        <Notice level="warn">
          {asked.typed} is {asked.words}
          <Row $wrap $gap={6} style={{ marginTop: 6 }}>
            <Button $small onPress={() => answer(asked, asked.typed)}>
              Keep {asked.typed}
            </Button>
            <Button
              $small
              onPress={() =>
                answer(asked, formatPlain(asked.instead / (angle || unit === 'mm' ? 1 : 25.4), 4))
              }
            >
              It was {formatPlain(asked.instead / (angle || unit === 'mm' ? 1 : 25.4), 4)}
            </Button>
            <Button $small $look="quiet" onPress={() => answer(asked, null)}>
              Leave it out
            </Button>
          </Row>
        </Notice>
      ) : null}
      <Row $wrap $gap={7} style={{ margin: '8px 0 10px' }}>
        <Keep
          $small
          onPress={() =>
            void (text.trim() === ''
              ? setProblem('Nothing typed yet: type what the caliper shows.')
              : keep(text, 'typed'))
          }
        >
          Keep it
        </Keep>
        {workshop.practiceBench && dimension.guide ? (
          <Button
            $small
            onPress={() =>
              void post(`/bench/jobs/${job.id}/caliper`, BenchSent, {
                dimensionId: dimension.id,
                instrumentId: instrument?.id ?? null,
              }).catch((error: Error) => say(error.message, 'stop'))
            }
          >
            Practice caliper
          </Button>
        ) : null}
        {onShelf ? (
          <Button $small $look="quiet" onPress={() => onShelf('')}>
            From the shelf
          </Button>
        ) : null}
        {serial.offered ? (
          <Button
            $small
            $look="quiet"
            onPress={() => void (serial.open ? serial.disconnect() : serial.connect())}
          >
            {serial.open ? 'Disconnect the cable' : 'Caliper on a cable'}
          </Button>
        ) : null}
      </Row>
      {next ? (
        <Thumb>
          <Button onPress={() => void onNext(1)}>Next: {next}</Button>
        </Thumb>
      ) : null}
      <ReadingChips state={state} />
      {evaluation ? (
        <DotPlot state={state} />
      ) : (
        <p className="soft">
          No reading yet. {angle ? 'Lay the protractor on' : 'Close the jaws on it'} and press Enter.
        </p>
      )}
      <ReadingAdvice state={state} onShelf={onShelf} />
      <Selects>
        {instrument ? (
          <Select
            label={
              zero === 0 ? 'Instrument' : `Instrument (its zero of ${formatPlain(zero, 3)} mm is taken off)`
            }
            value={instrument.id}
            options={instruments.map(i => ({ value: i.id, label: i.name }))}
            onChange={take}
          />
        ) : (
          <p className="soft">No protractor in the workshop: add one there, so that its doubt is known.</p>
        )}
        <Select
          label="What was measured"
          value={source}
          options={SOURCES}
          onChange={value => setSource(value as Reading['source'])}
        />
        {round ? (
          <Select label="How it was held" value={turn} options={TURNS} onChange={t => setTurn(t)} />
        ) : null}
      </Selects>
    </Panel>
  );
}

/**
 * What a dimension's next reading is of: the same as its last one, otherwise as the job's last reading. A label belongs
 * to one dimension only.
 */
function usualSource(dimension: Dimension, { dimensions }: JobDocument): Reading['source'] {
  const own = dimension.readings.findLast(r => r.struck === null);
  if (own) return own.source;
  const all = dimensions.flatMap(d => d.readings).filter(r => r.struck === null && r.source !== 'said');
  return all.toSorted((a, b) => a.at.localeCompare(b.at)).at(-1)?.source ?? 'seat';
}

type Understood = { value: number; text: string; unit: Reading['unit'] } | { problem: string };

/** A typed or sent reading, or why it is refused. */
function understand(typed: string, unit: 'mm' | 'in', angle: boolean): Understood {
  const outcome = parseQuantity(typed, angle ? 'angle' : 'length', angle ? 'deg' : unit);
  if (!outcome.ok) return { problem: outcome.message };
  const { value } = outcome.quantity;
  if (value <= 0) return { problem: 'A size is above 0: read it again.' };
  if (angle && value > 360) return { problem: 'An angle is at most 360°: read it again.' };
  if (value > LARGEST_READING)
    return { problem: `That is over ${LARGEST_READING / 1000} m: check the unit and the point.` };
  return { value, text: outcome.quantity.text.slice(0, 60), unit: outcome.quantity.unit };
}

const FieldBox = styled.div`
  display: flex; align-items: baseline; gap: 10px; border: 2px solid var(--blue); border-radius: 6px; background: var(--raised); padding: 8px 16px; margin-top: 8px;
  input { flex: 1; min-width: 0; border: 0; outline: none; background: transparent; color: var(--ink); font: 600 38px ${FONTS.number}; }
  span { color: var(--soft); font-size: 16px; }
  &:focus-within { box-shadow: 0 0 0 3px var(--tint); }
  &[data-invalid] { border-color: var(--danger); }
`;
const Help = styled.p`font-size: 13.5px; color: var(--soft); margin-top: 6px; min-height: 38px; b { color: var(--danger); font-weight: 500; }`;
/** A phone has no Enter key next to its figures. */
const Keep = styled(
  Button,
)`@media (max-width: 760px), (pointer: coarse) { flex: 1 0 45%; min-height: 46px; }`;
/** Nor a Tab key. */
const Thumb = styled.div`
  display: none; margin-bottom: 10px; button { width: 100%; min-height: 46px; white-space: normal; }
  @media (max-width: 760px), (pointer: coarse) { display: block; }
`;
const Selects = styled.div`display: flex; flex-direction: column; gap: 10px; margin-top: 12px;`;
