import styled from 'styled-components';
import { FEATURES, type Feature, featureOf, PLATE, plateOutlines } from '../../../core/calibration/piece';
import { FONTS } from '../../ui/theme';

interface Props {
  /** The current feature. */
  turn: string;
  /** How often each was read. */
  read(id: string): number;
  onPick(id: string): void;
}

const path = (points: readonly (readonly [number, number])[]) =>
  `M${points.map(([x, y]) => `${x.toFixed(2)} ${(PLATE.depth - y).toFixed(2)}`).join('L')}Z`;

/** The calibration piece as it is on the bed, seen from above; readings are filled in. */
export function PieceView({ turn, read, onPick }: Props) {
  const { foot, deck } = plateOutlines();
  const lit = featureOf(turn);
  return (
    <Frame
      viewBox={`-8 -7 ${PLATE.width + 16} ${PLATE.depth + 15}`}
      role="img"
      aria-label="The calibration piece from above"
    >
      <path d={path(foot)} className="foot" data-lit={lit?.kind === 'foot' ? '' : undefined} />
      <path d={path(deck)} className="deck" data-lit={lit?.box && !lit.text ? '' : undefined} />
      {FEATURES.filter(f => f.text).map(f => (
        // The list below is the keyboard's way; this is for the pointer.
        // biome-ignore lint/a11y/noStaticElementInteractions: see above
        <g
          key={f.id}
          className={f.kind}
          data-lit={f.id === turn ? '' : undefined}
          data-read={read(f.id) > 0 ? '' : undefined}
          onClick={() => onPick(f.id)}
        >
          {f.centre ? (
            <circle cx={f.centre[0]} cy={PLATE.depth - f.centre[1]} r={f.size / 2} />
          ) : (
            <rect
              x={f.box![0]}
              y={PLATE.depth - f.box![3]}
              width={f.box![2] - f.box![0]}
              height={f.box![3] - f.box![1]}
            />
          )}
          <text x={f.text![0]} y={PLATE.depth - f.text![1] + 1.2} textAnchor="middle">
            {f.size}
          </text>
        </g>
      ))}
      <text x={PLATE.width / 2} y={PLATE.depth + 6.2} textAnchor="middle" className="front">
        front of the bed
      </text>
      {lit ? <Arrow feature={lit} /> : null}
    </Frame>
  );
}

/** Where the jaws go. */
function Arrow({ feature }: { feature: Feature }) {
  const flip = (y: number) => PLATE.depth - y;
  const [a, b] = endsOf(feature);
  return (
    <g className="jaws">
      <line x1={a[0]} y1={flip(a[1])} x2={b[0]} y2={flip(b[1])} />
      <circle cx={a[0]} cy={flip(a[1])} r={0.8} />
      <circle cx={b[0]} cy={flip(b[1])} r={0.8} />
    </g>
  );
}

function endsOf(f: Feature): [[number, number], [number, number]] {
  if (f.centre) {
    const [x, y] = f.centre;
    return [
      [x - f.size / 2, y],
      [x + f.size / 2, y],
    ];
  }
  const [x0, y0, x1, y1] = f.box!;
  const [mx, my] = [(x0 + x1) / 2, (y0 + y1) / 2];
  if (f.kind === 'diagonal') {
    const [dx, dy] = [(0.5 * f.size * PLATE.width) / 100, (0.5 * f.size * PLATE.depth) / 100];
    const flip = f.id === 'diagonal-1' ? 1 : -1;
    return [
      [mx - flip * dx, my - dy],
      [mx + flip * dx, my + dy],
    ];
  }
  if (f.kind === 'height')
    return [
      [x1 + 2.5, y0],
      [x1 + 2.5, y1],
    ];
  if (f.direction === 'left-right')
    return [
      [x0, my],
      [x1, my],
    ];
  return [
    [mx, y0],
    [mx, y1],
  ];
}

const Frame = styled.svg`
  width: 100%; display: block; background: var(--sheet); border-radius: 6px; border: 1px solid var(--rule);
  path, rect, circle { stroke: var(--ink); stroke-width: 0.3; }
  .foot { fill: var(--clay); } .foot[data-lit] { stroke: var(--blue); stroke-width: 0.9; }
  .deck { fill: var(--clay-lit); } .deck[data-lit] { stroke: var(--blue); stroke-width: 0.7; }
  g { cursor: pointer; }
  .hole, .slot { circle, rect { fill: var(--paper); } }
  .peg, .rib, .height { circle, rect { fill: var(--clay); stroke-width: 0.6; } }
  g[data-read] { circle, rect { fill: var(--blue-3); } }
  g[data-lit] { circle, rect { stroke: var(--blue); stroke-width: 1; } text { fill: var(--blue); } }
  text { font: 600 3.2px ${FONTS.label}; fill: var(--ink); }
  .front { font-weight: 500; fill: var(--soft); }
  .jaws { pointer-events: none; line { stroke: var(--blue); stroke-width: 0.5; } circle { fill: var(--blue); stroke: none; } }
`;
