import { format } from 'date-fns';
import { X } from 'lucide-react';
import { memo, type ReactNode, useRef, useState } from 'react';
import styled from 'styled-components';
import type { LedgerStep } from '../../core/fit/propose';
import { strainAt } from '../../core/fit/wants';
import { formatLength, formatPercent, formatPlain, formatSigned } from '../../core/quantity/format';
import { type DimensionState, readEnough } from '../../core/work/dimension';
import { acrossOf, chanceIf, type MateLedger } from '../../core/work/ledger';
import { showSize, standingOf } from '../../core/work/show';
import { Button, IconButton } from '../ui/controls';
import { Row } from '../ui/layout';
import { FONTS } from '../ui/theme';
import { useBench, useBenchValue } from './bench-context';
import { Line, MateBox, Total } from './ledger-look';
import { SignedRow } from './SignedRow';

/** Every dimension that must fit, as a chain from reading to model number. */
export const Ledger = memo(function Ledger({ open, onClose }: { open: boolean; onClose(): void }) {
  const rows = useBenchValue(b => b.resolved.needed);
  const ledger = useBenchValue(b => b.resolved.ledger);
  return (
    <Aside data-open={open ? '' : undefined} aria-label="Ledger">
      <Head>
        <h2>Ledger</h2>
        <span className="closer">
          <IconButton aria-label="Close the ledger" onPress={onClose}>
            <X size={18} />
          </IconButton>
        </span>
      </Head>
      {rows.map(row => {
        const mates = ledger.mates.filter(m => m.dimension.id === row.dimension.id);
        return (
          <div key={row.dimension.id}>
            <DimensionRow row={row} />
            {mates.map(mate => (
              <MateRow key={mate.mate.id} ledger={mate} />
            ))}
            {ledger.signed
              .filter(m => m.dimension.id === row.dimension.id)
              .map(m => (
                <SignedRow key={m.mate.id} ledger={m} />
              ))}
          </div>
        );
      })}
      {ledger.mates
        .filter(m => m.mate.other.of === 'part')
        .map(m => (
          <div key={m.mate.id}>
            <Other>
              <span>
                {m.dimension.label} <small>as it will print</small>
              </span>
              <span className="number">
                {formatLength(m.reading.value)} <small>±{formatPlain(1.96 * m.reading.u, 2)}</small>
              </span>
            </Other>
            <MateRow ledger={m} />
          </div>
        ))}
      {ledger.unread.map(mate => (
        <Unread key={mate.id}>
          {mate.name}:{' '}
          <span>
            {mate.other.of === 'part'
              ? 'its number comes when the other part has its own'
              : 'its number comes with the first reading'}
          </span>
        </Unread>
      ))}
      {ledger.pAllRight !== null ? (
        <All>
          <span>all of it right with the next print</span>
          <b>{formatPercent(ledger.pAllRight)}</b>
        </All>
      ) : null}
    </Aside>
  );
});

function DimensionRow({ row }: { row: DimensionState }) {
  const { selected, select, unit } = useBench('selected', 'select', 'unit');
  const { dimension, evaluation } = row;
  const shaky = dimension.critical && !readEnough(row, 2);
  const note = standingOf(row);
  return (
    <Line
      type="button"
      data-on={selected === dimension.id ? '' : undefined}
      onClick={() => select(selected === dimension.id ? null : dimension.id)}
    >
      <span>
        {dimension.label} <small>{note}</small>
      </span>
      <span className="number" data-shaky={shaky ? '' : undefined}>
        {evaluation ? (
          <>
            {showSize(dimension.kind, evaluation.value, unit)}
            {dimension.kind === 'angle' ? '°' : ''}{' '}
            <small>±{showSize(dimension.kind, evaluation.expandedUncertainty, unit)}</small>
          </>
        ) : (
          '?'
        )}
      </span>
    </Line>
  );
}

function MateRow({ ledger }: { ledger: MateLedger }) {
  const { selected, select, unit } = useBench('selected', 'select', 'unit');
  const { mate } = ledger;
  const open = selected === mate.id || selected === ledger.dimension.id;
  return (
    <MateBox data-open={open ? '' : undefined}>
      <Line
        type="button"
        data-mate
        aria-expanded={open}
        onClick={() => select(selected === mate.id ? null : mate.id)}
      >
        <span>
          {mate.name} <small>{mate.want.name === 'own' ? 'own window' : mate.want.name}</small>
        </span>
        <span className="number">{formatLength(ledger.model, unit)}</span>
      </Line>
      {open ? <Chain ledger={ledger} /> : null}
    </MateBox>
  );
}

