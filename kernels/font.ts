import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import opentype, { type Font } from 'opentype.js';

const FONT = fileURLToPath(import.meta.resolve('dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf'));

/** The font of raised and sunk words. */
export function readFont(): Font {
  const bytes = readFileSync(FONT);
  return opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
}
