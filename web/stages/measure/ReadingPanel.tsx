import { Strikethrough, Undo2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import type { DimensionState } from '../../../core/job/dimensions';
import { LARGEST_READING, type Reading } from '../../../core/job/document';
import { formatPlain } from '../../../core/quantity/format';
import { parseQuantity } from '../../../core/quantity/parse';
import { post } from '../../api/client';
import { useStream } from '../../api/events';
import { useBench } from '../../job/bench-context';
import { isTyping } from '../../job/use-job-keys';
import { Button, Hinted, IconButton, Select } from '../../ui/controls';
import { Notice, Panel, Row } from '../../ui/layout';
import { FONTS } from '../../ui/theme';
import { DotPlot } from './DotPlot';

const SOURCES: { value: Reading['source']; label: string }[] = [
  { value: 'seat', label: 'the seat itself' },
  { value: 'old-part', label: 'the old part' },
  { value: 'said', label: 'a label or data sheet' },
];
const KEPT = { instrument: 'sagoma.instrument', source: 'sagoma.source' };

interface Props {
  state: DimensionState;
  /** Moves to a neighbouring dimension; false at the end of the list. */
  onNext(by: 1 | -1): boolean;
}

/** The field for the dimension in turn, the readings it has, and what they say. */
export function ReadingPanel({ state, onNext }: Props) {
  const { workshop, edit, say, unit, job } = useBench();
  const { dimension, evaluation } = state;
  const field = useRef<HTMLInputElement>(null);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [instrumentId, setInstrument] = useState(
    () => sessionStorage.getItem(KEPT.instrument) ?? workshop.instruments[0]!.id,
  );
  const [source, setSource] = useState<Reading['source']>(
    () => (sessionStorage.getItem(KEPT.source) as Reading['source'] | null) ?? 'seat',
  );
  const instrument = workshop.instruments.find(i => i.id === instrumentId) ?? workshop.instruments[0]!;

  const keep = async (typed: string, via: Reading['via'], from: string | null = instrument.id) => {
    const read = understand(typed, unit);
    if ('problem' in read) {
      setProblem(read.problem);
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
    };
    if (await edit({ kind: 'add-reading', dimensionId: dimension.id, reading })) {
      setText('');
      setProblem(null);
    }
  };
  const takeBack = () => {
    const last = dimension.readings.at(-1);
    if (last) void edit({ kind: 'take-back-reading', dimensionId: dimension.id, readingId: last.id });
  };

  // A caliper on the stream sends to whatever dimension is in turn; the practice one names its own.
  useStream(event => {
    if (event.kind !== 'reading') return;
    if (event.jobId && (event.jobId !== job.id || event.dimensionId !== dimension.id)) return;
    void keep(event.text, 'stream', event.instrumentId ?? instrument.id);
  });
  // A number typed anywhere on this page is a reading: fetch it into the field.
  useEffect(() => {
    field.current?.focus();
    const onKey = (event: KeyboardEvent) => {
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        isTyping(event.target) ||
        !/^[\d.,]$/.test(event.key)
      )
        return;
      event.preventDefault();
      field.current?.focus();
      setText(now => now + event.key);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);

  const onKeyDown = (event: React.KeyboardEvent) => {
    if (event.key === 'Enter' && text.trim() !== '') void keep(text, 'typed');
    else if (event.key === 'Backspace' && text === '') takeBack();
    else if (event.key === 'Tab' && !event.shiftKey && text === '' && onNext(1)) event.preventDefault();
    else if (event.key === 'Escape') {
      setText('');
      setProblem(null);
    }
  };
  const understood = text.trim() === '' ? null : parseQuantity(text, 'length', unit);
  const number = dimension.readings.length + 1;
  return (
    <Panel>
      <h3 id="reading-label">Reading {number}</h3>
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
        <span>{unit}</span>
      </FieldBox>
      <Help id="reading-help" aria-live="polite">
        {problem ? (
          <b>{problem}</b>
        ) : understood?.ok && /[a-z"/”′″]/i.test(text) ? (
          `= ${formatPlain(understood.quantity.value, 4)} mm. Enter keeps it.`
        ) : (
          'Enter keeps it · Tab next dimension · a caliper that types works as it is'
        )}
      </Help>
      <Row $wrap style={{ margin: '8px 0 10px' }}>
        <Button
          $small
          onPress={() =>
            void (text.trim() === ''
              ? setProblem('Nothing typed yet: type what the caliper shows.')
              : keep(text, 'typed'))
          }
        >
          Keep it
        </Button>
        {workshop.practiceBench ? (
          <Button
            $small
            onPress={() =>
              void post(`/bench/jobs/${job.id}/caliper`, {
                dimensionId: dimension.id,
                instrumentId: instrument.id,
              }).catch((error: Error) => say(error.message, 'stop'))
            }
          >
            Practice caliper
          </Button>
        ) : null}
      </Row>
      <Chips>
        {dimension.readings.map(reading => (
          <ReadingChip
            key={reading.id}
            reading={reading}
            dimensionId={dimension.id}
            counted={state.counted.some(r => r.id === reading.id)}
            last={reading.id === dimension.readings.at(-1)?.id}
          />
        ))}
      </Chips>
      {evaluation ? (
        <DotPlot state={state} />
      ) : (
        <p className="soft">No reading yet. Close the jaws on it and press Enter.</p>
      )}
      <Advice>
        {(evaluation?.advice ?? []).map((a, i) => (
          <Notice key={i} level={a.code === 'one-reading' || a.code === 'few-readings' ? 'note' : 'warn'}>
            {a.message}
          </Notice>
        ))}
        {dimension.readings.some(r => r.source !== 'seat') &&
        !dimension.readings.some(r => r.source === 'seat') ? (
          <Notice level="note">
            Only {state.source === 'said' ? 'a label' : 'the old part'} was read. If you can reach the seat,
            read that: the old part already holds its maker’s clearance.
          </Notice>
        ) : null}
      </Advice>
      <Selects>
        <Select
          label="Instrument"
          value={instrument.id}
          options={workshop.instruments.map(i => ({ value: i.id, label: i.name }))}
          onChange={id => {
            sessionStorage.setItem(KEPT.instrument, id);
            setInstrument(id);
          }}
        />
        <Select
          label="What was measured"
          value={source}
          options={SOURCES}
          onChange={value => {
            sessionStorage.setItem(KEPT.source, value);
            setSource(value);
          }}
        />
      </Selects>
    </Panel>
  );
}

type Understood = { value: number; text: string; unit: Reading['unit'] } | { problem: string };

/** A reading as typed or sent, or why it is none. */
function understand(typed: string, unit: 'mm' | 'in'): Understood {
  const outcome = parseQuantity(typed, 'length', unit);
  if (!outcome.ok) return { problem: outcome.message };
  const { value } = outcome.quantity;
  if (value <= 0) return { problem: 'A size is above 0: read it again.' };
  if (value > LARGEST_READING)
    return { problem: `That is over ${LARGEST_READING / 1000} m: check the unit and the point.` };
  return { value, text: outcome.quantity.text.slice(0, 60), unit: outcome.quantity.unit };
}

function ReadingChip({
  reading,
  dimensionId,
  counted,
  last,
}: {
  reading: Reading;
  dimensionId: string;
  counted: boolean;
  last: boolean;
}) {
  const { edit } = useBench();
  const struck = reading.struck !== null;
  return (
    <Chip
      data-out={struck || !counted ? '' : undefined}
      title={
        struck ? `Struck out: ${reading.struck}` : counted ? undefined : 'Not counted: the seat was read too'
      }
    >
      <span className="number">{reading.text}</span>
      {/[a-z"”]/i.test(reading.text) || reading.unit === 'mm' ? null : <small>{reading.unit}</small>}
      <Hinted hint={struck ? 'Count it again' : 'Strike it out as a slip'}>
        <IconButton
          aria-label={struck ? `Count ${reading.text} again` : `Strike out ${reading.text}`}
          onPress={() =>
            void edit({
              kind: 'strike-reading',
              dimensionId,
              readingId: reading.id,
              reason: struck ? null : 'a slip',
            })
          }
        >
          <Strikethrough size={14} />
        </IconButton>
      </Hinted>
      {last ? (
        <Hinted hint="Take it back (Backspace)">
          <IconButton
            aria-label={`Take back ${reading.text}`}
            onPress={() => void edit({ kind: 'take-back-reading', dimensionId, readingId: reading.id })}
          >
            <Undo2 size={14} />
          </IconButton>
        </Hinted>
      ) : null}
    </Chip>
  );
}

const FieldBox = styled.div`
  display: flex; align-items: baseline; gap: 10px; border: 2px solid var(--blue); border-radius: 6px; background: var(--raised); padding: 8px 16px; margin-top: 8px;
  input { flex: 1; min-width: 0; border: 0; outline: none; background: transparent; color: var(--ink); font: 600 38px ${FONTS.number}; }
  span { color: var(--soft); font-size: 16px; }
  &:focus-within { box-shadow: 0 0 0 3px var(--tint); }
  &[data-invalid] { border-color: var(--danger); }
`;
const Help = styled.p`font-size: 13.5px; color: var(--soft); margin-top: 6px; min-height: 38px; b { color: var(--danger); font-weight: 500; }`;
const Chips = styled.div`display: flex; flex-wrap: wrap; gap: 6px; margin-bottom: 8px;`;
const Chip = styled.span`
  display: inline-flex; align-items: center; gap: 2px; border: 1px solid var(--rule); border-radius: 4px; background: var(--raised); padding-left: 9px;
  button { width: 27px; height: 29px; }
  &[data-out] .number { text-decoration: line-through; color: var(--soft); }
`;
const Advice = styled.div`display: flex; flex-direction: column; gap: 6px; margin-top: 8px;`;
const Selects = styled.div`display: flex; flex-direction: column; gap: 10px; margin-top: 12px;`;
