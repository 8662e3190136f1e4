import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import ManifoldInit from 'manifold-3d';
import opentype from 'opentype.js';
import { pieceSolid } from '../../core/calibration/piece-solid';
import { writeStl } from '../../core/files/stl';
import { writeThreeMf } from '../../core/files/three-mf';

export interface PieceFiles {
  stl: Uint8Array;
  '3mf': Uint8Array;
}

const NAME = 'Calibration piece';
const FONT = fileURLToPath(import.meta.resolve('dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf'));

/** The calibration piece as files; it is drawn true to size for every printer. */
export async function buildPiece(): Promise<PieceFiles> {
  const wasm = await ManifoldInit();
  wasm.setup();
  const bytes = await readFile(FONT);
  const font = opentype.parse(new Uint8Array(bytes).buffer);
  const mesh = pieceSolid(wasm, font);
  return {
    stl: writeStl(mesh, NAME),
    '3mf': writeThreeMf(NAME, 'As drawn, compensated for no printer: print it, then read it.', [
      { name: NAME, mesh },
    ]),
  };
}
