import { boundsOf, type TriangleMesh } from '../shape/mesh/mesh';

/**
 * A part on the bed as columns: on a grid seen from above, the heights where solid begins and ends. Supports, skins and
 * first layers are all worked out from these. Lengths mm.
 */

/** Cells across the footprint's longer side: finer ones find nothing more, and the cost grows with their square. */
const CELLS_ACROSS = 160;
const [FINEST, COARSEST] = [0.4, 1];
/** Off round coordinates, so that edges of drawn parts do not run through the centres of cells. */
const [OFF_X, OFF_Y] = [0.0713, 0.0519];

export interface Columns {
  cell: number;
  across: number;
  deep: number;
  /** The centre of the first cell. */
  at: [number, number];
  /** Crossings of cell c are from first[c] to first[c + 1], from below upwards: solid begins, ends, begins… */
  first: Uint32Array;
  height: Float32Array;
  /** The triangle that was crossed. */
  triangle: Uint32Array;
  /** The number of cells that met an odd number of surfaces, because a surface is open or was missed. */
  odd: number;
}

/** The centre of a cell, x and y. */
export const middleOfCell = ({ at, cell, across }: Columns, c: number): [number, number] => [
  at[0] + (c % across) * cell,
  at[1] + Math.floor(c / across) * cell,
];

export const cellFor = (mesh: TriangleMesh): number => {
  const { min, max } = boundsOf(mesh);
  const longest = Math.max(max[0] - min[0], max[1] - min[1]);
  return Math.min(COARSEST, Math.max(FINEST, longest / CELLS_ACROSS));
};

/** @param mesh as it lies on the bed */
export function columnsOf(mesh: TriangleMesh, cell = cellFor(mesh)): Columns {
  const { positions: p, triangles } = mesh;
  const { min, max } = boundsOf(mesh);
  const at: [number, number] = [min[0] - cell * (1 - OFF_X), min[1] - cell * (1 - OFF_Y)];
  const across = Math.ceil((max[0] - at[0]) / cell) + 2;
  const deep = Math.ceil((max[1] - at[1]) / cell) + 2;
  const count = new Uint32Array(across * deep + 1);
  // Half-open rules on rows and columns: of two triangles that share an edge, exactly one takes a cell on it.
  const walk = (take: (cellIndex: number, t: number, z: number) => void) => {
    for (let t = 0; t < triangles.length; t += 3) {
      const [i, j, k] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
      const [ax, ay, az] = [p[i]!, p[i + 1]!, p[i + 2]!];
      const [ux, uy, uz] = [p[j]! - ax, p[j + 1]! - ay, p[j + 2]! - az];
      const [vx, vy, vz] = [p[k]! - ax, p[k + 1]! - ay, p[k + 2]! - az];
      const d = ux * vy - uy * vx;
      if (Math.abs(d) < 1e-12) continue;
      const rises = [(uz * vy - uy * vz) / d, (ux * vz - uz * vx) / d] as const;
      const low = Math.min(ay, p[j + 1]!, p[k + 1]!);
      const high = Math.max(ay, p[j + 1]!, p[k + 1]!);
      const firstRow = Math.max(0, Math.ceil((low - at[1]) / cell));
      const lastRow = Math.min(deep - 1, Math.floor((high - at[1]) / cell));
      for (let row = firstRow; row <= lastRow; row++) {
        const y = at[1] + row * cell;
        let [from, to] = [Infinity, -Infinity];
        for (const [a, b] of [
          [i, j],
          [j, k],
          [k, i],
        ] as const) {
          if (p[a + 1]! > y === p[b + 1]! > y) continue;
          // Worked out from the lower end, so that both triangles on an edge find the identical crossing.
          const [l, h] = p[a + 1]! < p[b + 1]! ? [a, b] : [b, a];
          const x = p[l]! + ((y - p[l + 1]!) / (p[h + 1]! - p[l + 1]!)) * (p[h]! - p[l]!);
          if (x < from) from = x;
          if (x > to) to = x;
        }
        if (to <= from) continue;
        const firstColumn = Math.max(0, Math.ceil((from - at[0]) / cell));
        for (let column = firstColumn; column < across; column++) {
          const x = at[0] + column * cell;
          if (x >= to) break;
          take(row * across + column, t / 3, az + rises[0] * (x - ax) + rises[1] * (y - ay));
        }
      }
    }
  };
  walk(c => {
    count[c + 1]! += 1;
  });
  for (let c = 0; c < across * deep; c++) count[c + 1]! += count[c]!;
  const first = count.slice();
  const total = first[across * deep]!;
  const height = new Float32Array(total);
  const triangle = new Uint32Array(total);
  const next = first.slice();
  walk((c, t, z) => {
    // Inserted in order: a cell has only a few.
    let n = next[c]!++;
    for (; n > first[c]! && height[n - 1]! > z; n--) {
      height[n] = height[n - 1]!;
      triangle[n] = triangle[n - 1]!;
    }
    height[n] = z;
    triangle[n] = t;
  });
  let odd = 0;
  for (let c = 0; c < across * deep; c++) if ((first[c + 1]! - first[c]!) % 2 === 1) odd++;
  return { cell, across, deep, at, first, height, triangle, odd };
}