const STEP_COLOUR = {
  reading: 'clay',
  allowance: 'right',
  compensation: 'blue-2',
  lesson: 'tight',
  own: 'clay',
} as const;

/** The chain as a small running bar with signed steps, each starting where the last one ended. */
function Chain({ ledger }: { ledger: MateLedger }) {
  const { unit } = useBench('unit');
  const { mate } = ledger;
  const [moved, setMoved] = useState<{ step: LedgerStep['step']; by: number } | null>(null);
  const steps = ledger.steps.map(s => (s.step === moved?.step ? { ...s, amount: s.amount + moved.by } : s));
  const model = ledger.model + (moved?.by ?? 0);
  const words = {
    reading:
      mate.other.of === 'part'
        ? 'the other part’s print'
        : `${ledger.reading.source === 'old-part' ? 'the old part' : 'reading'}${ledger.around ? ' ÷ π' : ''}`,
    allowance: mate.want.name === 'own' ? 'your own window' : mate.want.name,
    compensation: mate.side === 'inside' ? 'holes print small' : 'outsides print large',
    lesson:
      ledger.tries > 0
        ? `${ledger.tries} ${ledger.tries === 1 ? 'try' : 'tries'} taught`
        : ledger.laddered
          ? 'the ladder taught'
          : 'no try yet',
    own: 'your own number',
  };
  const last = ledger.dimension.readings.at(-1);
  const setBy = {
    reading: last
      ? `Last read ${format(new Date(last.at), 'd MMM, HH:mm')}`
      : 'Worked out from other dimensions',
    allowance: mate.want.name === 'own' ? 'Set by the maker on Fit' : 'The workshop’s window for this want',
    compensation:
      ledger.jobs > 0
        ? `From ${ledger.jobs === 1 ? 'another job' : `${ledger.jobs} other jobs`} of this workshop${ledger.calibration ? ', and its calibration piece' : ''}`
        : ledger.calibration
          ? `From the piece read on ${format(new Date(ledger.calibration.at), 'd MMM yyyy')}`
          : 'What is believed of an uncalibrated printer, set in Workshop',
    lesson:
      ledger.tries > 0 || ledger.laddered
        ? 'What the tries of this job taught'
        : 'Nothing yet: no print of this job was tried',
    own: 'Set by the maker on Shape',
  };
  const own = ledger.model !== ledger.proposed;
  const scale = runningScale(ledger.steps.slice(1).map(s => s.amount));
  const places = runningPlaces(
    steps.slice(1).map(s => s.amount),
    scale,
  );
  const clearance = ledger.clearance + (mate.side === 'inside' ? 1 : -1) * (moved?.by ?? 0);
  const pRight = moved ? chanceIf(ledger, { model }) : ledger.pRight;
  const strain =
    mate.want.window.unit === 'strain'
      ? strainAt(clearance, ledger.reading.value, mate.side, mate.soft)
      : null;
  return (
    <ChainBox>
      {steps.map((step, i) => (
        <Step key={step.step}>
          <span>
            {words[step.step]}
            {step.u > 0 ? <small> ±{formatLength(2 * step.u, unit)}</small> : null}
          </span>
          <span className="number">
            {i === 0 ? formatLength(step.amount, unit) : formatSigned(step.amount, unit)}
          </span>
          {i === 0 ? (
            <Bar>
              <i style={{ left: 0, width: `${places.zero}%`, background: 'var(--clay)' }} />
            </Bar>
          ) : (
            <WhatIfBar
              label={`What if: ${words[step.step]}`}
              value={step.amount}
              text={formatSigned(step.amount, unit)}
              perShare={scale.width / SPAN}
              by={step.step === moved?.step ? moved.by : 0}
              onMove={by => setMoved(Math.abs(by) < 0.005 ? null : { step: step.step, by })}
            >
              <i style={{ ...places.spans[i - 1], background: `var(--${STEP_COLOUR[step.step]})` }} />
            </WhatIfBar>
          )}
        </Step>
      ))}
      <Total>
        <b>{moved ? 'what if it were' : 'model number'}</b>
        <strong>{formatLength(model, unit)}</strong>
      </Total>
      {own && !moved ? <OwnNumber ledger={ledger} /> : null}
      {moved ? <WhatIf ledger={ledger} by={moved.by} pRight={pRight} onDone={() => setMoved(null)} /> : null}
      <p>
        {strain !== null
          ? `Stretched by ${formatPlain(100 * strain, 1)} %: ${formatSigned(clearance, unit)} ${acrossOf(ledger)}.`
          : `${formatSigned(clearance, unit)} clearance is ${formatSigned(clearance / 2, unit, unit === 'mm' ? 3 : 4)} per side.`}{' '}
        {ledger.tooLarge
          ? 'It is larger than the bed: no chance is given.'
          : `${formatPercent(pRight)} likely to sit right.`}
      </p>
      <details>
        <summary>Who set these numbers, and when</summary>
        <ul>
          {steps.map(step => (
            <li key={step.step}>
              <b>{words[step.step]}</b>: {setBy[step.step]}.
            </li>
          ))}
        </ul>
      </details>
    </ChainBox>
  );
}

