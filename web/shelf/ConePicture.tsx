import styled from 'styled-components';
import { formatPlain } from '../../core/quantity/format';
import { FONTS } from '../ui/theme';

interface Props {
  /** Degrees. */
  halfAngle: number;
  /** How far the plug goes beyond the mouth, and the uncertainty of that, mm. */
  depth: number;
  doubt: number;
}

const WIDTH = 300;
const HEIGHT = 170;

/** The plug in its bore, in section: where it comes to rest and how uncertain that is, to scale. */
export function ConePicture({ halfAngle, depth, doubt }: Props) {
  const slope = Math.tan((halfAngle * Math.PI) / 180);
  const reach = Math.max(6, (depth + doubt) * 1.5);
  const scale = (HEIGHT - 30) / reach;
  const middle = WIDTH / 2;
  const half = 46;
  const at = (d: number) => 14 + d * scale;
  // The bore narrows downwards; its wall at depth d is so far from the axis.
  const wall = (d: number) => half - d * slope * scale;
  const side = (sign: number) =>
    `M${middle + sign * wall(0)} ${at(0)}L${middle + sign * wall(reach)} ${at(reach)}L${middle + sign * (half + 40)} ${at(reach)}L${middle + sign * (half + 40)} ${at(0)}Z`;
  const tip = wall(depth);
  return (
    <Picture
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`The plug rests ${formatPlain(depth, 1)} mm deep, to scale`}
    >
      <path d={side(-1)} className="bore" />
      <path d={side(1)} className="bore" />
      <path
        d={`M${middle - tip} ${at(depth)}L${middle + tip} ${at(depth)}L${middle + half} ${at(0)}L${middle - half} ${at(0)}Z`}
        className="plug"
      />
      <rect
        x={middle - half - 36}
        y={at(Math.max(0, depth - doubt))}
        width={2 * half + 72}
        height={Math.max(1, 2 * Math.min(doubt, depth) * scale)}
        className="doubt"
      />
      <text x={middle} y={at(depth) + 14} textAnchor="middle">
        {formatPlain(depth, 1)} mm
      </text>
    </Picture>
  );
}

const Picture = styled.svg`
  width: 100%; max-width: 330px; display: block; background: var(--sheet); border: 1px solid var(--rule); border-radius: 4px; margin-bottom: 10px;
  .bore { fill: var(--clay); stroke: var(--strong); stroke-width: 0.6; } .plug { fill: var(--blue); opacity: 0.85; } .doubt { fill: var(--loose); opacity: 0.25; }
  text { font: 12px ${FONTS.number}; fill: var(--ink); }
`;
