import { useRef, useState } from 'react';
import styled from 'styled-components';
import type { Point2 } from '../../core/shape/vector';
import { FONTS } from '../ui/theme';
import type { ShownLaid, ShownPiece, ShownTrace } from '../workers/trace-protocol';
import { LaidOver } from './LaidOver';
import { pointsOf } from './points';

/** The meaning of a press on the picture. */
export type Pressing = 'pick' | 'point' | 'object' | 'not-object' | 'corner' | 'end' | 'cut';

interface Props {
  src: string;
  label: string;
  size: { width: number; height: number };
  trace: ShownTrace | null;
  /** A part over it. */
  laid: ShownLaid | null;
  lit: ReadonlySet<string>;
  pressing: Pressing;
  /** Strokes wide, px of the picture. */
  brush: number;
  corners: readonly Point2[];
  /** The ends and corners that give the scale. */
  lengths: readonly { from: Point2; to: Point2 }[];
  onPick(piece: ShownPiece): void;
  onPoint(at: Point2): void;
  onStroke(at: Point2[]): void;
}

/** The visible part of the picture. */
const VIEWS = { object: 'the object', whole: 'the whole photo' } as const;
type View = keyof typeof VIEWS;
/** Margin around the object, as a share of it; and never less than this many px. */
const [AROUND, NEAREST] = [0.12, 120];
/** Width over height of the view of the object. */
const SHAPE = 1.25;

/** The picture with what was found on it. */
export function TraceView(props: Props) {
  const { src, label, size, trace, laid, lit, pressing, brush, corners, lengths, onPick, onPoint, onStroke } =
    props;
  const [asked, setAsked] = useState<View>('object');
  const [stroke, setStroke] = useState<Point2[]>([]);
  const drawing = useRef(false);
  const object = trace && boundsOf(trace, size);
  const view: View = object ? asked : 'whole';
  const box = view === 'object' && object ? object : { x: -0.5, y: -0.5, ...size };
  const draws = pressing === 'object' || pressing === 'not-object';
  const placeOf = (event: React.PointerEvent<SVGSVGElement>): Point2 => {
    const at = event.currentTarget.getBoundingClientRect();
    return [
      box.x + ((event.clientX - at.left) / at.width) * box.width,
      box.y + ((event.clientY - at.top) / at.height) * box.height,
    ];
  };
  // Lines have the same width on every picture, whatever its pixels.
  const thick = box.width / 420;
  return (
    <Frame>
      {object ? (
        <Zoom role="group" aria-label="What of the photo is shown">
          {(Object.keys(VIEWS) as View[]).map(v => (
            <button key={v} type="button" aria-pressed={view === v} onClick={() => setAsked(v)}>
              {VIEWS[v]}
            </button>
          ))}
        </Zoom>
      ) : null}
      <Box>
        <svg
          viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
          role="img"
          aria-label={`What was traced on ${label}`}
          data-pressing={pressing}
          onPointerDown={event => {
            if (pressing === 'pick') return;
            const at = placeOf(event);
            if (!draws) return onPoint(at);
            event.currentTarget.setPointerCapture(event.pointerId);
            drawing.current = true;
            setStroke([at]);
          }}
          onPointerMove={event => {
            if (!drawing.current) return;
            // Read from the event now: later it no longer has the position.
            const at = placeOf(event);
            setStroke(s => (s.length < 400 ? [...s, at] : s));
          }}
          onPointerUp={() => {
            if (!drawing.current) return;
            drawing.current = false;
            if (stroke.length > 0) onStroke(stroke);
            setStroke([]);
          }}
        >
          <image href={src} x={-0.5} y={-0.5} width={size.width} height={size.height} />
          {trace?.pieces.map(p => (
            // The list beside is the keyboard's way; this is for the pointer.
            // biome-ignore lint/a11y/noStaticElementInteractions: see above
            <g
              key={p.key}
              data-lit={lit.has(p.key) ? '' : undefined}
              onClick={pressing === 'pick' ? () => onPick(p) : undefined}
            >
              <polyline points={pointsOf(p.line)} className="reach" strokeWidth={thick * 9} />
              <polyline points={pointsOf(p.line)} strokeWidth={thick * (lit.has(p.key) ? 2.6 : 1.3)} />
            </g>
          ))}
          {laid ? <LaidOver laid={laid} thick={thick} /> : null}
          {trace?.unseen.map(({ at: [x, y], diameter }) => (
            <g key={`${x} ${y}`} className="unseen">
              <circle cx={x} cy={y} r={thick * 9} strokeWidth={thick * 1.6} />
              <text x={x} y={y + thick * 5} textAnchor="middle" fontSize={thick * 14}>
                ?
              </text>
              <title>
                {diameter > 0
                  ? 'A hole that is deeper than wide: read it with calipers.'
                  : 'Something lighter that is not clearly a hole.'}
              </title>
            </g>
          ))}
          {lengths.map(({ from, to }, i) => (
            <line
              key={i}
              x1={from[0]}
              y1={from[1]}
              x2={to[0]}
              y2={to[1]}
              className="length"
              strokeWidth={thick * 1.6}
            />
          ))}
          {corners.map(([x, y], i) => (
            <circle key={i} cx={x} cy={y} r={thick * 5} className="corner" />
          ))}
          {stroke.length > 0 ? (
            <polyline
              points={stroke.map(p => p.join(',')).join(' ')}
              className={pressing}
              strokeWidth={brush}
              strokeLinecap="round"
              strokeLinejoin="round"
            />
          ) : null}
        </svg>
      </Box>
    </Frame>
  );
}