/** Shows what the ledger would draw instead of the maker's own number, and can go back to it. */
function OwnNumber({ ledger }: { ledger: MateLedger }) {
  const { edit, resolved, unit } = useBench('edit', 'resolved', 'unit');
  const back = () => {
    const name = resolved.recipe.mates.find(m => m.id === ledger.mate.ours.surface)!.parameter;
    // The number of an addition is tied to its dimension by the text in its field.
    const bound = resolved.recipe.parameters.find(p => p.name === name)?.addition !== undefined;
    const expression = bound ? { text: `${ledger.dimension.name}.model`, unit: 'mm' as const } : null;
    void edit({ kind: 'parameter', partId: resolved.part.id, name, expression });
  };
  return (
    <WhatIfBox>
      <span>
        The ledger would draw {formatLength(ledger.proposed, unit)}:{' '}
        {formatPercent(chanceIf(ledger, { model: ledger.proposed }))} likely to sit right.
      </span>
      <Row $gap={6}>
        <Button $small onPress={back}>
          Draw {formatLength(ledger.proposed, unit)}
        </Button>
      </Row>
    </WhatIfBox>
  );
}

interface WhatIfBarProps {
  label: string;
  value: number;
  text: string;
  /** mm for the whole width of the bar, divided by 100. */
  perShare: number;
  /** How far it is moved, mm. */
  by: number;
  onMove(by: number): void;
  children: ReactNode;
}

/** The limit of a what-if, mm. */
const MOST_MOVED = 1;

/** A step that can be dragged, or moved by the arrow keys, to see the effect. */
function WhatIfBar({ label, value, text, perShare, by, onMove, children }: WhatIfBarProps) {
  const start = useRef({ x: 0, by: 0 });
  const move = (to: number) => {
    const bound = Math.max(-MOST_MOVED, Math.min(MOST_MOVED, to));
    onMove(Math.round(bound * 100) / 100);
  };
  return (
    <Bar
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={Number(value.toFixed(2))}
      aria-valuetext={`${text} mm`}
      aria-valuemin={value - by - MOST_MOVED}
      aria-valuemax={value - by + MOST_MOVED}
      className="slides"
      onPointerDown={event => {
        event.currentTarget.setPointerCapture(event.pointerId);
        start.current = { x: event.clientX, by };
      }}
      onPointerMove={event => {
        if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
        const share = (100 * (event.clientX - start.current.x)) / event.currentTarget.clientWidth;
        move(start.current.by + share * perShare);
      }}
      onKeyDown={event => {
        const step = { ArrowRight: 0.01, ArrowUp: 0.01, ArrowLeft: -0.01, ArrowDown: -0.01 }[event.key];
        if (step !== undefined) {
          event.preventDefault();
          event.stopPropagation();
          move(by + step);
        } else if (event.key === 'Escape') onMove(0);
      }}
    >
      {children}
    </Bar>
  );
}

interface WhatIfProps {
  ledger: MateLedger;
  by: number;
  pRight: number;
  onDone(): void;
}

