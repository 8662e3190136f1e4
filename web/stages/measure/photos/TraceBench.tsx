import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import type { Parting, Trace } from '../../../../core/job/traces';
import { formatPlain } from '../../../../core/quantity/format';
import type { Point2 } from '../../../../core/shape/vector';
import { traceCheck } from '../../../../core/work/scan-trust';
import { useBench } from '../../../job/bench-context';
import { type Pressing, TraceView } from '../../../trace/TraceView';
import { useTrace } from '../../../trace/use-trace';
import { Button, Checkbox } from '../../../ui/controls';
import { Loading, Notice, Panel, Row, Stack } from '../../../ui/layout';
import { saveFile } from '../../../ui/save-file';
import type { ShownLaid, ShownPiece, ShownTrace } from '../../../workers/trace-protocol';
import { AgainstScale, scaleOf } from '../AgainstScale';
import { CompareSizes } from '../scans/CompareSizes';
import { useOutline } from '../use-outline';
import { LaidPanel } from './LaidPanel';
import { ReadBy } from './ReadBy';
import { SizesPanel } from './SizesPanel';

/** Width of strokes, as a share of the picture's width. */
const BRUSH = 1 / 90;
const whole = ([u, v]: Point2): [number, number] => [Math.round(u * 10) / 10, Math.round(v * 10) / 10];

