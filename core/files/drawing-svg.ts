import type { DrawDimension, Drawing } from '../shape/drawing/drawing';
import { type Layer, sheetOfDrawing, TEXT_HEIGHT } from './drawing-lines';

const STROKE: Record<Layer, string> = {
  CUT: 'fill="#e6e0d4" stroke="#000" stroke-width="0.5"',
  EDGE: 'fill="none" stroke="#000" stroke-width="0.35"',
  MATE: 'fill="none" stroke="#1f3f66" stroke-width="0.7"',
  CENTRE: 'fill="none" stroke="#555" stroke-width="0.18" stroke-dasharray="4 1 1 1"',
  GHOST: 'fill="none" stroke="#555" stroke-width="0.18" stroke-dasharray="1.5 1"',
  DIMENSION: 'fill="none" stroke="#333" stroke-width="0.18"',
};

/** The drawing as SVG, one unit a millimetre, printed at 1:1. */
export function writeDrawingSvg(
  drawing: Drawing,
  title: string,
  valueFor: (d: DrawDimension) => string | null,
): string {
  const { lines, words, frame } = sheetOfDrawing(drawing, valueFor);
  const [minX, minY, maxX, maxY] = frame;
  const [w, h] = [maxX - minX, maxY - minY];
  const n = (v: number) => Number(v.toFixed(3));
  // SVG's y runs down.
  const at = ([x, y]: readonly [number, number]) => `${n(x - minX)} ${n(maxY - y)}`;
  const paths = lines.map(
    l => `<path ${STROKE[l.layer]} d="M${l.points.map(at).join('L')}${l.closed ? 'Z' : ''}"/>`,
  );
  const texts = words.map(({ text, at: [x, y] }) => {
    const place = `x="${n(x - minX)}" y="${n(maxY - y)}"`;
    return `<text ${place} font-size="${TEXT_HEIGHT * 1.35}" font-family="sans-serif" text-anchor="middle">${escaped(text)}</text>`;
  });
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(w)}mm" height="${n(h)}mm" viewBox="0 0 ${n(w)} ${n(h)}">`,
    `<title>${escaped(title)}</title>`,
    ...paths,
    ...texts,
    '</svg>',
    '',
  ].join('\n');
}

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
