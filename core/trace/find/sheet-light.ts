import { quantile } from 'd3-array';
import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import type { Flattened } from './flattened';

/** The reflected light of the bare sheet at a place, for each colour. */
export type SheetLight = (x: number, y: number, out: Float64Array) => void;

/** Size of the tiles in which the sheet is examined, mm. */
const TILE = 8;
/** Tiles that differ by more than this share of the light are not bare sheet: at first, and in the end. */
const [FIRST, LAST, ROUNDS] = [0.12, 0.02, 12];
/** The brightness of a tile is a quantile: nine in ten pixels are darker, or brighter on a dark sheet. */
const OF_TILE = 0.8;
/** The fewest bare tiles that determine the light. */
const LEAST_TILES = 14;

/**
 * A cubic for each colour through the tiles of bare sheet: darker tiles are left out, step by step.
 * @param middle a dark sheet has lighter objects
 * @returns null where too little of the sheet is bare
 */
export function sheetLight(flat: Flattened, middle: 'white' | 'dark'): SheetLight | null {
  const tiles = tilesOf(flat, middle === 'white' ? OF_TILE : 1 - OF_TILE);
  if (tiles.length < LEAST_TILES) return null;
  const scale = Math.max(...tiles.map(t => Math.max(Math.abs(t.x), Math.abs(t.y)))) || 1;
  // Most of the sheet may be covered: the brightest part is sheet.
  const level = quantile(
    tiles.map(t => t.light[1]!),
    middle === 'white' ? 0.85 : 0.15,
  )!;
  const sign = middle === 'white' ? 1 : -1;
  let bare = tiles.filter(t => sign * (t.light[1]! / level - 1) > -0.45);
  let fit = cubicsOf(bare, scale);
  for (let round = 0; round < ROUNDS && fit; round++) {
    const near = FIRST * (LAST / FIRST) ** (round / (ROUNDS - 1));
    const cubics = fit;
    const kept = tiles.filter(t =>
      t.light.every((l, k) => sign * (l / heightOf(cubics[k]!, t.x / scale, t.y / scale) - 1) > -near),
    );
    if (kept.length < LEAST_TILES) break;
    bare = kept;
    fit = cubicsOf(bare, scale);
  }
  if (!fit || bare.length < LEAST_TILES) return null;
  const cubics = fit;
  return (x, y, out) => {
    for (let k = 0; k < 3; k++) out[k] = Math.max(1e-4, heightOf(cubics[k]!, x / scale, y / scale));
  };
}

interface Tile {
  x: number;
  y: number;
  light: readonly number[];
}

function tilesOf({ from, step, wide, tall, light }: Flattened, of: number): Tile[] {
  const across = Math.round(TILE / step);
  const tiles: Tile[] = [];
  for (let j = 0; j + across <= tall; j += across)
    for (let i = 0; i + across <= wide; i += across) {
      const colours: number[][] = [[], [], []];
      for (let b = 0; b < across; b += 2)
        for (let a = 0; a < across; a += 2) {
          const at = 3 * ((j + b) * wide + i + a);
          if (light[at]! >= 0) for (let k = 0; k < 3; k++) colours[k]!.push(light[at + k]!);
        }
      if (colours[0]!.length < (across * across) / 8) continue;
      tiles.push({
        x: from[0] + (i + across / 2) * step,
        y: from[1] + (j + across / 2) * step,
        light: colours.map(c => Math.max(1e-4, quantile(c, of)!)),
      });
    }
  return tiles;
}

const termsOf = (x: number, y: number) => [
  1,
  x,
  y,
  x * x,
  x * y,
  y * y,
  x * x * x,
  x * x * y,
  x * y * y,
  y * y * y,
];
const heightOf = (cubic: readonly number[], x: number, y: number) =>
  termsOf(x, y).reduce((s, t, i) => s + t * cubic[i]!, 0);

function cubicsOf(tiles: readonly Tile[], scale: number): number[][] | null {
  const rows = new Matrix(tiles.map(t => termsOf(t.x / scale, t.y / scale)));
  const over = rows.transpose();
  const normal = over.mmul(rows);
  // A few tiles on one side do not determine a cubic there: it stays flat.
  for (let i = 1; i < 10; i++)
    normal.set(i, i, normal.get(i, i) + (i < 3 ? 1e-6 : i < 6 ? 1e-3 : 1e-2) * tiles.length);
  const parted = new CholeskyDecomposition(normal);
  if (!parted.isPositiveDefinite()) return null;
  return [0, 1, 2].map(k =>
    parted.solve(over.mmul(Matrix.columnVector(tiles.map(t => t.light[k]!)))).to1DArray(),
  );
}
