import type { TriangleMesh } from '../mesh/mesh';
import type { Field } from './grid';

/**
 * The surface where a field is 0, closed, with negative values inside; the outermost points count as outside. Each cube
 * is split into six tetrahedra around its diagonal (Payne and Toga, “Surface mapping brain function on 3D models”,
 * 1990), which have no ambiguous cases.
 * @param isBlind whether a point inside has no distance of its own: the line to it is then extrapolated from outside
 */
export function contourOf(
  { grid, values }: Field,
  isBlind: (node: number) => boolean = () => false,
): TriangleMesh {
  const { from, cell, count } = grid;
  const [nx, ny, nz] = count;
  const layer = nx * ny;
  const step = [0, 1, nx, nx + 1, layer, layer + 1, layer + nx, layer + nx + 1];
  const level = outsideAtEnds(values, count, cell);
  const positions: number[] = [];
  const triangles: number[] = [];
  // Corners on the edges that leave the points of this layer and the next one, seven from each point.
  let here = new Int32Array(7 * layer).fill(-1);
  let above = new Int32Array(7 * layer).fill(-1);

  /** Where the surface is between a and b, as a share. */
  const shareOf = (a: number, b: number): number => {
    const [va, vb] = [level[a]!, level[b]!];
    const plain = va / (va - vb);
    const [inner, outer] = va < 0 ? [a, b] : [b, a];
    if (!isBlind(inner)) return plain;
    const beyond = 2 * outer - inner;
    const out = level[outer]!;
    const grows = (level[beyond] ?? 0) - out;
    const share = grows > 0.2 * cell && out < grows ? out / grows : out / (out - level[inner]!);
    return va < 0 ? 1 - share : share;
  };
  const cornerOn = (node: number, base: number, way: number, z: number): number => {
    const kept = z === 0 ? here : above;
    const slot = 7 * (node % layer) + way - 1;
    if (kept[slot]! >= 0) return kept[slot]!;
    const share = Math.min(0.999, Math.max(0.001, shareOf(node, node + step[way]!)));
    const [ix, iy, iz] = [node % nx, Math.floor(node / nx) % ny, base + z];
    positions.push(
      from[0] + cell * (ix + (way & 1 ? share : 0)),
      from[1] + cell * (iy + (way & 2 ? share : 0)),
      from[2] + cell * (iz + (way & 4 ? share : 0)),
    );
    kept[slot] = positions.length / 3 - 1;
    return kept[slot]!;
  };

  for (let iz = 0; iz < nz - 1; iz++) {
    for (let iy = 0; iy < ny - 1; iy++)
      for (let ix = 0; ix < nx - 1; ix++) {
        const node = (iz * ny + iy) * nx + ix;
        let inside = 0;
        for (let c = 0; c < 8; c++) if (level[node + step[c]!]! < 0) inside |= 1 << c;
        if (inside === 0 || inside === 255) continue;
        for (const tetrahedron of TETRAHEDRA) {
          let mask = 0;
          for (let i = 0; i < 4; i++) if (inside & (1 << tetrahedron[i]!)) mask |= 1 << i;
          for (const [i, j] of FACES[mask]!) {
            const [a, b] = [tetrahedron[i]!, tetrahedron[j]!];
            const low = Math.min(a, b);
            triangles.push(cornerOn(node + step[low]!, iz, a ^ b, low >> 2));
          }
        }
      }
    [here, above] = [above, here.fill(-1)];
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** Tetrahedra of a cube whose corners are numbered by their three bits; all of one hand. */
const TETRAHEDRA: readonly Four[] = [
  [0, 1, 3, 7],
  [0, 2, 6, 7],
  [0, 4, 5, 7],
  [0, 1, 7, 5],
  [0, 2, 7, 3],
  [0, 4, 7, 6],
];

type Edge = readonly [number, number];
type Four = readonly [number, number, number, number];

/** Each corner first, the hand kept. */
const FIRST: readonly Four[] = [
  [0, 1, 2, 3],
  [1, 0, 3, 2],
  [2, 3, 0, 1],
  [3, 2, 1, 0],
];
/** Each pair first, the hand kept. */
const PAIRS: readonly Four[] = [
  [0, 1, 2, 3],
  [0, 2, 3, 1],
  [0, 3, 1, 2],
  [1, 2, 0, 3],
  [1, 3, 2, 0],
  [2, 3, 0, 1],
];

/** By which of the four corners are inside: the edges that carry the corners of its triangles, three at a time. */
const FACES: readonly (readonly Edge[])[] = Array.from({ length: 16 }, (_, mask) => {
  const inside = [0, 1, 2, 3].filter(i => mask & (1 << i));
  if (inside.length === 0 || inside.length === 4) return [];
  if (inside.length === 2) {
    const [i, j, k, l] = PAIRS.find(p => mask === ((1 << p[0]) | (1 << p[1])))!;
    return [
      [i, k],
      [i, l],
      [j, l],
      [i, k],
      [j, l],
      [j, k],
    ];
  }
  const isOne = inside.length === 1;
  const alone = isOne ? inside[0]! : [0, 1, 2, 3].find(i => !(mask & (1 << i)))!;
  const [i, j, k, l] = FIRST[alone]!;
  return isOne
    ? [
        [i, j],
        [i, k],
        [i, l],
      ]
    : [
        [i, j],
        [i, l],
        [i, k],
      ];
});

/** The surface is closed at the end of the grid. */
function outsideAtEnds(
  values: Float32Array,
  [nx, ny, nz]: Field['grid']['count'],
  cell: number,
): Float32Array {
  const level = values.slice();
  const shut = (ix: number, iy: number, iz: number) => {
    const at = (iz * ny + iy) * nx + ix;
    level[at] = Math.max(level[at]!, cell / 2);
  };
  for (let iz = 0; iz < nz; iz++)
    for (let iy = 0; iy < ny; iy++)
      if (iz === 0 || iz === nz - 1 || iy === 0 || iy === ny - 1)
        for (let ix = 0; ix < nx; ix++) shut(ix, iy, iz);
      else {
        shut(0, iy, iz);
        shut(nx - 1, iy, iz);
      }
  return level;
}
