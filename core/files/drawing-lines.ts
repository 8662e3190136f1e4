import type { DrawDimension, Drawing, DrawPoint, DrawShape } from '../shape/drawing/drawing';

/** A drawing as plain lines and texts, mm, y up: its files are written from this. */
export interface SheetLine {
  layer: Layer;
  points: readonly DrawPoint[];
  closed: boolean;
}
export interface SheetWords {
  text: string;
  /** Centre of the text. */
  at: DrawPoint;
}
export type Layer = 'CUT' | 'EDGE' | 'MATE' | 'CENTRE' | 'GHOST' | 'DIMENSION';

const LAYER: Record<DrawShape['ink'], Layer> = {
  cut: 'CUT',
  edge: 'EDGE',
  mate: 'MATE',
  centre: 'CENTRE',
  ghost: 'GHOST',
};
/** Height of the text on the sheet, mm. */
export const TEXT_HEIGHT = 2.5;
/** The short strokes at the ends of a dimension are this long, mm. */
const TICK = 1.6;

/** @param valueFor the value to add after a dimension's label, with its unit; empty where it has none */
export function sheetOfDrawing(
  drawing: Drawing,
  valueFor: (d: DrawDimension) => string | null,
): { lines: SheetLine[]; words: SheetWords[]; frame: Drawing['frame'] } {
  const lines: SheetLine[] = drawing.shapes.map(s => ({
    layer: LAYER[s.ink],
    points: s.points,
    closed: s.closed ?? false,
  }));
  const words: SheetWords[] = [];
  const line = (...points: DrawPoint[]) => lines.push({ layer: 'DIMENSION', points, closed: false });
  for (const d of drawing.dimensions) {
    const [a, b] = endsOf(d);
    line(d.from, a);
    line(d.to, b);
    line(a, b);
    for (const [x, y] of [a, b]) line([x - TICK / 2, y - TICK / 2], [x + TICK / 2, y + TICK / 2]);
    const value = valueFor(d);
    const text = `${d.diameter ? 'Ø ' : ''}${d.label}${value === null ? '' : ` ${value}`}`;
    words.push({ text, at: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2 + 0.7 * TEXT_HEIGHT] });
  }
  return { lines, words, frame: drawing.frame };
}

function endsOf(d: DrawDimension): [DrawPoint, DrawPoint] {
  if (d.direction === 'across')
    return [
      [d.from[0], d.line],
      [d.to[0], d.line],
    ];
  if (d.direction === 'up')
    return [
      [d.line, d.from[1]],
      [d.line, d.to[1]],
    ];
  return [d.from, d.to];
}
