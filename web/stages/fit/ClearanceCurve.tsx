import { ticks } from 'd3-array';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { standing } from '../../../core/job/history';
import type { MateLedger } from '../../../core/job/ledger';
import { drawnClearance } from '../../../core/learn/posterior';
import { formatLength, formatSigned } from '../../../core/quantity/format';
import { useBench } from '../../job/bench-context';
import { MarkShape, markOfVerdict } from '../../ui/layout';
import { FONTS } from '../../ui/theme';

const HEIGHT = 188;
const BASE = 132;
const TOP = 16;
const POINTS = 121;

/** The clearance the next print will have, as believed, over the wanted window; earlier tries below. */
export function ClearanceCurve({ ledger }: { ledger: MateLedger }) {
  const { workshop, job, unit } = useBench();
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(740);
  useLayoutEffect(() => {
    const watch = new ResizeObserver(([entry]) => setWidth(Math.max(280, entry!.contentRect.width)));
    if (box.current) watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  const tried = useMemo(() => triedClearances(ledger, job.history), [ledger, job.history]);
  const { window, clearance, sd } = ledger;
  const low = Math.min(window.min, clearance - 3.2 * sd, ...tried.map(t => t.clearance)) - 0.06;
  const high = Math.max(window.max, clearance + 3.2 * sd, ...tried.map(t => t.clearance)) + 0.06;
  const density = useMemo(
    () => densityOf(ledger, workshop.belief.repeatability, low, high),
    [ledger, workshop.belief.repeatability, low, high],
  );
  const x = (c: number) => 14 + ((c - low) / (high - low)) * (width - 28);
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
          {ledger.mate.want.name === 'own' ? 'your window' : ledger.mate.want.name}
        </text>
        <path d={fill} className="right" />
        <path d={line} className="line" />
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
            <MarkShape mark={markOfVerdict(t.verdict)} />
            <text x={12} y={-4} textAnchor="middle" className="version">
              v{t.version}
            </text>
          </g>
        ))}
        <text x={14} y={HEIGHT - 12} className="tighter">
          tighter
        </text>
        <text x={width / 2} y={HEIGHT - 12} textAnchor="middle" className="tick words">
          clearance across the diameter, {unit}
        </text>
        <text x={width - 14} y={HEIGHT - 12} textAnchor="end" className="looser">
          looser
        </text>
      </svg>
    </Plot>
  );
}

/** Density of drawn − β − scatter, over the posterior of β. */
function densityOf(ledger: MateLedger, s: number, low: number, high: number): [number, number][] {
  const { posterior, mate, reading, model } = ledger;
  const drawn = drawnClearance({ side: mate.side, reading }, model);
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

/** Where earlier tries most likely lay, by what is believed now. */
function triedClearances(ledger: MateLedger, history: Parameters<typeof standing>[0]) {
  const { versions, prints, tries } = standing(history);
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
  .want { font: 600 14px ${FONTS.label}; fill: var(--right); }
  .tighter, .looser { font: 600 13.5px ${FONTS.label}; fill: var(--tight); } .looser { fill: var(--loose); }
`;
