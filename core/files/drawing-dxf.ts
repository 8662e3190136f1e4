import type { DrawDimension, Drawing } from '../shape/drawing/drawing';
import { type Layer, type SheetLine, sheetOfDrawing, TEXT_HEIGHT } from './drawing-lines';

/** Colour index of each layer, as any reader shows them. */
const COLOUR: Record<Layer, number> = { CUT: 7, EDGE: 7, MATE: 5, CENTRE: 8, GHOST: 8, DIMENSION: 3 };

/**
 * The drawing as DXF R12 (AC1009), ASCII, millimetres: polylines, lines and texts on named layers. R12 is what
 * every cutter and drawing program reads. Letters beyond ASCII are written as \U+XXXX.
 */
export function writeDrawingDxf(drawing: Drawing, valueFor: (d: DrawDimension) => string | null): string {
  const { lines, words } = sheetOfDrawing(drawing, valueFor);
  const layers = Object.entries(COLOUR).flatMap(([name, colour]) => [
    ...[0, 'LAYER', 2, name, 70, 0, 62, colour, 6, 'CONTINUOUS'],
  ]);
  const texts = words.flatMap(({ text, at: [x, y] }) => [
    ...[0, 'TEXT', 8, 'DIMENSION', 10, n(x), 20, n(y), 30, '0.0', 40, TEXT_HEIGHT, 1, plain(text)],
    // Centred: the second point is the one that counts.
    ...[72, 1, 11, n(x), 21, n(y), 31, '0.0'],
  ]);
  const content = [
    ...[0, 'SECTION', 2, 'HEADER', 9, '$ACADVER', 1, 'AC1009', 9, '$INSUNITS', 70, 4, 0, 'ENDSEC'],
    ...[0, 'SECTION', 2, 'TABLES', 0, 'TABLE', 2, 'LAYER', 70, Object.keys(COLOUR).length],
    ...layers,
    ...[0, 'ENDTAB', 0, 'ENDSEC', 0, 'SECTION', 2, 'ENTITIES'],
    ...lines.flatMap(entity),
    ...texts,
    ...[0, 'ENDSEC', 0, 'EOF'],
  ];
  return `${content.join('\n')}\n`;
}

const n = (v: number) => v.toFixed(4);

function entity({ layer, points, closed }: SheetLine): (string | number)[] {
  if (points.length === 2 && !closed) {
    const [a, b] = points as [readonly [number, number], readonly [number, number]];
    return [
      ...[0, 'LINE', 8, layer, 10, n(a[0]), 20, n(a[1]), 30, '0.0'],
      ...[11, n(b[0]), 21, n(b[1]), 31, '0.0'],
    ];
  }
  return [
    ...[0, 'POLYLINE', 8, layer, 66, 1, 10, '0.0', 20, '0.0', 30, '0.0', 70, closed ? 1 : 0],
    ...points.flatMap(([x, y]) => [0, 'VERTEX', 8, layer, 10, n(x), 20, n(y), 30, '0.0']),
    ...[0, 'SEQEND', 8, layer],
  ];
}

const plain = (text: string) =>
  text.replace(/[^\x20-\x7e]/g, c => `\\U+${c.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`);