/** One photo: its trace, its scale, and what to do with the outline. */
export function TraceBench({ trace, onRemoved }: { trace: Trace; onRemoved(): void }) {
  const { job, document, workshop, edit } = useBench('job', 'document', 'workshop', 'edit');
  const { words: useWords, use } = useOutline();
  const { id, photo, label, trust, refused, ...asked } = trace;
  const open = useTrace(job.id, photo, asked);
  const [lit, setLit] = useState<ShownPiece[]>([]);
  const [pressing, setPressing] = useState<Pressing>('pick');
  /** Pressed so far: corners of a rectangle, or ends of a length. */
  const [corners, setCorners] = useState<Point2[]>([]);
  const [line, setLine] = useState(0);
  const change = (by: Extract<Parameters<typeof edit>[0], { kind: 'trace' }>['change']) =>
    edit({ kind: 'trace', traceId: id, change: by });
  const press = (next: Pressing) => {
    setCorners([]);
    setPressing(next);
  };
  const pick = (piece: ShownPiece) =>
    setLit(now =>
      now.some(p => p.key === piece.key) ? now.filter(p => p.key !== piece.key) : [...now, piece].slice(-6),
    );
  /** Pieces are numbered again then, so tidying by old numbers is offered again. */
  const reshape = (parting: Parting[]) => {
    setLit([]);
    void change({ parting, ...(trace.tidy.length > 0 ? { tidy: [] } : {}) });
  };
  const parting = trace.parting ?? [];
  const say = (said: Parting) => reshape([...parting, { ...said, at: whole(said.at) }]);
  const point = (at: Point2) => {
    if (pressing === 'corner') {
      const next = [...corners, at];
      if (next.length < 4) return setCorners(next);
      setCorners([]);
      setPressing('pick');
      if (trace.by.kind !== 'rectangle') return;
      const [a, b, c, d] = next.map(whole);
      void change({ by: { ...trace.by, corners: [a!, b!, c!, d!] } });
      return;
    }
    if (pressing === 'end') {
      const [from] = corners;
      if (!from) return setCorners([at]);
      setCorners([]);
      setPressing('pick');
      if (trace.by.kind !== 'dimensions') return;
      const { lines } = trace.by;
      const ends = { from: whole(from), to: whole(at) };
      void change({ by: { ...trace.by, lines: lines.map((l, i) => (i === line ? { ...l, ...ends } : l)) } });
      return;
    }
    setPressing('pick');
    if (pressing === 'cut') return say({ as: 'cut', at: whole(at) });
    setLit([]);
    void change({ inside: whole(at) });
  };
  const shown = open.trace;
  // What was aligned with another outline is dropped.
  const [laidOn, setLaidOn] = useState<{ trace: ShownTrace; laid: ShownLaid } | null>(null);
  const laid = laidOn !== null && laidOn.trace === shown ? laidOn.laid : null;
  const current = lit.flatMap(l => shown?.pieces.find(p => p.key === l.key) ?? []);
  const download = async (kind: 'svg' | 'dxf') => {
    const reply = await open.ask(api => api.file(kind, label));
    if (!reply?.ok) return;
    saveFile(
      `${label}.${kind}`,
      new Blob([reply.text], { type: kind === 'svg' ? 'image/svg+xml' : 'image/vnd.dxf' }),
    );
  };
  const tools: [Pressing, string][] = [
    ['pick', 'Sizes'],
    ['point', 'Point at the object'],
    ['object', 'Draw what is it'],
    ['not-object', 'Draw what is not'],
    ...(pressing === 'cut' ? [['cut', 'Where to cut'] as [Pressing, string]] : []),
    ...(trace.by.kind === 'rectangle' ? [['corner', 'Its corners'] as [Pressing, string]] : []),
    ...(trace.by.kind === 'dimensions' ? [['end', 'Ends of a length'] as [Pressing, string]] : []),
  ];
  // Missing inputs come first; once they are given, the sizes do.
  const isSettled = shown !== null && isRead(trace);
  const readBy = (
    <ReadBy
      trace={trace}
      onChange={change}
      onPressCorners={() => press('corner')}
      onPressEnds={next => {
        setLine(next);
        press('end');
      }}
    />
  );
  return (
    <Bench>
      <Left>
        <Tools role="group" aria-label="What a press on the photo does">
          {tools.map(([tool, words]) => (
            <button key={tool} type="button" aria-pressed={pressing === tool} onClick={() => press(tool)}>
              {words}
            </button>
          ))}
        </Tools>
        {open.problem ? (
          <Problem>
            <Notice level="stop">{open.problem}</Notice>
          </Problem>
        ) : null}
        {open.size ? (
          <TraceView
            src={`/api/jobs/${job.id}/photos/${photo}`}
            label={label}
            size={open.size}
            trace={shown}
            laid={laid}
            lit={new Set(lit.map(l => l.key))}
            pressing={pressing}
            brush={open.size.width * BRUSH}
            corners={corners}
            lengths={trace.by.kind === 'dimensions' ? trace.by.lines : []}
            onPick={pick}
            onPoint={point}
            onStroke={at => {
              const stroke = {
                id: ulid(),
                object: pressing === 'object',
                at: at.map(whole),
                wide: Math.round(open.size!.width * BRUSH),
              };
              setLit([]);
              void change({ strokes: [...trace.strokes, stroke] });
            }}
          />
        ) : null}
        <Under>
          {laid ? <AgainstScale most={scaleOf(laid.p95)} /> : null}
          {open.busy ? <Loading what={open.busy} /> : null}
          {trace.strokes.length > 0 ? (
            <Row $gap={8}>
              <span className="soft">
                {trace.strokes.length === 1 ? 'One stroke' : `${trace.strokes.length} strokes`} drawn over it
              </span>
              <Button
                $small
                $look="quiet"
                onPress={() => void change({ strokes: trace.strokes.slice(0, -1) })}
              >
                Take back the last
              </Button>
            </Row>
          ) : null}
          {parting.length > 0 ? (
            <Row $gap={8}>
              <span className="soft">
                {parting.length === 1 ? 'One change' : `${parting.length} changes`} to its lines and arcs
                {shown && shown.lost > 0 ? `, ${shown.lost} not possible on this outline` : ''}
              </span>
              <Button $small $look="quiet" onPress={() => reshape(parting.slice(0, -1))}>
                Take back the last
              </Button>
            </Row>
          ) : null}
          {trace.inside ? (
            <Row $gap={8}>
              <span className="soft">The object that was pointed at is traced</span>
              <Button $small $look="quiet" onPress={() => void change({ inside: null })}>
                The largest again
              </Button>
            </Row>
          ) : null}
          {shown?.advice.map(a => (
            <Notice key={a} level="note">
              {a}
            </Notice>
          ))}
        </Under>
      </Left>
      <Stack $gap={12}>
        {isSettled ? null : readBy}
        {shown ? (
          <>
            <SizesPanel
              trace={trace}
              shown={shown}
              lit={current}
              onPick={pick}
              onClear={() => setLit([])}
              ask={open.ask}
              onSay={say}
              onCut={() => press('cut')}
            />
            <Panel>
              <h2>Tidy it</h2>
              {shown.offers.length === 0 ? (
                <p className="soft">Nothing is nearly even: it is taken as it was traced.</p>
              ) : (
                <Stack $gap={6}>
                  {shown.offers.map(o => (
                    <Checkbox
                      key={o.key}
                      isSelected={trace.tidy.includes(o.key)}
                      onChange={on =>
                        void change({
                          tidy: on ? [...trace.tidy, o.key] : trace.tidy.filter(k => k !== o.key),
                        })
                      }
                    >
                      {o.words}
                    </Checkbox>
                  ))}
                </Stack>
              )}
            </Panel>
            <LaidPanel
              shown={shown}
              laid={laid}
              ask={open.ask}
              onLaid={next => setLaidOn(next && { trace: shown, laid: next })}
              onPick={pick}
            />
            <Panel>
              <h2>What to do with it</h2>
              <p className="soft">
                {formatPlain(shown.size[0], 1)} × {formatPlain(shown.size[1], 1)} mm,{' '}
                {shown.holes.length === 1 ? 'one round hole' : `${shown.holes.length} round holes`}
                {shown.others > 0 ? `, ${shown.others} openings that are not round` : ''}.
              </p>
              <Row $gap={8} $wrap>
                <Button
                  $look="main"
                  onPress={() =>
                    void use(
                      shown,
                      `Outline of ${label}`.slice(0, 120),
                      'What was traced is the outline now. Its fit comes from its mates: nothing was added to it.',
                    )
                  }
                >
                  {useWords}
                </Button>
                <Button $small onPress={() => void download('svg')}>
                  SVG
                </Button>
                <Button $small onPress={() => void download('dxf')}>
                  DXF
                </Button>
              </Row>
            </Panel>
          </>
        ) : null}
        {isSettled ? readBy : null}
        <CompareSizes
          check={traceCheck(trace, document, workshop)}
          trust={trust}
          what="Photo"
          meanwhile={null}
          onSettle={settled => void change({ trust: settled })}
          refused={refused}
          onRefuse={why => void change({ refused: why })}
        />
        <Row $gap={8}>
          <Button
            $small
            $look="danger"
            onPress={async () => {
              if (await edit({ kind: 'remove-trace', traceId: id })) onRemoved();
            }}
          >
            <Trash2 size={15} /> Remove it from what is traced
          </Button>
        </Row>
      </Stack>
    </Bench>
  );
}

