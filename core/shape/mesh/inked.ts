/** Connected lines shorter than this in all belong to a rough surface and are not an edge of the part, mm. */
const LEAST = 2;
/** Ends this near count as one, mm. */
const SAME = 1e-4;

/** Sharp edges without the specks of a rough surface. @param edges x, y, z of both ends of each, in sequence */
export function inkedEdges(edges: Float32Array): Float32Array {
  const names = new Map<string, number>();
  const parent: number[] = [];
  const root = (v: number): number => {
    let r = v;
    while (parent[r] !== r) r = parent[r]!;
    parent[v] = r;
    return r;
  };
  const named = (at: number): number => {
    const key = [0, 1, 2].map(i => Math.round(edges[at + i]! / SAME)).join(' ');
    const known = names.get(key) ?? parent.push(parent.length) - 1;
    names.set(key, known);
    return known;
  };
  const ends: number[] = [];
  for (let e = 0; e < edges.length; e += 6) {
    const [a, b] = [named(e), named(e + 3)];
    parent[root(a)] = root(b);
    ends.push(a);
  }
  const long = new Float64Array(parent.length);
  for (const [k, a] of ends.entries()) {
    const e = 6 * k;
    long[root(a)]! += Math.hypot(...[0, 1, 2].map(i => edges[e + 3 + i]! - edges[e + i]!));
  }
  return edges.filter((_, i) => long[root(ends[Math.floor(i / 6)]!)]! >= LEAST);
}
