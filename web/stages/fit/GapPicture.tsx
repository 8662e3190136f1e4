import styled from 'styled-components';
import { formatPlain, formatSigned } from '../../../core/quantity/format';
import type { MateLedger } from '../../../core/work/ledger';
import { FONTS } from '../../ui/theme';

const WIDTH = 236;
const HEIGHT = 92;
/** Room for the two labels, px. */
const OURS = 48;
const OBJECT = 62;

/** The two surfaces at one side, magnified: ours, and the range of the object's. Half the clearance per side. */
export function GapPicture({ ledger }: { ledger: MateLedger }) {
  const { window, mate } = ledger;
  const [near, far] = [window.min / 2, window.max / 2];
  const [low, high] = [Math.min(0, near), Math.max(0, far)];
  const scale = (WIDTH - OURS - OBJECT) / Math.max(0.12, high - low);
  const times = Math.round((scale * 25.4) / 96 / 5) * 5;
  // An interference is drawn inside our wall.
  const wall = OURS - low * scale;
  const x = (gap: number) => wall + gap * scale;
  const step = [0.5, 0.2, 0.1, 0.05, 0.02].find(s => s * scale < 70) ?? 0.02;
  return (
    <Figure>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`One side in section, magnified ${times} times: ${formatPlain(near, 3)} to ${formatPlain(far, 3)} mm between the surfaces`}
      >
        <rect x={0} y={0} width={wall} height={62} className="ours" />
        <rect x={x(far)} y={0} width={WIDTH - x(far)} height={62} className="object" />
        <rect x={x(near)} y={0} width={x(far) - x(near)} height={62} className="between" />
        <line x1={wall} x2={wall} y1={0} y2={62} className="edge" />
        <text x={8} y={18} className="on">
          ours
        </text>
        <text x={WIDTH - 6} y={18} textAnchor="end">
          object
        </text>
        <line x1={wall} x2={wall + step * scale} y1={72} y2={72} className="bar" />
        <text x={wall} y={87}>
          {formatPlain(step, 2)} mm
        </text>
      </svg>
      <figcaption>
        One side, about {times}×: {formatSigned(near, 'mm', 3)} to {formatSigned(far, 'mm', 3)} mm
        {mate.want.window.unit === 'strain' ? ', ours stretched' : near < 0 ? ', into each other' : ''}.
      </figcaption>
    </Figure>
  );
}

const Figure = styled.figure`
  margin: 4px 0 0; max-width: 250px;
  svg { width: 100%; display: block; border: 1px solid var(--rule); border-radius: 4px; background: var(--sheet); }
  .ours { fill: var(--blue); } .object { fill: var(--clay); } .between { fill: var(--right-tint); }
  .edge { stroke: var(--ink); } .bar { stroke: var(--ink); stroke-width: 2; }
  text { font: 12px ${FONTS.text}; fill: var(--ink); } .on { fill: var(--on-blue); }
  figcaption { font-size: 13px; color: var(--soft); margin: 3px 0 10px; }
`;
