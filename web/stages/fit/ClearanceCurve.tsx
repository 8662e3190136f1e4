import { ticks } from 'd3-array';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { strainAt } from '../../../core/fit/wants';
import { counting } from '../../../core/job/history';
import { drawnClearance } from '../../../core/learn/likelihood';
import { MARK_OF, VERDICT_WORDS } from '../../../core/learn/verdict';
import { formatLength, formatPercent, formatSigned } from '../../../core/quantity/format';
import { acrossOf, chanceIf, type MateLedger } from '../../../core/work/ledger';
import { useBench } from '../../job/bench-context';
import { MarkShape } from '../../ui/layout';
import { FONTS } from '../../ui/theme';
import { TriedTable } from './TriedTable';

const HEIGHT = 188;
const BASE = 132;
const TOP = 16;
const POINTS = 121;

/** The believed clearance of the next print, over the wanted window; earlier tries below. */
export function ClearanceCurve({ ledger }: { ledger: MateLedger }) {
  const { resolved, unit, edit } = useBench('resolved', 'unit', 'edit');
  const [drag, setDrag] = useState<{ edge: 'min' | 'max'; at: number } | null>(null);
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(740);
  useLayoutEffect(() => {
    const watch = new ResizeObserver(([entry]) => setWidth(Math.max(280, entry!.contentRect.width)));
    if (box.current) watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  const tried = useMemo(() => triedClearances(ledger, resolved.history), [ledger, resolved.history]);
  const { clearance, sd } = ledger;
  const low = Math.min(ledger.window.min, clearance - 3.2 * sd, ...tried.map(t => t.clearance)) - 0.06;
  const high = Math.max(ledger.window.max, clearance + 3.2 * sd, ...tried.map(t => t.clearance)) + 0.06;
  const density = useMemo(() => densityOf(ledger, low, high), [ledger, low, high]);
  const x = (c: number) => 14 + ((c - low) / (high - low)) * (width - 28);
  // The scale is fixed while an edge is dragged, so that the edge stays under the finger.
  const window = drag ? { ...ledger.window, [drag.edge]: drag.at } : ledger.window;
  const whatIf = drag ? chanceIf(ledger, { window }) : null;
  const clearanceAt = (event: React.PointerEvent<SVGElement>) => {
    const left = box.current!.getBoundingClientRect().left;
    return low + ((event.clientX - left - 14) / (width - 28)) * (high - low);
  };
  const move = (edge: 'min' | 'max') => (event: React.PointerEvent<SVGElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const at = Math.round(clearanceAt(event) / STEP) * STEP;
    const bound =
      edge === 'min'
        ? Math.min(at, ledger.window.max - NARROWEST)
        : Math.max(at, ledger.window.min + NARROWEST);
    setDrag({ edge, at: bound });
  };
  const drop = () => {
    if (!drag) return;
    void edit({ kind: 'want', mateId: ledger.mate.id, want: wantWith(ledger, window) }).then(() =>
      setDrag(null),
    );
  };
  const peak = Math.max(...density.map(d => d[1]));
  const y = (p: number) => BASE - (p / peak) * (BASE - TOP - 22);
  const line = density.map(([c, p], i) => `${i ? 'L' : 'M'}${x(c).toFixed(1)} ${y(p).toFixed(1)}`).join('');
  const inside = density.filter(([c]) => c >= window.min && c <= window.max);
  const fill =
    inside.length > 1
      ? `M${x(inside[0]![0])} ${BASE}${inside.map(([c, p]) => `L${x(c).toFixed(1)} ${y(p).toFixed(1)}`).join('')}L${x(inside.at(-1)![0])} ${BASE}Z`
      : '';
  const middle = (x(window.min) + x(window.max)) / 2;
  return (
    <Plot ref={box}>
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`The next print’s clearance: ${formatSigned(clearance)} mm give or take ${formatLength(sd)}; wanted ${formatLength(window.min)} to ${formatLength(window.max)}`}
      >
        <rect
          x={x(window.min)}
          y={TOP}
          width={x(window.max) - x(window.min)}
          height={BASE - TOP}
          className="window"
        />
        <text x={middle} y={TOP + 14} textAnchor="middle" className="want">
          {whatIf !== null
            ? `${formatPercent(whatIf)} right as drawn now`
            : ledger.mate.want.name === 'own'
              ? 'your window'
              : ledger.mate.want.name}
        </text>
        <path d={fill} className="right" />
        <path d={line} className="line" />
        {ledger.reading.source === 'old-part'
          ? null
          : (['min', 'max'] as const).map(edge => (
              // The fields above are the keyboard's way; this is for the pointer.
              <g
                key={edge}
                className="edge"
                data-testid={`window-${edge}`}
                onPointerDown={event => {
                  event.currentTarget.setPointerCapture(event.pointerId);
                  setDrag({ edge, at: ledger.window[edge] });
                }}
                onPointerMove={move(edge)}
                onPointerUp={drop}
                onPointerCancel={() => setDrag(null)}
              >
                <rect x={x(window[edge]) - 9} y={TOP} width={18} height={BASE - TOP} className="grip" />
                <line x1={x(window[edge])} x2={x(window[edge])} y1={TOP} y2={BASE} />
                <circle cx={x(window[edge])} cy={(TOP + BASE) / 2} r={4.5} />
              </g>
            ))}
        <line x1={6} x2={width - 6} y1={BASE} y2={BASE} className="axis" />
        {ticks(low, high, Math.max(4, width / 110)).map(t => (
          <g key={t}>
            <line x1={x(t)} x2={x(t)} y1={BASE} y2={BASE + 5} className="axis" />
            <text x={x(t)} y={BASE + 19} textAnchor="middle" className="tick">
              {t === 0 ? '0' : formatSigned(t, unit, unit === 'mm' ? 2 : 3)}
            </text>
          </g>
        ))}
        {tried.map((t, i) => (
          <g key={i} transform={`translate(${x(t.clearance) - 11} ${BASE - 16})`}>
            <MarkShape mark={MARK_OF[t.verdict]} />
            <text x={12} y={-4} textAnchor="middle" className="version">
              v{t.version}
            </text>
          </g>
        ))}
        <text x={14} y={HEIGHT - 12} className="tighter">
          tighter
        </text>
        <text x={width / 2} y={HEIGHT - 12} textAnchor="middle" className="tick words">
          clearance {acrossOf(ledger)}, {unit}
        </text>
        <text x={width - 14} y={HEIGHT - 12} textAnchor="end" className="looser">
          looser
        </text>
      </svg>
      <TriedTable
        rows={tried.map(t => ({
          version: t.version,
          said: VERDICT_WORDS[t.verdict],
          where: `most likely ${formatSigned(t.clearance, unit)} ${unit} of clearance`,
        }))}
      />
    </Plot>
  );
}

/** An edge is dragged in steps of this, and never closer to the other than that, mm. */
const STEP = 0.005;
const NARROWEST = 0.02;

/** The want with a dragged window: for a stretch its ends are swapped. */
function wantWith(
  { mate, reading }: MateLedger,
  window: { min: number; max: number },
): MateLedger['mate']['want'] {
  const three = (value: number) => Number(value.toFixed(3));
  if (mate.want.window.unit === 'mm')
    return {
      ...mate.want,
      name: 'own',
      window: { min: three(window.min), max: three(window.max), unit: 'mm' },
    };
  const strain = (c: number) => Number(strainAt(c, reading.value, mate.side, mate.soft).toFixed(4));
  return {
    ...mate.want,
    name: 'own',
    window: { min: strain(window.max), max: strain(window.min), unit: 'strain' },
  };
}

/** Density of drawn − β − scatter, over the posterior of β. */
function densityOf(ledger: MateLedger, low: number, high: number): [number, number][] {
  const { posterior, mate, reading, model, shift, scatter: s } = ledger;
  const drawn = drawnClearance({ side: mate.side, reading, shift }, model);
  return Array.from({ length: POINTS }, (_, i) => {
    const c = low + ((high - low) * i) / (POINTS - 1);
    let p = 0;
    for (let j = 0; j < posterior.beta.length; j++) {
      const w = posterior.weight[j]!;
      if (w > 1e-7) p += w * Math.exp(-0.5 * ((c - (drawn - posterior.beta[j]!)) / s) ** 2);
    }
    return [c, p];
  });
}

/** Where earlier tries most likely were, by the current belief. */
function triedClearances(ledger: MateLedger, history: Parameters<typeof counting>[0]) {
  const { versions, prints, tries } = counting(history);
  return tries.flatMap(row => {
    const verdict = row.mates[ledger.mate.id]?.verdict;
    const version = versions.find(v => v.id === prints.find(p => p.id === row.printId)?.versionId);
    const drawn = version?.mates.find(m => m.mateId === ledger.mate.id);
    if (!verdict || !version || !drawn) return [];
    return [
      {
        version: version.number,
        verdict,
        clearance:
          drawnClearance({ side: ledger.mate.side, reading: ledger.reading }, drawn.model) - ledger.bias.mean,
      },
    ];
  });
}

const Plot = styled.div`
  width: 100%; overflow: hidden;
  svg { display: block; }
  .window { fill: var(--right-tint); } .right { fill: var(--right); opacity: 0.45; }
  .line { fill: none; stroke: var(--ink); stroke-width: 2; } .axis { stroke: var(--soft); }
  .tick, .version { font: 12px ${FONTS.number}; fill: var(--soft); } .words { font: 13px ${FONTS.text}; }
  .version { font-size: 11px; }
  .edge { cursor: ew-resize; touch-action: none; } .edge .grip { fill: transparent; } .edge line { stroke: var(--right); stroke-width: 1.5; } .edge circle { fill: var(--sheet); stroke: var(--right); stroke-width: 2; }
  .want { font: 600 14px ${FONTS.label}; fill: var(--right); }
  .tighter, .looser { font: 600 13.5px ${FONTS.label}; fill: var(--tight); } .looser { fill: var(--loose); }
`;
