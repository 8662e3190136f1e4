import { ticks } from 'd3-array';
import styled from 'styled-components';
import type { DimensionState } from '../../../core/work/dimension';
import { showSize, showUnit, valueWords } from '../../../core/work/show';
import { useBench } from '../../job/bench-context';
import { FONTS } from '../../ui/theme';

const WIDTH = 280;
const HEIGHT = 84;
const AXIS = 54;

/** The readings as dots over the value ± U. */
export function DotPlot({ state }: { state: DimensionState }) {
  const { unit } = useBench('unit');
  const { evaluation, counted, values } = state;
  const { kind } = state.dimension;
  if (!evaluation) return null;
  const { value, expandedUncertainty: u } = evaluation;
  const reach = 1.4 * Math.max(u, ...values.map(v => Math.abs(v - value)), 0.02);
  const x = (v: number) => WIDTH / 2 + ((v - value) / reach) * (WIDTH / 2 - 26);
  const marks = ticks(value - reach, value + reach, 4);
  const stacked = new Map<string, number>();
  return (
    <Plot
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`${valueWords(state, unit)} from ${values.length} readings`}
    >
      <rect x={x(value - u)} width={x(value + u) - x(value - u)} y={24} height={AXIS - 24} className="band" />
      <line x1={x(value)} x2={x(value)} y1={24} y2={AXIS} className="value" />
      <text x={WIDTH / 2} y={16} textAnchor="middle" className="label">
        {showSize(kind, value, unit)} ±{showSize(kind, u, unit)}
        {showUnit(kind, unit)}
      </text>
      <line x1={6} x2={WIDTH - 6} y1={AXIS} y2={AXIS} className="axis" />
      {marks.map(mark => (
        <g key={mark}>
          <line x1={x(mark)} x2={x(mark)} y1={AXIS} y2={AXIS + 5} className="axis" />
          <text x={x(mark)} y={AXIS + 19} textAnchor="middle">
            {showSize(kind, mark, unit)}
          </text>
        </g>
      ))}
      {counted.map((reading, i) => {
        const at = x(values[i]!);
        const key = at.toFixed(0);
        const level = stacked.get(key) ?? 0;
        stacked.set(key, level + 1);
        return (
          <circle
            key={reading.id}
            cx={at}
            cy={AXIS - 6 - 9 * level}
            r={4.2}
            className={evaluation.outliers.includes(i) ? 'stray' : 'dot'}
          />
        );
      })}
    </Plot>
  );
}

const Plot = styled.svg`
  width: 100%; max-width: 420px; display: block;
  text { font: 11.5px ${FONTS.number}; fill: var(--soft); }
  .label { font: 600 13px ${FONTS.number}; fill: var(--ink); }
  .band { fill: var(--tint); } .value { stroke: var(--blue); stroke-width: 1.5; }
  .axis { stroke: var(--soft); }
  .dot { fill: var(--blue); } .stray { fill: var(--danger); }
`;
