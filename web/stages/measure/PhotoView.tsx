import { useState } from 'react';
import styled from 'styled-components';
import type { Mark, Photo } from '../../../core/job/document';
import { useBench } from '../../job/bench-context';
import { FONTS } from '../../ui/theme';

export interface ShownMark {
  key: string;
  words: string;
  mark: Mark;
}

interface Props {
  photo: Photo;
  marks: readonly ShownMark[];
  lit: string | null;
  onPick(key: string): void;
  /** While a place is being marked: both ends, as shares of the photo. */
  onPlace: ((from: [number, number], to: [number, number]) => void) | null;
  height: number;
}

/** A photo of the object with its marked dimensions. */
export function PhotoView({ photo, marks, lit, onPick, onPlace, height }: Props) {
  const { job } = useBench('job');
  const [first, setFirst] = useState<[number, number] | null>(null);
  const [broken, setBroken] = useState(false);
  const width = photo.width * (height / photo.height);
  const point = (event: React.PointerEvent<SVGSVGElement>): [number, number] => {
    const box = event.currentTarget.getBoundingClientRect();
    return [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
  };
  if (broken)
    return <Gone style={{ height }}>This photo is not on this machine: it did not come with the job.</Gone>;
  return (
    <Frame style={{ height }}>
      <Box style={{ aspectRatio: `${photo.width} / ${photo.height}`, width: `min(100%, ${width}px)` }}>
        <img
          src={`/api/jobs/${job.id}/photos/${photo.id}`}
          alt={photo.label}
          onError={() => setBroken(true)}
        />
        <svg
          viewBox={`0 0 ${photo.width} ${photo.height}`}
          data-placing={onPlace ? '' : undefined}
          aria-label={`Marks on ${photo.label}`}
          role="img"
          onPointerDown={event => {
            if (!onPlace) return;
            const here = point(event);
            if (first) {
              onPlace(first, here);
              setFirst(null);
            } else setFirst(here);
          }}
        >
          {marks.map(m => (
            <MarkLine
              key={m.key}
              shown={m}
              photo={photo}
              lit={m.key === lit}
              onPick={onPlace ? undefined : onPick}
            />
          ))}
          {first ? (
            <circle
              cx={first[0] * photo.width}
              cy={first[1] * photo.height}
              r={photo.height / 70}
              className="end"
            />
          ) : null}
        </svg>
      </Box>
    </Frame>
  );
}

interface LineProps {
  shown: ShownMark;
  photo: Photo;
  lit: boolean;
  onPick?: (key: string) => void;
}

function MarkLine({ shown, photo, lit, onPick }: LineProps) {
  const [a, b] = [shown.mark.from, shown.mark.to].map(
    ([x, y]) => [x * photo.width, y * photo.height] as const,
  ) as [readonly [number, number], readonly [number, number]];
  // Sizes are in the photo's own pixels: scaled so that they look the same on every photo.
  const text = photo.height / 22;
  const half = (shown.words.length * text * 0.48 + text) / 2;
  const middle = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] as const;
  const x = Math.min(Math.max(middle[0], half), photo.width - half);
  const y = Math.max(middle[1] - text, text);
  return (
    // The list of dimensions is the keyboard's way; this is for the pointer.
    // biome-ignore lint/a11y/noStaticElementInteractions: see above
    <g
      data-lit={lit ? '' : undefined}
      onClick={onPick && (() => onPick(shown.key))}
      style={onPick && { cursor: 'pointer' }}
    >
      <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} strokeWidth={text / 6} />
      {[a, b].map(([cx, cy], i) => (
        <circle key={i} cx={cx} cy={cy} r={text / 4} />
      ))}
      <rect x={x - half} y={y - text * 0.85} width={2 * half} height={text * 1.25} rx={text / 6} />
      <text x={x} y={y + text * 0.1} textAnchor="middle" fontSize={text}>
        {shown.words}
      </text>
    </g>
  );
}

const Frame = styled.div`display: flex; align-items: center; justify-content: center; background: var(--grid); overflow: hidden;`;
const Gone = styled.p`display: flex; align-items: center; justify-content: center; color: var(--soft); padding: 20px; text-align: center;`;
const Box = styled.div`
  position: relative; max-height: 100%;
  img { width: 100%; height: 100%; display: block; object-fit: contain; }
  svg { position: absolute; inset: 0; width: 100%; height: 100%; touch-action: manipulation; }
  svg[data-placing] { cursor: crosshair; }
  line { stroke: var(--blue); } circle { fill: var(--blue); }
  rect { fill: var(--sheet); opacity: 0.92; }
  text { font-family: ${FONTS.label}; font-weight: 500; fill: var(--ink); }
  g[data-lit] line { stroke: var(--loose); } g[data-lit] circle { fill: var(--loose); } g[data-lit] text { font-weight: 600; }
  .end { fill: var(--loose); }
`;
