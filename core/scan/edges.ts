import { rootsOf, type TriangleMesh } from '../shape/mesh/mesh';

/** How the triangles of a scan are connected. */
export interface Edges {
  /** Edges of a single triangle: borders of holes, and of what was seen. */
  open: number;
  /** Edges of more than two triangles, or of two that face opposite ways. */
  nonManifold: number;
  /** Closed lines of open edges. */
  borders: number;
  /** Bodies that do not touch, the largest first, by triangles. */
  components: number[];
}

export function edgesOf({ positions, triangles }: TriangleMesh): Edges {
  const corners = positions.length / 3;
  const { open, nonManifold } = openEdgesOf(triangles, corners);
  return {
    open: open.length,
    nonManifold,
    borders: bordersOf(open),
    components: componentsOf(triangles, corners),
  };
}

/**
 * Edges of a single triangle, in that triangle's direction, and the number of edges of more than two, or of two that
 * face opposite ways.
 */
export function openEdgesOf(
  triangles: Uint32Array,
  corners: number,
): { open: [number, number][]; nonManifold: number } {
  // Both ends of an edge in one number, the lower first; its direction in a bit of its own.
  const keys = new Float64Array(triangles.length);
  for (let t = 0; t < triangles.length; t += 3)
    for (let e = 0; e < 3; e++) {
      const [a, b] = [triangles[t + e]!, triangles[t + ((e + 1) % 3)]!];
      keys[t + e] = 2 * (Math.min(a, b) * corners + Math.max(a, b)) + (a < b ? 0 : 1);
    }
  keys.sort();
  const open: [number, number][] = [];
  let nonManifold = 0;
  for (let i = 0; i < keys.length; ) {
    const edge = Math.floor(keys[i]! / 2);
    let j = i;
    while (j < keys.length && Math.floor(keys[j]! / 2) === edge) j++;
    const shared = j - i;
    if (shared === 1) {
      const [low, high] = [Math.floor(edge / corners), edge % corners];
      open.push(keys[i]! % 2 === 0 ? [low, high] : [high, low]);
    } else if (shared > 2 || keys[i] === keys[i + 1]) nonManifold++;
    i = j;
  }
  return { open, nonManifold };
}

/** Border lines that are connected. */
function bordersOf(edges: readonly (readonly [number, number])[]): number {
  const parent = new Map<number, number>();
  const root = (v: number): number => {
    let r = v;
    while (parent.get(r) !== undefined && parent.get(r) !== r) r = parent.get(r)!;
    parent.set(v, r);
    return r;
  };
  for (const [a, b] of edges) {
    if (!parent.has(a)) parent.set(a, a);
    if (!parent.has(b)) parent.set(b, b);
    const [x, y] = [root(a), root(b)];
    if (x !== y) parent.set(x, y);
  }
  return new Set([...parent.keys()].map(root)).size;
}

function componentsOf(triangles: Uint32Array, corners: number): number[] {
  const root = rootsOf(triangles, corners);
  const counts = new Map<number, number>();
  for (let t = 0; t < triangles.length; t += 3) {
    const r = root(triangles[t]!);
    counts.set(r, (counts.get(r) ?? 0) + 1);
  }
  return [...counts.values()].sort((a, b) => b - a);
}
