import type { Columns } from '../columns';
import { ON_BED } from '../hangs';

/**
 * Where a print would begin in the air: places lower than everything around them, with nothing below. The part is built
 * up layer by layer: what begins apart from the rest is an island until it joins something older.
 */

export interface Island {
  /** The crossing where it begins, and its cell. */
  crossing: number;
  cell: number;
  /** mm above the bed */
  begins: number;
  /** Where it joins the rest, mm above the bed; the part's top where it never does. */
  meets: number;
}

/** The eight neighbours of a cell. */
const ROUND = [-1, 0, 1].flatMap(dx => [-1, 0, 1].map(dy => [dx, dy] as const)).filter(([x, y]) => x || y);
/** Heights this close are equal, mm. */
const EVEN = 0.02;

/**
 * @param least an island must rise by this before it joins the rest, mm: a layer @param spared crossings that are never
 * tested
 */
export function islandsIn(
  { across, deep, first, height }: Columns,
  least: number,
  spared: (crossing: number) => boolean,
): Island[] {
  const cellOf = new Uint32Array(height.length);
  const begins: number[] = [];
  for (let c = 0; c < across * deep; c++) {
    if ((first[c + 1]! - first[c]!) % 2 === 1) continue;
    for (let n = first[c]!; n < first[c + 1]!; n += 2) {
      cellOf[n] = c;
      begins.push(n);
    }
  }
  begins.sort((a, b) => height[a]! - height[b]!);
  // Bodies that have joined, each named by the crossing where its oldest part begins.
  const parent = new Int32Array(height.length).fill(-1);
  const oldest = (n: number): number => {
    let root = n;
    while (parent[root] !== root) root = parent[root]!;
    for (let at = n; parent[at] !== root; ) {
      const next = parent[at]!;
      parent[at] = root;
      at = next;
    }
    return root;
  };
  const met: Island[] = [];
  for (const n of begins) {
    parent[n] = n;
    const z = height[n]!;
    const c = cellOf[n]!;
    for (const [dx, dy] of ROUND) {
      const beside = c + dy * across + dx;
      if (beside < 0 || beside >= across * deep) continue;
      for (let m = first[beside]!; m < first[beside + 1]!; m += 2) {
        // Not begun yet, or ended below.
        if (parent[m]! < 0 || height[m + 1]! < z + EVEN) continue;
        const [a, b] = [oldest(n), oldest(m)];
        if (a === b) continue;
        const [older, younger] = height[a]! <= height[b]! ? [a, b] : [b, a];
        const island = { crossing: younger, cell: cellOf[younger]!, begins: height[younger]!, meets: z };
        if (isIsland(island, least) && !spared(younger)) met.push(island);
        parent[younger] = older;
      }
    }
  }
  return met;
}

const isIsland = ({ begins, meets }: Island, least: number) => begins > ON_BED && meets - begins > least;
