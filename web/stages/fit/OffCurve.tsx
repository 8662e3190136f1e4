import styled from 'styled-components';
import { counting } from '../../../core/job/history';
import { offWords } from '../../../core/learn/next';
import { formatPlain, formatSigned } from '../../../core/quantity/format';
import { countedPrints } from '../../../core/work/outcome';
import type { SignedLedger } from '../../../core/work/signed-ledger';
import { useBench } from '../../job/bench-context';
import { FONTS } from '../../ui/theme';
import { TriedTable } from './TriedTable';

const WIDTH = 720;
const HEIGHT = 132;
const BASE = 84;
const POINTS = 101;

/**
 * How far off the next print is believed to be, over what is still right; earlier versions are marked, and listed in a
 * table.
 */
export function OffCurve({ ledger }: { ledger: SignedLedger }) {
  const { resolved } = useBench('resolved');
  const { mate, unit, off, bias, scatter } = ledger;
  const suffix = unit === 'deg' ? '°' : ' mm';
  const tried = countedPrints(counting(resolved.history)).flatMap(({ version, outcome }) => {
    const said = outcome?.said[mate.id]?.off;
    return said ? [{ version: version.number, ...said }] : [];
  });
  const sd = Math.hypot(bias.sd, scatter);
  const { min, max } = mate.tolerance;
  const room = 0.15 * (max - min);
  const low = Math.min(min, off - 3 * sd, ...tried.map(t => t.value)) - room;
  const high = Math.max(max, off + 3 * sd, ...tried.map(t => t.value)) + room;
  const x = (v: number) => 14 + ((v - low) / (high - low)) * (WIDTH - 28);
  const bell = (v: number) => Math.exp(-0.5 * ((v - off) / sd) ** 2);
  const line = Array.from({ length: POINTS }, (_, i) => {
    const v = low + ((high - low) * i) / (POINTS - 1);
    return `${i ? 'L' : 'M'}${x(v).toFixed(1)} ${(BASE - 62 * bell(v)).toFixed(1)}`;
  }).join('');
  return (
    <>
      <Plot
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`The next print is expected ${offWords(off, { sense: mate.sense, unit })}, give or take ${formatPlain(sd)}${suffix}`}
      >
        <rect x={x(min)} y={20} width={x(max) - x(min)} height={BASE - 20} className="window" />
        <text x={(x(min) + x(max)) / 2} y={14} textAnchor="middle" className="want">
          right
        </text>
        <path d={line} className="line" />
        <line x1={6} x2={WIDTH - 6} y1={BASE} y2={BASE} className="axis" />
        {[min, 0, max].map(v => (
          <text key={v} x={x(v)} y={BASE + 17} textAnchor="middle" className="tick">
            {v === 0 ? '0' : formatSigned(v)}
          </text>
        ))}
        {tried.map((t, i) => (
          <g key={i}>
            <line x1={x(t.value - t.u)} x2={x(t.value + t.u)} y1={BASE - 9} y2={BASE - 9} className="axis" />
            <circle cx={x(t.value)} cy={BASE - 9} r={4.5} className="said" />
            <text x={x(t.value)} y={BASE - 18} textAnchor="middle" className="tick">
              v{t.version}
            </text>
          </g>
        ))}
        <text x={14} y={HEIGHT - 8} className="less">
          {mate.sense.less}
        </text>
        <text x={WIDTH - 14} y={HEIGHT - 8} textAnchor="end" className="more">
          {mate.sense.more}
        </text>
      </Plot>
      <TriedTable
        rows={tried.map(t => ({
          version: t.version,
          said: offWords(t.value, { sense: mate.sense, unit }),
          where: `±${formatPlain(t.u)}${suffix}`,
        }))}
      />
    </>
  );
}

const Plot = styled.svg`
  display: block; width: 100%; height: auto; max-height: 190px;
  .window { fill: var(--right-tint); } .line { fill: none; stroke: var(--ink); stroke-width: 2; } .axis { stroke: var(--soft); }
  .tick { font: 12px ${FONTS.number}; fill: var(--soft); } .want { font: 600 14px ${FONTS.label}; fill: var(--right); }
  .said { fill: var(--blue); } .less, .more { font: 600 13.5px ${FONTS.label}; fill: var(--loose); } .more { fill: var(--tight); }
`;