/** Whether everything that its sizes depend on was entered. */
function isRead({ by, thickness }: Trace): boolean {
  if (by.kind === 'flatbed') return by.known !== undefined;
  return thickness > 0 && (by.kind !== 'sheet' || by.bars !== undefined);
}

const Bench = styled.div`
  display: grid; grid-template-columns: minmax(0, 1.5fr) minmax(300px, 1fr); gap: 14px; align-items: start;
  h2 { font-size: 16px; margin-bottom: 6px; }
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); }
`;
/** The photo stays in view while the sizes are scrolled. */
const Left = styled.div`
  @media (min-width: 901px) { position: sticky; top: 0; }
`;
const Tools = styled.div`
  display: flex; flex-wrap: wrap; gap: 0; margin-bottom: 8px;
  button { border: 1px solid var(--rule); margin-left: -1px; background: var(--sheet); color: var(--soft); padding: 5px 10px; font-size: 14px; cursor: pointer; }
  button:first-child { margin-left: 0; border-radius: 4px 0 0 4px; } button:last-child { border-radius: 0 4px 4px 0; }
  button[aria-pressed='true'] { background: var(--tint); color: var(--blue); font-weight: 600; }
`;
const Problem = styled.div`margin-bottom: 8px;`;
const Under = styled.div`display: flex; flex-direction: column; gap: 8px; margin-top: 10px;`;