/** The effect of a moved step; keeping it gives the mate a window of its own. */
function WhatIf({ ledger, by, pRight, onDone }: WhatIfProps) {
  const { edit } = useBench('edit');
  const { mate, window } = ledger;
  const looser = mate.side === 'inside' ? by : -by;
  const keep = async () => {
    const moved = {
      min: Number((window.min + looser).toFixed(3)),
      max: Number((window.max + looser).toFixed(3)),
      unit: 'mm' as const,
    };
    if (await edit({ kind: 'want', mateId: mate.id, want: { ...mate.want, name: 'own', window: moved } }))
      onDone();
  };
  const mayKeep = mate.want.window.unit === 'mm' && ledger.reading.source !== 'old-part';
  return (
    <WhatIfBox aria-live="polite">
      <span>
        {formatSigned(looser)} mm {looser > 0 ? 'looser' : 'tighter'}: {formatPercent(pRight)} instead of{' '}
        {formatPercent(ledger.pRight)}
      </span>
      <Row $gap={6}>
        {mayKeep ? (
          <Button $small onPress={() => void keep()}>
            Want this
          </Button>
        ) : null}
        <Button $small $look="quiet" onPress={onDone}>
          Back
        </Button>
      </Row>
    </WhatIfBox>
  );
}

/** The steps' share of a bar's width, %; the reading is left of them. */
const SPAN = 66;
const BEFORE = 30;

const endsOf = (amounts: number[]) =>
  amounts.map((a, i) => {
    const start = amounts.slice(0, i).reduce((sum, b) => sum + b, 0);
    return [start, start + a] as const;
  });

/** The range of the steps, mm; it is fixed while a step is dragged. */
function runningScale(amounts: number[]) {
  const all = [0, ...endsOf(amounts).flat()];
  const low = Math.min(...all);
  return { low, width: Math.max(Math.max(...all) - low, 0.05) };
}

/** The place of each step's bar, %: zero is the end of the reading, the steps share the rest of the width. */
function runningPlaces(amounts: number[], { low, width }: ReturnType<typeof runningScale>) {
  const ends = endsOf(amounts);
  const place = (x: number) => BEFORE + (SPAN * (x - low)) / width;
  return {
    zero: place(0),
    spans: ends.map(([a, b]) => ({
      left: `${place(Math.min(a, b))}%`,
      width: `${Math.max(1.2, place(Math.max(a, b)) - place(Math.min(a, b)))}%`,
    })),
  };
}

const Aside = styled.aside`
  border-left: 1px solid var(--rule); background: var(--sheet); overflow: auto; padding-bottom: 24px;
  .closer { display: none; }
  small { color: var(--soft); font-size: 12.5px; font-weight: 400; }
  @media (max-width: 900px) {
    display: none; position: fixed; inset: 56px 0 0 auto; width: min(360px, 92vw); z-index: 15; box-shadow: -4px 0 16px rgb(0 0 0 / 20%);
    &[data-open] { display: block; }
    .closer { display: block; }
  }
`;
const Head = styled.div`display: flex; justify-content: space-between; align-items: center; padding: 14px 18px 8px;`;
/** The other part's side of a mate: it is not measured. */
const Other = styled.div`
  display: flex; justify-content: space-between; gap: 10px; padding: 11px 18px; border-top: 1px solid var(--rule); font-size: 14.5px;
  small { color: var(--soft); font-size: 12.5px; } .number { font-size: 16px; white-space: nowrap; }
`;
const ChainBox = styled.div`
  padding: 2px 18px 12px;
  p, details { font-size: 13.5px; color: var(--soft); margin-top: 4px; }
  summary { cursor: pointer; } ul { margin: 4px 0 0; padding-left: 18px; }
`;
const Step = styled.div`
  display: grid; grid-template-columns: 150px 60px 1fr; align-items: center; height: 27px; font-size: 13.5px;
  .number { text-align: right; padding-right: 10px; }
`;
const Bar = styled.span`
  position: relative; height: 10px; display: block;
  i { position: absolute; top: 0; height: 10px; }
  &.slides { cursor: ew-resize; touch-action: none; overflow: hidden; }
  &.slides:hover { background: var(--tint); }
`;
const WhatIfBox = styled.div`
  background: var(--tint); border-radius: 4px; padding: 7px 10px; margin: 6px 0; display: flex; flex-direction: column; gap: 6px; font-size: 13.5px;
`;
const Unread = styled.p`padding: 9px 18px; border-top: 1px dotted var(--rule); span { color: var(--soft); font-size: 13.5px; }`;
const All = styled.div`
  display: flex; justify-content: space-between; align-items: baseline; padding: 12px 18px; border-top: 1px solid var(--ink); margin-top: 4px;
  span { color: var(--soft); font-size: 13.5px; } b { font: 600 20px ${FONTS.number}; color: var(--right); }
`;
