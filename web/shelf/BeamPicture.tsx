import styled from 'styled-components';
import { FONTS } from '../ui/theme';

interface Props {
  length: number;
  thickness: number;
  /** At the tip. */
  tip: number;
  bend: number;
}

const WIDTH = 420;
const POINTS = 24;

/** The beam from its side, at rest and bent, with one scale for both axes. */
export function BeamPicture({ length, thickness, tip, bend }: Props) {
  const room = thickness + bend + 2;
  const scale = Math.min((WIDTH - 60) / length, 150 / room);
  const x = (along: number) => 30 + along * scale;
  const y = (down: number) => 12 + (down + bend) * scale;
  // A straight cantilever's line under a load at its tip: y = b·(3·L·x² − x³)/2L³.
  const bent = (along: number) => (bend * (3 * length * along ** 2 - along ** 3)) / (2 * length ** 3);
  const outline = (by: (along: number) => number) => {
    const along = Array.from({ length: POINTS + 1 }, (_, i) => (length * i) / POINTS);
    const upper = along.map(a => `${x(a).toFixed(1)} ${y(-by(a)).toFixed(1)}`);
    const lower = along
      .map(a => `${x(a).toFixed(1)} ${y(thickness - ((thickness - tip) * a) / length - by(a)).toFixed(1)}`)
      .reverse();
    return `M${[...upper, ...lower].join('L')}Z`;
  };
  const high = y(thickness) + 16;
  return (
    <Picture
      viewBox={`0 0 ${WIDTH} ${high.toFixed(0)}`}
      role="img"
      aria-label="The beam from its side, at rest and bent, to scale"
    >
      <rect x={0} y={y(-1)} width={30} height={(thickness + 2) * scale} className="root" />
      <path d={outline(() => 0)} className="rest" />
      <path d={outline(bent)} className="bent" />
      <text x={x(length) + 4} y={y(-bend) + 4}>
        bent
      </text>
    </Picture>
  );
}

const Picture = styled.svg`
  width: 100%; max-width: 460px; display: block; background: var(--sheet); border: 1px solid var(--rule); border-radius: 4px; margin-bottom: 10px;
  .root { fill: var(--clay); } .rest { fill: none; stroke: var(--soft); stroke-dasharray: 4 3; } .bent { fill: var(--blue); }
  text { font: 12px ${FONTS.text}; fill: var(--ink); }
`;
