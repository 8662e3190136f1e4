import { type PointerEvent, useLayoutEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { boxOf, flattenedPoints } from '../../../../core/shape/curve';
import {
  canMove,
  edgeLines,
  type Grip,
  movedGrip,
  outOfEdge,
  snapped,
  type Written,
} from '../../../../core/shape/outline-edit';
import {
  mapCorner,
  OutlineTextError,
  outlineOfText,
  writeCorners,
} from '../../../../core/shape/outline-text';
import type { Point2 } from '../../../../core/shape/vector';
import { amountOf } from '../../../../core/work/written';
import { useBench } from '../../../job/bench-context';
import { FONTS } from '../../../ui/theme';
import { GripCard } from './GripCard';

const HEIGHT = 300;
const MARGIN = 26;
/** Height of the card with its numbers, pixels. */
const CARD = { corner: 146, via: 108, edge: 214 };
/** The step of a drag, mm, with Shift a tenth of a millimetre; it snaps to another corner within this many pixels. */
const STEP = { usual: 0.5, fine: 0.1 };
const IN_LINE_PX = 6;

interface Props {
  label: string;
  corners: readonly Written[];
  /** While it is dragged. */
  onDraft(text: string): void;
  onKeep(text: string): void;
}

/** An outline on paper: corners, arcs and edges are dragged, or moved by a number typed next to them. */
export function OutlineDrawing({ label, corners, onDraft, onKeep }: Props) {
  const { resolved } = useBench('resolved');
  const frame = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(520);
  useLayoutEffect(() => {
    const watch = new ResizeObserver(([entry]) => setWidth(Math.max(240, entry!.contentRect.width)));
    if (frame.current) watch.observe(frame.current);
    return () => watch.disconnect();
  }, []);
  const [chosen, setChosen] = useState<Grip | null>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  // Until a size is read, its example is drawn.
  const named = (name: string) => resolved.numberNamed(name) ?? resolved.recipe.demo.sizes[name];
  const read = (text: string) => {
    const value = amountOf({ text, unit: 'mm' }, 'length', named);
    return typeof value === 'number' ? value : Number.NaN;
  };
  const shown = drag ? drag.now : corners;
  const numbers = shown.map(c => mapCorner(c, read));
  const points = numbers.map((c): Point2 => [c.x, c.y]);
  const sound = numbers.every(c => [c.x, c.y, ...(c.via ?? [])].every(Number.isFinite));
  if (!sound || corners.length < 2)
    return <Unreadable>It is drawn once each corner has two numbers that can be read.</Unreadable>;
  const size = boxAround(points);
  // A bend is drawn finely enough to look round.
  const fine = Math.max(size[2] - size[0], size[3] - size[1]) / 3000;
  const lines = edgeLines(numbers, fine);
  const finished = finishedOf(numbers, fine);
  // While something is dragged the paper does not move.
  const box = drag?.box ?? boxAround([...lines.flatMap(l => l.points), ...finished]);
  const scale = Math.min((width - 2 * MARGIN) / (box[2] - box[0]), (HEIGHT - 2 * MARGIN) / (box[3] - box[1]));
  const at = ([x, y]: Point2): [number, number] => [
    width / 2 + (x - (box[0] + box[2]) / 2) * scale,
    HEIGHT / 2 - (y - (box[1] + box[3]) / 2) * scale,
  ];
  const path = (list: readonly Point2[], closed: boolean) =>
    `M${list
      .map(p =>
        at(p)
          .map(v => v.toFixed(1))
          .join(' '),
      )
      .join('L')}${closed ? 'Z' : ''}`;
  const start = (grip: Grip) => (event: PointerEvent<SVGElement>) => {
    event.stopPropagation();
    setChosen(grip);
    if (!canMove(corners, grip)) return;
    event.currentTarget.ownerSVGElement?.setPointerCapture(event.pointerId);
    setDrag({ grip, began: [event.clientX, event.clientY], box, now: corners, moved: false, lines: {} });
  };
  const follow = (event: PointerEvent<SVGSVGElement>) => {
    if (!drag) return;
    const pulled: Point2 = [
      (event.clientX - drag.began[0]) / scale,
      -(event.clientY - drag.began[1]) / scale,
    ];
    const step = event.shiftKey ? STEP.fine : STEP.usual;
    const from = corners.map(c => mapCorner(c, read));
    const { by, lines: inLine } = pulledBy(drag.grip, from, pulled, step, IN_LINE_PX / scale);
    const moved = drag.moved || Math.hypot(...by) > 0;
    const now = movedGrip(corners, drag.grip, by);
    setDrag({ ...drag, now, moved, lines: inLine });
    if (moved) onDraft(writeCorners(now));
  };
  const drop = () => {
    if (drag?.moved) onKeep(writeCorners(drag.now));
    setDrag(null);
  };
  const isChosen = (grip: Grip) => chosen?.of === grip.of && chosen.at === grip.at;
  const nudge = (grip: Grip) => (event: React.KeyboardEvent) => {
    const way = ARROWS[event.key];
    if (!way || !canMove(corners, grip)) return;
    event.preventDefault();
    const by = event.shiftKey ? STEP.fine : STEP.usual;
    onKeep(writeCorners(movedGrip(corners, grip, [way[0] * by, way[1] * by])));
  };
  const handle = (grip: Grip, words: string) => ({
    role: 'button',
    tabIndex: 0,
    'aria-label': words,
    'data-on': isChosen(grip) ? '' : undefined,
    'data-fixed': canMove(corners, grip) ? undefined : '',
    onPointerDown: start(grip),
    onFocus: () => setChosen(grip),
    onKeyDown: nudge(grip),
  });
  const held = chosen && chosen.at < numbers.length ? chosen : null;
  const heldAt = held && placeOf(held, numbers, lines);
  return (
    <Frame ref={frame} data-testid="outline-drawing">
      <svg
        width={width}
        height={HEIGHT}
        aria-label={`${label}, drawn`}
        onPointerDown={() => setChosen(null)}
        onPointerMove={follow}
        onPointerUp={drop}
        onPointerCancel={() => setDrag(null)}
      >
        <title>{label}</title>
        {finished.length > 0 ? <path d={path(finished, true)} className="part" /> : null}
        {drag?.lines.x !== undefined ? (
          <line
            x1={at([drag.lines.x, 0])[0]}
            x2={at([drag.lines.x, 0])[0]}
            y1={0}
            y2={HEIGHT}
            className="guide"
          />
        ) : null}
        {drag?.lines.y !== undefined ? (
          <line
            y1={at([0, drag.lines.y])[1]}
            y2={at([0, drag.lines.y])[1]}
            x1={0}
            x2={width}
            className="guide"
          />
        ) : null}
        {lines.map((line, i) => (
          <g key={i} className="hold" {...handle({ of: 'edge', at: i }, `Edge to corner ${i + 1}`)}>
            <path d={path(line.points, false)} className="wide" />
            <path d={path(line.points, false)} className="edge" />
          </g>
        ))}
        {numbers.map((c, i) =>
          c.via ? (
            <rect
              key={i}
              className="hold via"
              width={11}
              height={11}
              {...square(at(c.via))}
              {...handle({ of: 'via', at: i }, `Arc’s point before corner ${i + 1}`)}
            />
          ) : null,
        )}
        {points.map((p, i) => (
          <g key={i} className="hold corner" {...handle({ of: 'corner', at: i }, `Corner ${i + 1}`)}>
            <circle cx={at(p)[0]} cy={at(p)[1]} r={13} className="wide" />
            <circle cx={at(p)[0]} cy={at(p)[1]} r={5.5} />
            <text x={at(p)[0] + 9} y={at(p)[1] - 8}>
              {i + 1}
            </text>
          </g>
        ))}
        {drag?.moved && heldAt ? (
          <text
            className="says"
            x={Math.min(width - 120, at(heldAt)[0] + 14)}
            y={Math.max(16, at(heldAt)[1] + 20)}
          >
            {heldAt.map(v => v.toFixed(2)).join(', ')}
          </text>
        ) : null}
      </svg>
      {held && heldAt && !drag ? (
        <GripCard
          key={`${held.of}${held.at}`}
          grip={held}
          corners={corners}
          points={points}
          left={Math.max(6, Math.min(width - 236, at(heldAt)[0] + 16))}
          top={Math.max(6, Math.min(HEIGHT - CARD[held.of], at(heldAt)[1] - 40))}
          onKeep={next => onKeep(writeCorners(next))}
          onClose={() => setChosen(null)}
        />
      ) : null}
    </Frame>
  );
}

interface Drag {
  grip: Grip;
  /** Where the pointer was pressed, pixels. */
  began: readonly [number, number];
  box: readonly [number, number, number, number];
  now: readonly Written[];
  moved: boolean;
  lines: { x?: number; y?: number };
}

const ARROWS: Readonly<Record<string, Point2>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

type Numbers = readonly ReturnType<typeof mapCorner<string, number>>[];

/** An edge goes straight out or in; a point goes to the step, or in line with another one. */
function pulledBy(grip: Grip, from: Numbers, pulled: Point2, step: number, near: number) {
  const points = from.map((c): Point2 => [c.x, c.y]);
  if (grip.of === 'edge') {
    const [x, y] = outOfEdge(points, grip.at);
    const out = Math.round((pulled[0] * x + pulled[1] * y) / step) * step;
    return { by: [out * x, out * y] as const, lines: {} };
  }
  const held = grip.of === 'via' ? from[grip.at]!.via! : points[grip.at]!;
  const others = points.filter((_, i) => grip.of === 'via' || i !== grip.at);
  return snapped(held, pulled, others, { near, step });
}

const placeOf = (grip: Grip, numbers: Numbers, lines: ReturnType<typeof edgeLines>): Point2 => {
  const c = numbers[grip.at]!;
  if (grip.of === 'edge') return lines[grip.at]!.middle;
  return grip.of === 'via' && c.via ? c.via : [c.x, c.y];
};

/** With corners taken off and edges trimmed; nothing where that is impossible. */
function finishedOf(numbers: Numbers, sagitta: number): Point2[] {
  try {
    return flattenedPoints(outlineOfText(writeCorners(numbers)), sagitta);
  } catch (error) {
    if (error instanceof OutlineTextError) return [];
    throw error;
  }
}

function boxAround(points: readonly Point2[]): [number, number, number, number] {
  const [first, ...rest] = points;
  const [x0, y0, x1, y1] = boxOf({ start: first!, edges: rest.map(to => ({ to })) });
  return [x0, y0, Math.max(x1, x0 + 1), Math.max(y1, y0 + 1)];
}

const square = ([x, y]: readonly [number, number]) => ({
  x: x - 5.5,
  y: y - 5.5,
  transform: `rotate(45 ${x} ${y})`,
});

const Unreadable = styled.p`color: var(--soft); font-size: 14px;`;
const Frame = styled.div`
  position: relative; border: 1px solid var(--rule); border-radius: 6px; background: var(--sheet); overflow: hidden; touch-action: none;
  svg { display: block; } title { display: none; }
  .part { fill: var(--tint); stroke: var(--blue-2); stroke-width: 1; }
  .edge { fill: none; stroke: var(--ink); stroke-width: 1.5; }
  .wide { fill: transparent; stroke: transparent; stroke-width: 14; pointer-events: all; }
  path.wide { fill: none; pointer-events: stroke; }
  .hold { cursor: grab; outline: none; }
  .hold[data-fixed] { cursor: default; }
  .corner circle:not(.wide) { fill: var(--raised); stroke: var(--ink); stroke-width: 1.6; }
  .corner[data-fixed] circle:not(.wide) { fill: var(--rule); }
  .via { fill: var(--raised); stroke: var(--ink); stroke-width: 1.6; }
  .hold[data-on] .edge, .hold:focus-visible .edge { stroke: var(--blue); stroke-width: 3; }
  .hold[data-on] circle:not(.wide), .via[data-on] { fill: var(--blue); stroke: var(--blue); }
  .hold:focus-visible circle:not(.wide), .via:focus-visible { stroke: var(--blue); stroke-width: 3; }
  text { font: 12px ${FONTS.number}; fill: var(--soft); user-select: none; } .says { fill: var(--blue); font-size: 13.5px; }
  .guide { stroke: var(--blue); stroke-width: 1; stroke-dasharray: 4 4; }
`;
