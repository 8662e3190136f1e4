import type { Font, PathCommand } from 'opentype.js';

/** Closed outlines in (x, y), y up, mm; holes run the other way round, as in a font. */
export type TextOutlines = [number, number][][];

/** How far a flat may be from a letter's curve, mm: less than a nozzle can show. */
const STEPS = 6;

/**
 * Letters as outlines, with capitals `height` tall and the middle of the text at (0, 0).
 * Glyph by glyph: the whole-text call of opentype.js 2 throws on some fonts.
 * @throws RangeError for a character the font does not have
 */
export function textOutlines(words: string, height: number, font: Font): TextOutlines {
  // The height of an H is the height of all capitals and figures.
  const capital = Math.max(...pointsOf(font.charToGlyph('H').getPath(0, 0, 100).commands).map(p => -p[1]));
  const size = (100 * height) / capital;
  const loops: TextOutlines = [];
  let x = 0;
  for (const character of words) {
    const glyph = font.charToGlyph(character);
    if ((glyph as { index?: number }).index === 0)
      throw new RangeError(`The font has no “${character}”: take another character.`);
    loops.push(...loopsOf(glyph.getPath(x, 0, size).commands));
    x += ((glyph.advanceWidth ?? 0) * size) / font.unitsPerEm;
  }
  return loops.map(loop => loop.map(([px, py]) => [px - x / 2, -py - height / 2]));
}

const pointsOf = (commands: PathCommand[]) =>
  commands.flatMap(c => (c.type === 'Z' ? [] : [[c.x, c.y] as [number, number]]));

function loopsOf(commands: PathCommand[]): TextOutlines {
  const loops: TextOutlines = [];
  let loop: [number, number][] = [];
  for (const c of commands) {
    const [x0, y0] = loop.at(-1) ?? [0, 0];
    if (c.type === 'M') {
      loop = [[c.x, c.y]];
      loops.push(loop);
    } else if (c.type === 'L') loop.push([c.x, c.y]);
    else if (c.type === 'Q')
      curve(loop, t => [
        (1 - t) ** 2 * x0 + 2 * t * (1 - t) * c.x1 + t * t * c.x,
        (1 - t) ** 2 * y0 + 2 * t * (1 - t) * c.y1 + t * t * c.y,
      ]);
    else if (c.type === 'C')
      curve(loop, t => {
        const [a, b, d, e] = [(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t ** 3];
        return [a * x0 + b * c.x1 + d * c.x2 + e * c.x, a * y0 + b * c.y1 + d * c.y2 + e * c.y];
      });
  }
  return loops.filter(l => l.length > 2);
}

function curve(loop: [number, number][], at: (t: number) => [number, number]): void {
  for (let i = 1; i <= STEPS; i++) loop.push(at(i / STEPS));
}
