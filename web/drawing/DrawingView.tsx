import { useLayoutEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import {
  AS_DRAWN,
  type DrawDimension,
  type Drawing,
  type DrawPoint,
  type DrawShape,
} from '../../core/shape/drawing/drawing';
import { FONTS } from '../ui/theme';

interface Props {
  drawing: Drawing;
  /** The value after a dimension's label; without one a question mark is shown. */
  valueFor(dimension: DrawDimension): string | null;
  lit: string | null;
  onPick?(key: string): void;
  height: number;
  caption?: string;
  /** While a place is being marked: both ends, mm. */
  onPlace?: ((from: [number, number], to: [number, number]) => void) | null;
}

const TEXT = 13.5;
/** The label font is narrow: about half its height per letter, plus a little space. */
const labelWidth = (words: string) => words.length * TEXT * 0.47 + 10;

/** One renderer for all drawings: lines in mm, labels in constant pixels. */
export function DrawingView({ drawing, valueFor, lit, onPick, height, caption, onPlace }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(460);
  useLayoutEffect(() => {
    const element = box.current;
    if (!element) return;
    const watch = new ResizeObserver(([entry]) => setWidth(Math.max(160, entry!.contentRect.width)));
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  const [minX, minY, maxX, maxY] = drawing.frame;
  const wordsOf = (d: DrawDimension) => `${d.diameter ? '⌀ ' : ''}${d.label} ${valueFor(d) ?? '?'}`;
  const padY = caption ? 30 : 14;
  const scaleFor = (left: number, right: number) =>
    Math.max(0.2, Math.min((width - left - right) / (maxX - minX), (height - 2 * padY) / (maxY - minY)));
  // Labels of upright dimensions are beside their lines: they get room outside the drawing where necessary.
  const room = (side: -1 | 1, scale: number) =>
    drawing.dimensions
      .filter(d => d.direction === 'up' && (d.line < 0 ? -1 : 1) === side)
      .reduce(
        (most, d) =>
          Math.max(most, labelWidth(wordsOf(d)) + 12 - scale * (side < 0 ? d.line - minX : maxX - d.line)),
        16,
      );
  const rough = scaleFor(16, 16);
  const pad = { left: room(-1, rough), right: room(1, rough) };
  const scale = scaleFor(pad.left, pad.right);
  const at = ([x, y]: DrawPoint): [number, number] => [
    (width + pad.left - pad.right) / 2 + (x - (minX + maxX) / 2) * scale,
    (height - (caption ? 18 : 0)) / 2 - (y - (minY + maxY) / 2) * scale,
  ];
  const [first, setFirst] = useState<[number, number] | null>(null);
  const place = (event: React.PointerEvent<SVGSVGElement>) => {
    if (!onPlace) return;
    const box = event.currentTarget.getBoundingClientRect();
    const [ox, oy] = at([0, 0]);
    const here: [number, number] = [
      (event.clientX - box.left - ox) / scale,
      (oy - event.clientY + box.top) / scale,
    ];
    if (first) onPlace(first, here);
    setFirst(first ? null : here);
  };
  const path = (shape: DrawShape) =>
    `M${shape.points
      .map(p =>
        at(p)
          .map(v => v.toFixed(1))
          .join(' '),
      )
      .join('L')}${shape.closed ? 'Z' : ''}`;
  return (
    <Frame ref={box}>
      <svg
        width={width}
        height={height}
        role="img"
        aria-label={drawing.title}
        onPointerDown={place}
        style={onPlace ? { cursor: 'crosshair' } : undefined}
      >
        <defs>
          <pattern
            id="hatch"
            width="7"
            height="7"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="7" height="7" fill="var(--clay)" />
            <line x1="0" y1="0" x2="0" y2="7" stroke="var(--strong)" strokeWidth="0.8" />
          </pattern>
        </defs>
        {drawing.shapes.map((shape, i) => (
          <path
            key={i}
            d={path(shape)}
            className={shape.ink}
            data-lit={shape.key !== undefined && shape.key === lit ? '' : undefined}
          />
        ))}
        {drawing.dimensions.map((d, i) => (
          <DimensionLine
            key={i}
            d={d}
            at={at}
            words={wordsOf(d)}
            open={valueFor(d) === null}
            lit={d.key === lit}
            onPick={onPlace ? undefined : onPick}
          />
        ))}
        {first ? <circle cx={at(first)[0]} cy={at(first)[1]} r={4} className="end" /> : null}
        {caption ? (
          <text x={width / 2} y={height - 8} textAnchor="middle" className="caption">
            {caption}
          </text>
        ) : null}
      </svg>
    </Frame>
  );
}

interface LineProps {
  d: DrawDimension;
  at(p: DrawPoint): [number, number];
  words: string;
  /** Not read yet. */
  open: boolean;
  lit: boolean;
  onPick?: (key: string) => void;
}

function DimensionLine({ d, at, words, open, lit, onPick }: LineProps) {
  const across = d.direction === 'across';
  const along = d.direction === 'along';
  const a = at(along ? d.from : across ? [d.from[0], d.line] : [d.line, d.from[1]]);
  const b = at(along ? d.to : across ? [d.to[0], d.line] : [d.line, d.to[1]]);
  const legs = [
    [at(d.from), a],
    [at(d.to), b],
  ] as const;
  const half = labelWidth(words) / 2;
  // An upright dimension's label is beside its line, where it covers nothing.
  const beside = across || along ? 0 : (d.line < 0 ? -1 : 1) * (half + 4);
  const middle: [number, number] = [(a[0] + b[0]) / 2 + beside, (a[1] + b[1]) / 2];
  const pick = onPick && d.key !== AS_DRAWN ? () => onPick(d.key) : undefined;
  return (
    // The list of dimensions beside the drawing is the keyboard's way; this is for the pointer.
    // biome-ignore lint/a11y/noStaticElementInteractions: see above
    <g
      className={`dimension ${open ? 'open' : ''}`}
      data-lit={lit ? '' : undefined}
      onClick={pick}
      style={pick && { cursor: 'pointer' }}
    >
      {legs.map(([from, to], i) => (
        <line key={i} x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} className="leg" />
      ))}
      <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} />
      <circle cx={a[0]} cy={a[1]} r={lit ? 4 : 2.5} />
      <circle cx={b[0]} cy={b[1]} r={lit ? 4 : 2.5} />
      <rect x={middle[0] - half} y={middle[1] - 10} width={2 * half} height={20} rx={3} className="plate" />
      <text x={middle[0]} y={middle[1] + 4.5} textAnchor="middle">
        {words}
      </text>
    </g>
  );
}

const Frame = styled.div`
  width: 100%; background: var(--sheet); border-radius: 6px; overflow: hidden;
  background-image: linear-gradient(var(--grid) 1px, transparent 1px), linear-gradient(90deg, var(--grid) 1px, transparent 1px);
  background-size: 22px 22px;
  svg { display: block; }
  path { fill: none; stroke: var(--ink); stroke-width: 1.4; stroke-linejoin: round; }
  .cut { fill: url(#hatch); }
  .edge { fill: var(--sheet); stroke-width: 1; }
  .mate { stroke: var(--blue-2); stroke-width: 3; fill: none; }
  .mate[data-lit] { stroke: var(--blue); stroke-width: 6; }
  .centre { stroke: var(--soft); stroke-width: 1; stroke-dasharray: 12 3 3 3; }
  .ghost { stroke: var(--soft); stroke-dasharray: 4 3; }
  .dimension line { stroke: var(--soft); stroke-width: 1.2; }
  .dimension .leg { stroke-width: 0.8; opacity: 0.8; }
  .dimension circle { fill: var(--soft); }
  .dimension .plate { fill: var(--sheet); }
  .dimension text { font: 500 ${TEXT}px ${FONTS.label}; fill: var(--ink); }
  .dimension.open text { fill: var(--loose); font-weight: 600; }
  .dimension[data-lit] line { stroke: var(--blue); stroke-width: 2; }
  .dimension[data-lit] .leg { stroke-width: 1.2; }
  .dimension[data-lit] circle { fill: var(--blue); }
  .dimension[data-lit] text { fill: var(--blue); font-weight: 600; }
  .end { fill: var(--loose); }
  .caption { font: 13px ${FONTS.text}; fill: var(--soft); }
`;
