import styled from 'styled-components';
import { cssColour, scaleOf } from '../stages/measure/AgainstScale';
import type { ShownLaid } from '../workers/trace-protocol';
import { pointsOf } from './points';

/** The part's lines over a photo, and the traced outline coloured by its differences. */
export function LaidOver({ laid, thick }: { laid: ShownLaid; thick: number }) {
  const most = scaleOf(laid.p95);
  const { at, off } = laid.spots;
  return (
    <Over>
      {Array.from(off, (by, i) => (
        <line
          key={i}
          x1={at[4 * i]}
          y1={at[4 * i + 1]}
          x2={at[4 * i + 2]}
          y2={at[4 * i + 3]}
          stroke={cssColour(by, most)}
          strokeWidth={thick * 3.4}
          strokeLinecap="round"
        />
      ))}
      {laid.rings.map((ring, i) => (
        <g key={i}>
          <polyline points={pointsOf(ring)} className="under" strokeWidth={thick * 2.4} />
          <polyline
            points={pointsOf(ring)}
            className="part"
            strokeWidth={thick * 1.1}
            strokeDasharray={`${thick * 7} ${thick * 4}`}
          />
        </g>
      ))}
    </Over>
  );
}

/* Presses go to what was traced. */
const Over = styled.g`
  pointer-events: none;
  && polyline.under { stroke: var(--sheet); opacity: 0.75; } && polyline.part { stroke: var(--ink); }
`;
