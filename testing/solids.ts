import { type TriangleMesh, weld } from '../core/shape/mesh/mesh';

/** Plain solids with closed formulas, made without a kernel, for tests. Lengths mm. */
export function box(
  [x, y, z]: [number, number, number],
  at: [number, number, number] = [0, 0, 0],
): TriangleMesh {
  const corner = (i: number) => [at[0] + (i & 1 ? x : 0), at[1] + (i & 2 ? y : 0), at[2] + (i & 4 ? z : 0)];
  const faces = [
    0, 2, 1, 1, 2, 3, 4, 5, 6, 5, 7, 6, 0, 1, 4, 1, 5, 4, 2, 6, 3, 3, 6, 7, 0, 4, 2, 2, 4, 6, 1, 3, 5, 3, 7,
    5,
  ];
  return {
    positions: Float64Array.from(Array.from({ length: 8 }, (_, i) => corner(i)).flat()),
    triangles: Uint32Array.from(faces),
  };
}

export function ring({
  inner,
  outer,
  height,
  segments,
}: {
  inner: number;
  outer: number;
  height: number;
  segments: number;
}): TriangleMesh {
  const positions: number[] = [];
  const triangles: number[] = [];
  for (let i = 0; i < segments; i++) {
    const a = (2 * Math.PI * i) / segments;
    for (const [r, z] of [
      [outer, 0],
      [outer, height],
      [inner, height],
      [inner, 0],
    ] as const)
      positions.push(r * Math.cos(a), r * Math.sin(a), z);
  }
  for (let i = 0; i < segments; i++) {
    const j = (i + 1) % segments;
    for (let k = 0; k < 4; k++) {
      const l = (k + 1) % 4;
      triangles.push(4 * i + k, 4 * j + k, 4 * j + l, 4 * i + k, 4 * j + l, 4 * i + l);
    }
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

export function scaled(mesh: TriangleMesh, factor: number): TriangleMesh {
  return { positions: mesh.positions.map(x => x * factor), triangles: mesh.triangles };
}

export function moved(mesh: TriangleMesh, by: [number, number, number]): TriangleMesh {
  return { positions: mesh.positions.map((x, i) => x + by[i % 3]!), triangles: mesh.triangles };
}

/** Two solids in one list of triangles, not joined. */
export function together(a: TriangleMesh, b: TriangleMesh): TriangleMesh {
  const shift = a.positions.length / 3;
  return weld([...a.positions, ...b.positions], [...a.triangles, ...Array.from(b.triangles, v => v + shift)]);
}

export const withoutTriangle = (mesh: TriangleMesh): TriangleMesh => ({
  positions: mesh.positions,
  triangles: mesh.triangles.slice(3),
});

export const insideOut = (mesh: TriangleMesh): TriangleMesh => ({
  positions: mesh.positions,
  triangles: mesh.triangles.map((_, i, all) => all[i - (i % 3) + [0, 2, 1][i % 3]!]!),
});
