import { boundsOf, type TriangleMesh } from '../../shape/mesh/mesh';
import { columnsOf, middleOfCell } from '../columns';

/** What a part takes up of the bed with half of the gap, on a grid of 1 mm: one bit a cell, rows from the front. */
export interface Mask {
  /** Cells, and words of 32 cells in a row. */
  across: number;
  deep: number;
  words: number;
  bits: Uint32Array;
  /** The distance from the mask's edge to the part itself, cells. */
  border: number;
  /** Size of the part itself, mm. */
  width: number;
  depth: number;
}

/** Cell of the grid on which parts are placed, mm. */
export const CELL = 1;
/** The part is sampled this finely from above, mm. */
const FINE = 0.5;
/** From a cell's centre to its corner, as a share of its width. */
const CORNER = Math.SQRT1_2;

/** @param mesh in its pose and turn @param gap between neighbours, mm */
export function maskOf(mesh: TriangleMesh, gap: number): Mask {
  const { min, max } = boundsOf(mesh);
  const [width, depth] = [max[0] - min[0], max[1] - min[1]];
  // Masks that share no cell keep the gap: any place half-way would be within reach of both.
  const reach = gap / 2 + CORNER * (CELL + FINE);
  const border = Math.ceil(reach / CELL);
  const across = Math.ceil(width / CELL) + 2 * border;
  const deep = Math.ceil(depth / CELL) + 2 * border;
  const words = Math.ceil(across / 32);
  const bits = new Uint32Array(words * deep);
  const columns = columnsOf(mesh, FINE);
  const out = Math.ceil(reach / CELL) + 1;
  for (let c = 0; c < columns.across * columns.deep; c++) {
    if (columns.first[c] === columns.first[c + 1]) continue;
    const [x, y] = middleOfCell(columns, c);
    const [u, v] = [(x - min[0]) / CELL + border, (y - min[1]) / CELL + border];
    // Every cell whose centre is within reach.
    for (let row = Math.max(0, Math.floor(v) - out); row <= Math.min(deep - 1, Math.floor(v) + out); row++) {
      const dy = row + 0.5 - v;
      const half = (reach / CELL) ** 2 - dy * dy;
      if (half < 0) continue;
      const half1 = Math.sqrt(half);
      const from = Math.max(0, Math.ceil(u - half1 - 0.5));
      const to = Math.min(across - 1, Math.floor(u + half1 - 0.5));
      for (let i = from; i <= to; i++) bits[row * words + (i >> 5)]! |= 1 << (i & 31);
    }
  }
  return { across, deep, words, bits, border, width, depth };
}

/** A bed with its parts, as bits: masks may reach over its edges, parts may not. */
export class BedGrid {
  private readonly words: number;
  private readonly rows: number;
  private readonly bits: Uint32Array;
  private readonly border: number;

  constructor(
    private readonly bed: { width: number; depth: number },
    /** The widest border of any mask, cells. */
    border: number,
  ) {
    this.border = border;
    this.words = Math.ceil((Math.ceil(bed.width / CELL) + 2 * border) / 32) + 1;
    this.rows = Math.ceil(bed.depth / CELL) + 2 * border;
    this.bits = new Uint32Array(this.words * this.rows);
  }

  /**
   * The frontmost place that is free for a part, then the leftmost; null where there is none. @param from the row to
   * begin at
   */
  freePlace(mask: Mask, from = 0): { x: number; y: number } | null {
    const lastX = Math.floor((this.bed.width - mask.width + 1e-6) / CELL);
    const lastY = Math.floor((this.bed.depth - mask.depth + 1e-6) / CELL);
    for (let y = from; y <= lastY; y++)
      for (let x = 0; x <= lastX; x++) if (this.isFree(mask, x, y)) return { x, y };
    return null;
  }

  private isFree(mask: Mask, x: number, y: number): boolean {
    return this.each(mask, x, y, (at, bits) => (this.bits[at]! & bits) === 0);
  }

  put(mask: Mask, x: number, y: number): void {
    this.each(mask, x, y, (at, bits) => {
      this.bits[at]! |= bits;
      return true;
    });
  }

  /** Compares the mask's words with the bed's at that place, until one overlaps. */
  private each(mask: Mask, x: number, y: number, goes: (at: number, bits: number) => boolean): boolean {
    const [left, front] = [x + this.border - mask.border, y + this.border - mask.border];
    const [word, shift] = [left >> 5, left & 31];
    for (let row = 0; row < mask.deep; row++) {
      const at = (front + row) * this.words + word;
      for (let w = 0; w < mask.words; w++) {
        const m = mask.bits[row * mask.words + w]!;
        if (m === 0) continue;
        if (!goes(at + w, m << shift)) return false;
        if (shift > 0 && !goes(at + w + 1, m >>> (32 - shift))) return false;
      }
    }
    return true;
  }
}
