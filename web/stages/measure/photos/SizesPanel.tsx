import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import type { Reading } from '../../../../core/job/document';
import type { Parting, Trace } from '../../../../core/job/traces';
import { formatPlain } from '../../../../core/quantity/format';
import type { OpenTrace } from '../../../trace/use-trace';
import { Button } from '../../../ui/controls';
import { Notice, Panel, Row } from '../../../ui/layout';
import type { ShownPiece, ShownSize, ShownTrace } from '../../../workers/trace-protocol';
import { TakeReadingDialog } from '../TakeReadingDialog';
import { Reshape } from './Reshape';

interface Props {
  trace: Trace;
  shown: ShownTrace;
  lit: readonly ShownPiece[];
  onPick(piece: ShownPiece): void;
  onClear(): void;
  ask: OpenTrace['ask'];
  onSay(said: Parting): void;
  onCut(): void;
}

const NAMES = { side: 'Side', rounding: 'Rounding', round: 'Round' } as const;

/** Sides, roundings and holes with their sizes, and the sizes between selected ones. */
export function SizesPanel({ trace, shown, lit, onPick, onClear, ask, onSay, onCut }: Props) {
  const [sizes, setSizes] = useState<ShownSize[]>([]);
  const [taking, setTaking] = useState<ShownSize | null>(null);
  const picked = JSON.stringify(lit.map(({ loop, piece }) => ({ loop, piece })));
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again when what was picked, or what it is on, changed
  useEffect(() => {
    let isWanted = true;
    if (picked === '[]') setSizes([]);
    else
      void ask(api => api.sizes(JSON.parse(picked))).then(reply => {
        if (isWanted) setSizes(reply?.ok ? reply.sizes : []);
      });
    return () => {
      isWanted = false;
    };
  }, [picked, shown]);
  const nameOf = (piece: ShownPiece) => {
    const alike = shown.pieces.filter(p => p.kind === piece.kind && p.hole === piece.hole);
    const word = piece.kind === 'round' ? (piece.hole ? 'Hole' : 'Disc') : NAMES[piece.kind];
    return `${word} ${alike.findIndex(p => p.key === piece.key) + 1}`;
  };
  const title = lit.map(nameOf).join(' and ');
  return (
    <Panel>
      <h2>Sizes</h2>
      {lit.length === 0 ? (
        <p className="soft">Press on a side, a rounding or a hole, here or on the photo.</p>
      ) : (
        <Lit>
          <Row $gap={8} $between>
            <b>{title}</b>
            <Button $small $look="quiet" onPress={onClear}>
              None
            </Button>
          </Row>
          {sizes.length === 0 ? (
            <p className="soft">
              These have no size between them: press on two sides, on two rounds, or on a side and a round.
            </p>
          ) : (
            sizes.map(s => (
              <Row key={s.of} $gap={8} $between>
                <span>
                  <span className="number">{amountOf(s)}</span> <span className="soft">{s.words}</span>
                </span>
                <Button $small onPress={() => setTaking(s)}>
                  Take as a reading
                </Button>
              </Row>
            ))
          )}
          <Reshape
            shown={shown}
            lit={lit}
            stands={trace.thickness > 0 ? trace.thickness : null}
            onSay={onSay}
            onCut={onCut}
          />
        </Lit>
      )}
      <List>
        {shown.pieces.map(p => (
          <li key={p.key}>
            <button type="button" aria-pressed={lit.some(l => l.key === p.key)} onClick={() => onPick(p)}>
              <span>{nameOf(p)}</span>
              <span className="number">{p.words}</span>
            </button>
          </li>
        ))}
      </List>
      {taking ? <TakeSize trace={trace} size={taking} title={title} onClose={() => setTaking(null)} /> : null}
    </Panel>
  );
}

/** A size from the photo becomes a reading. */
function TakeSize({
  trace,
  size,
  title,
  onClose,
}: {
  trace: Trace;
  size: ShownSize;
  title: string;
  onClose(): void;
}) {
  const reading = (): Reading => ({
    id: ulid(),
    value: Number(size.value.toFixed(4)),
    text: `${formatPlain(size.value, 3)}, off a photo`,
    unit: size.kind === 'angle' ? 'deg' : 'mm',
    at: new Date().toISOString(),
    instrumentId: null,
    source: 'photo',
    via: 'import',
    // ± 95 % is two standard uncertainties.
    u: Number((size.u / 2).toFixed(5)),
    struck: null,
    traced: { trace: trace.id, of: `${title}: ${size.words}`.slice(0, 120) },
  });
  return (
    <TakeReadingDialog
      title={title}
      kind={size.kind}
      off="photo"
      reading={reading}
      size={
        <p>
          <b className="number">{amountOf(size)}</b> {size.words}
        </p>
      }
      note={read =>
        read ? (
          <Notice level="note">
            It was read with calipers too: those count, and the photo’s size tells how large the photo is.
          </Notice>
        ) : null
      }
      onClose={onClose}
    />
  );
}

const amountOf = ({ value, u, kind }: ShownSize) =>
  `${formatPlain(value, 2)} ± ${formatPlain(u, 2)} ${kind === 'angle' ? '°' : 'mm'}`;

const Lit = styled.div`display: flex; flex-direction: column; gap: 6px; padding: 8px 10px; margin-bottom: 8px; background: var(--tint); border-radius: 4px; font-size: 14.5px; .number { white-space: nowrap; }`;
const List = styled.ul`
  list-style: none; margin: 0; padding: 0; max-height: 220px; overflow: auto; font-size: 14.5px;
  button { display: flex; justify-content: space-between; gap: 12px; width: 100%; border: 0; border-top: 1px solid var(--rule); background: none; padding: 4px 4px; cursor: pointer; color: var(--ink); font: inherit; text-align: left; }
  button[aria-pressed='true'] { background: var(--tint); }
`;
