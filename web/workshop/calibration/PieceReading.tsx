import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { FEATURES, type Feature } from '../../../core/calibration/piece';
import { isLikely } from '../../../core/calibration/typed';
import { type Calibration, MOST_PIECE_READINGS, type Workshop } from '../../../core/job/workshop';
import { readingInLine } from '../../../core/measure/device-line';
import { formatPlain } from '../../../core/quantity/format';
import { parseQuantity } from '../../../core/quantity/parse';
import { useStream } from '../../api/events';
import { Button, Select, TextField } from '../../ui/controls';
import { Row } from '../../ui/layout';
import { FONTS } from '../../ui/theme';
import { PieceView } from './PieceView';

interface Props {
  calibration: Calibration;
  workshop: Workshop;
  onChange(to: (now: Calibration) => Calibration): void;
}

/** The guided sheet: one feature of the piece at a time. */
export function PieceReading({ calibration, workshop, onChange }: Props) {
  const readings = calibration.piece?.readings ?? {};
  const count = (id: string) => readings[id]?.length ?? 0;
  const [turn, setTurn] = useState(() => (FEATURES.find(f => count(f.id) === 0) ?? FEATURES[0]!).id);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const place = FEATURES.findIndex(f => f.id === turn);
  const feature = FEATURES[place]!;
  const own = readings[turn] ?? [];
  const move = (by: number) => {
    setTurn(FEATURES[(place + by + FEATURES.length) % FEATURES.length]!.id);
    setText('');
    setProblem(null);
    field.current?.focus();
  };
  // From the stored readings, not from the last rendering: two readings may come faster than the page.
  const put = (id: string, to: (values: readonly number[]) => number[]) =>
    onChange(now => ({
      ...now,
      at: new Date().toISOString(),
      piece: {
        instrumentId: now.piece?.instrumentId ?? null,
        readings: {
          ...now.piece?.readings,
          [id]: to(now.piece?.readings[id] ?? []).slice(0, MOST_PIECE_READINGS),
        },
      },
    }));
  const keep = (typed: string) => {
    const read = readSize(typed, feature, workshop.unit);
    if (typeof read === 'string') {
      setProblem(read);
      return;
    }
    if (own.length >= MOST_PIECE_READINGS) {
      setProblem(`${MOST_PIECE_READINGS} readings are enough: take one back, or go on.`);
      return;
    }
    put(turn, values => [...values, read]);
    setText('');
    setProblem(null);
  };
  useStream(event => {
    if (event.kind === 'reading') keep(readingInLine(event.text) ?? event.text);
  });
  // The page's first field at the bench: a caliper that types like a keyboard finds it ready.
  useEffect(() => field.current?.focus({ preventScroll: true }), []);
  const instruments = workshop.instruments.filter(i => i.kind !== 'protractor');
  const done = FEATURES.filter(f => count(f.id) > 0).length;
  return (
    <Split>
      <PieceView
        turn={turn}
        read={count}
        onPick={id => {
          setTurn(id);
          field.current?.focus();
        }}
      />
      <div>
        <p className="soft">
          {place + 1} of {FEATURES.length} · {done} read
        </p>
        <h3>{feature.label}</h3>
        <p className="how">{feature.how}</p>
        <form
          onSubmit={event => {
            event.preventDefault();
            if (text.trim()) keep(text);
            else move(1);
          }}
          onKeyDown={event => {
            if (event.key === 'Backspace' && text === '' && own.length > 0)
              put(turn, values => values.slice(0, -1));
            if (event.key === 'Tab' && !event.shiftKey && event.target === field.current && text === '') {
              event.preventDefault();
              move(1);
            }
          }}
        >
          <TextField
            label={`Reading, ${workshop.unit}`}
            value={text}
            onChange={typed => {
              setText(typed);
              setProblem(null);
            }}
            problem={problem ?? undefined}
            inputRef={field}
            hint="Enter keeps it; Enter on an empty field goes on; Backspace there takes the last one back."
            autoComplete="off"
          />
          <Row $gap={8} $wrap style={{ margin: '8px 0' }}>
            {own.map((value, i) => (
              <Chip key={i}>{value.toFixed(2)}</Chip>
            ))}
            {own.length === 0 ? <span className="soft">Not read yet.</span> : null}
          </Row>
          <Row $gap={8}>
            <Button type="submit">Keep</Button>
            <Button $look="quiet" onPress={() => move(-1)}>
              Back
            </Button>
            <Button $look="quiet" onPress={() => move(1)}>
              Next: {FEATURES[(place + 1) % FEATURES.length]!.label}
            </Button>
          </Row>
        </form>
        <div style={{ maxWidth: 260, marginTop: 14 }}>
          <Select
            label="Read with"
            value={calibration.piece?.instrumentId ?? instruments[0]?.id ?? ''}
            options={instruments.map(i => ({ value: i.id, label: i.name }))}
            onChange={instrumentId =>
              onChange(now => ({
                ...now,
                piece: { instrumentId, readings: now.piece?.readings ?? {} },
              }))
            }
          />
        </div>
      </div>
    </Split>
  );
}

/** mm, or what is wrong with it. */
function readSize(typed: string, feature: Feature, unit: Workshop['unit']): number | string {
  const read = parseQuantity(typed, 'length', unit);
  if (!read.ok) return read.message;
  const { value } = read.quantity;
  if (isLikely(feature.size, value)) return value;
  return isLikely(feature.size, value * 25.4) || isLikely(feature.size, value / 25.4)
    ? `${formatPlain(value, 3)} mm for ${feature.size}: a slip of the unit?`
    : `${formatPlain(value, 3)} mm is more than a printer’s error on ${feature.size}: another feature?`;
}

const Split = styled.div`
  display: grid; grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr); gap: 22px; align-items: start;
  h3 { font-size: 20px; margin: 2px 0; } .how { margin: 2px 0 10px; min-height: 42px; }
  @media (max-width: 860px) { grid-template-columns: minmax(0, 1fr); }
`;
const Chip = styled.span`
  font: 600 15px ${FONTS.number}; background: var(--tint); color: var(--blue); border-radius: 4px; padding: 3px 9px;
`;
