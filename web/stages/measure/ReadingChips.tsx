import { format } from 'date-fns';
import { Strikethrough, Undo2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import type { Reading } from '../../../core/job/document';
import { formatPlain } from '../../../core/quantity/format';
import type { DimensionState } from '../../../core/work/dimension';
import { useBench } from '../../job/bench-context';
import { Button, Dialog, Hinted, IconButton, TextField } from '../../ui/controls';
import { Row, Stack } from '../../ui/layout';

/** The readings one by one, as they were typed, each with its actions. */
export function ReadingChips({ state }: { state: DimensionState }) {
  const { edit, workshop } = useBench('edit', 'workshop');
  const [striking, setStriking] = useState<Reading | null>(null);
  const { dimension } = state;
  return (
    <>
      <Chips aria-label="Readings">
        {dimension.readings.map(reading => (
          <ReadingChip
            key={reading.id}
            reading={reading}
            dimensionId={dimension.id}
            instrument={workshop.instruments.find(i => i.id === reading.instrumentId)?.name}
            counted={state.counted.some(r => r.id === reading.id)}
            last={reading.id === dimension.readings.at(-1)?.id}
            onStrike={() => setStriking(reading)}
          />
        ))}
      </Chips>
      {striking ? (
        <StrikeDialog
          reading={striking}
          onClose={() => setStriking(null)}
          onStrike={reason =>
            void edit({
              kind: 'strike-reading',
              dimensionId: dimension.id,
              readingId: striking.id,
              reason,
            }).then(taken => taken && setStriking(null))
          }
        />
      ) : null}
    </>
  );
}

interface ChipProps {
  reading: Reading;
  dimensionId: string;
  instrument?: string;
  counted: boolean;
  last: boolean;
  onStrike(): void;
}

function ReadingChip({ reading, dimensionId, instrument, counted, last, onStrike }: ChipProps) {
  const { edit } = useBench('edit');
  const struck = reading.struck !== null;
  const about = [
    struck ? `Struck out: ${reading.struck}` : counted ? '' : 'Not counted: the seat was read too',
    `read ${format(new Date(reading.at), 'd MMM, HH:mm')}${instrument ? ` with ${instrument}` : ''}`,
    reading.turn === undefined ? '' : `turned ${formatPlain(reading.turn)}°`,
    reading.zero ? `${formatPlain(reading.zero, 3)} mm of zero taken off` : '',
    reading.via === 'typed'
      ? ''
      : reading.via === 'stream'
        ? 'sent by the instrument'
        : 'taken in from a table',
  ]
    .filter(Boolean)
    .join('; ');
  return (
    <Chip data-out={struck || !counted ? '' : undefined} title={about}>
      <span className="number">{reading.text}</span>
      {/[a-z"”°]/i.test(reading.text) || reading.unit === 'mm' || reading.unit === 'deg' ? null : (
        <small>{reading.unit}</small>
      )}
      {reading.turn === undefined ? null : <small>{formatPlain(reading.turn)}°</small>}
      <Hinted hint={struck ? 'Count it again' : 'Strike it out, with a reason'}>
        <IconButton
          aria-label={struck ? `Count ${reading.text} again` : `Strike out ${reading.text}`}
          onPress={() =>
            struck
              ? void edit({ kind: 'strike-reading', dimensionId, readingId: reading.id, reason: null })
              : onStrike()
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

const REASONS = ['A slip of the jaws', 'The wrong place', 'In the wrong unit', 'A burr or dirt'];

function StrikeDialog({
  reading,
  onStrike,
  onClose,
}: {
  reading: Reading;
  onStrike(reason: string): void;
  onClose(): void;
}) {
  const [reason, setReason] = useState('');
  return (
    <Dialog title={`Strike out ${reading.text}`} isOpen onClose={onClose} width={440}>
      <Stack $gap={12}>
        <p className="soft">It stays in the list, crossed out with its reason, and no longer counts.</p>
        <Row $wrap $gap={8}>
          {REASONS.map(r => (
            <Button key={r} $small onPress={() => onStrike(r.toLowerCase())}>
              {r}
            </Button>
          ))}
        </Row>
        <form
          onSubmit={event => {
            event.preventDefault();
            if (reason.trim()) onStrike(reason.trim());
          }}
        >
          <TextField label="Or another reason" value={reason} onChange={setReason} maxLength={300} />
          <Row style={{ marginTop: 10, justifyContent: 'flex-end' }}>
            <Button type="submit" isDisabled={!reason.trim()}>
              Strike it out
            </Button>
          </Row>
        </form>
      </Stack>
    </Dialog>
  );
}

const Chips = styled.div`display: flex; flex-wrap: wrap; gap: 6px; margin-bottom: 8px;`;
const Chip = styled.span`
  display: inline-flex; align-items: center; gap: 2px; border: 1px solid var(--rule); border-radius: 4px; background: var(--raised); padding-left: 9px;
  button { width: 27px; height: 29px; }
  small { color: var(--soft); padding-left: 3px; }
  &[data-out] .number { text-decoration: line-through; color: var(--soft); }
`;