/** The object with a margin, in a box of fixed proportions. */
function boundsOf({ pieces }: ShownTrace, size: Props['size']) {
  const [low, high] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ];
  for (const { line } of pieces)
    for (let i = 0; i < line.length; i++) {
      low[i % 2] = Math.min(low[i % 2]!, line[i]!);
      high[i % 2] = Math.max(high[i % 2]!, line[i]!);
    }
  const grown = (1 + 2 * AROUND) * Math.max(high[0]! - low[0]!, SHAPE * (high[1]! - low[1]!), NEAREST);
  const width = Math.min(grown, size.width);
  const height = width / SHAPE;
  return { x: (low[0]! + high[0]! - width) / 2, y: (low[1]! + high[1]! - height) / 2, width, height };
}

const Frame = styled.div`position: relative; background: var(--grid); border-radius: 4px; overflow: hidden;`;
const Box = styled.div`
  svg { display: block; width: 100%; max-height: 620px; touch-action: pan-x pan-y; user-select: none; }
  svg[data-pressing='object'], svg[data-pressing='not-object'] { touch-action: none; }
  svg:not([data-pressing='pick']) { cursor: crosshair; }
  polyline { fill: none; stroke: var(--blue); }
  g polyline.reach { stroke: transparent; cursor: pointer; pointer-events: stroke; }
  g[data-lit] polyline:not(.reach) { stroke: var(--loose); }
  polyline.object { stroke: var(--blue); opacity: 0.5; } polyline.not-object { stroke: var(--sheet); opacity: 0.7; }
  .unseen circle { fill: var(--sheet); stroke: var(--loose); } .unseen text { fill: var(--ink); font-family: ${FONTS.label}; font-weight: 600; }
  .corner { fill: var(--loose); } .length { stroke: var(--loose); stroke-dasharray: 1.5% 0.8%; pointer-events: none; }
`;
const Zoom = styled.div`
  position: absolute; right: 10px; top: 8px; z-index: 1; display: flex; border-radius: 4px; overflow: hidden; border: 1px solid var(--rule);
  button { border: 0; background: var(--sheet); color: var(--soft); font: 500 13.5px ${FONTS.label}; padding: 4px 9px; cursor: pointer; }
  button[aria-pressed='true'] { background: var(--tint); color: var(--blue); }
`;
