/** A closed surface as triangles. Lengths mm. */
export interface TriangleMesh {
  /** x, y, z per vertex. */
  readonly positions: Float64Array;
  /** Three vertices per triangle, counter-clockwise seen from outside. */
  readonly triangles: Uint32Array;
}

export interface Bounds {
  min: [number, number, number];
  max: [number, number, number];
}

/** Vertices nearer than this are one: far below a printer's step, far above rounding at 300 mm. */
const WELD = 1e-5;

/** Merges vertices in the same place and drops triangles that lose their area by that. */
export function weld(positions: ArrayLike<number>, triangles: ArrayLike<number>): TriangleMesh {
  const count = positions.length / 3;
  const slots = 2 ** Math.ceil(Math.log2(2 * count + 1));
  // An open hash table of the vertices so far; −1 is empty.
  const table = new Int32Array(slots).fill(-1);
  const cell = (v: number) => Math.round(positions[v]! / WELD);
  const kept: number[] = [];
  const renamed = new Uint32Array(count);
  for (let v = 0; v < count; v++) {
    const [x, y, z] = [cell(3 * v), cell(3 * v + 1), cell(3 * v + 2)];
    let slot = (Math.imul(x, 73856093) ^ Math.imul(y, 19349663) ^ Math.imul(z, 83492791)) & (slots - 1);
    for (; ; slot = (slot + 1) & (slots - 1)) {
      const other = table[slot]!;
      if (other < 0) {
        table[slot] = v;
        renamed[v] = kept.length / 3;
        kept.push(cleared(positions[3 * v]!), cleared(positions[3 * v + 1]!), cleared(positions[3 * v + 2]!));
        break;
      }
      if (cell(3 * other) === x && cell(3 * other + 1) === y && cell(3 * other + 2) === z) {
        renamed[v] = renamed[other]!;
        break;
      }
    }
  }
  const faces: number[] = [];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [renamed[triangles[t]!]!, renamed[triangles[t + 1]!]!, renamed[triangles[t + 2]!]!];
    if (a !== b && b !== c && c !== a) faces.push(a, b, c);
  }
  return { positions: Float64Array.from(kept), triangles: Uint32Array.from(faces) };
}

/** The kernel leaves −1e-15 where it means 0; a bed at −0.000… would give a wrong bound. */
const cleared = (x: number) => (Math.abs(x) < 1e-9 ? 0 : x);

/** Left and right swapped, with the triangles reversed so that they still face outwards. */
export const mirroredMesh = ({ positions, triangles }: TriangleMesh): TriangleMesh => ({
  positions: positions.map((x, i) => (i % 3 === 0 ? cleared(-x) : x)),
  triangles: triangles.map((_, i, all) => all[i - (i % 3) + [0, 2, 1][i % 3]!]!),
});

/** Several bodies as one list of triangles; they must not touch. */
export function joined(meshes: readonly TriangleMesh[]): TriangleMesh {
  const positions = new Float64Array(meshes.reduce((sum, m) => sum + m.positions.length, 0));
  const triangles = new Uint32Array(meshes.reduce((sum, m) => sum + m.triangles.length, 0));
  let [p, t] = [0, 0];
  for (const mesh of meshes) {
    positions.set(mesh.positions, p);
    triangles.set(
      mesh.triangles.map(v => v + p / 3),
      t,
    );
    p += mesh.positions.length;
    t += mesh.triangles.length;
  }
  return { positions, triangles };
}

export function boundsOf(mesh: TriangleMesh): Bounds {
  const min: Bounds['min'] = [Infinity, Infinity, Infinity];
  const max: Bounds['max'] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < mesh.positions.length; i++) {
    const axis = i % 3;
    min[axis] = Math.min(min[axis]!, mesh.positions[i]!);
    max[axis] = Math.max(max[axis]!, mesh.positions[i]!);
  }
  return { min, max };
}

/** Signed, by the divergence theorem: negative when the triangles face inwards. mm³. */
export function volumeOf(mesh: TriangleMesh): number {
  const { positions: p, triangles } = mesh;
  let six = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const a = 3 * triangles[t]!;
    const b = 3 * triangles[t + 1]!;
    const c = 3 * triangles[t + 2]!;
    six +=
      p[a]! * (p[b + 1]! * p[c + 2]! - p[b + 2]! * p[c + 1]!) +
      p[a + 1]! * (p[b + 2]! * p[c]! - p[b]! * p[c + 2]!) +
      p[a + 2]! * (p[b]! * p[c + 1]! - p[b + 1]! * p[c]!);
  }
  return six / 6;
}

/** Centre of mass of a closed solid of uniform density, mm: each triangle makes a tetrahedron with the origin. */
export function centroidOf(mesh: TriangleMesh): [number, number, number] {
  const { positions: p, triangles } = mesh;
  let volume = 0;
  const sum: [number, number, number] = [0, 0, 0];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
    const six =
      p[a]! * (p[b + 1]! * p[c + 2]! - p[b + 2]! * p[c + 1]!) +
      p[a + 1]! * (p[b + 2]! * p[c]! - p[b]! * p[c + 2]!) +
      p[a + 2]! * (p[b]! * p[c + 1]! - p[b + 1]! * p[c]!);
    volume += six;
    for (let i = 0; i < 3; i++) sum[i]! += (six * (p[a + i]! + p[b + i]! + p[c + i]!)) / 4;
  }
  return [sum[0] / volume, sum[1] / volume, sum[2] / volume];
}

/** mm². */
export function areaOf(mesh: TriangleMesh): number {
  let area = 0;
  for (let t = 0; t < mesh.triangles.length / 3; t++) area += Math.hypot(...facing(mesh, t)) / 2;
  return area;
}

/** Normal of triangle `t`, its length twice the area. */
export function facing(mesh: TriangleMesh, t: number): [number, number, number] {
  const { positions: p, triangles } = mesh;
  const a = 3 * triangles[3 * t]!;
  const b = 3 * triangles[3 * t + 1]!;
  const c = 3 * triangles[3 * t + 2]!;
  const ux = p[b]! - p[a]!;
  const uy = p[b + 1]! - p[a + 1]!;
  const uz = p[b + 2]! - p[a + 2]!;
  const vx = p[c]! - p[a]!;
  const vy = p[c + 1]! - p[a + 1]!;
  const vz = p[c + 2]! - p[a + 2]!;
  return [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
}

export interface Closure {
  /** Edges that do not meet exactly one neighbour running the other way. */
  openEdges: number;
  /** Connected bodies, joined by shared edges. */
  bodies: number;
}

/** The bodies that a list of triangles is made of. */
export function bodiesOf({ positions, triangles }: TriangleMesh): TriangleMesh[] {
  const root = rootsOf(triangles, positions.length / 3);
  const own = new Map<number, number[]>();
  for (let t = 0; t < triangles.length; t += 3) {
    const r = root(triangles[t]!);
    const list = own.get(r) ?? [];
    list.push(triangles[t]!, triangles[t + 1]!, triangles[t + 2]!);
    own.set(r, list);
  }
  return [...own.values()].map(list => compacted(positions, list));
}

/** Only the vertices that its triangles use. */
function compacted(positions: Float64Array, triangles: readonly number[]): TriangleMesh {
  const renamed = new Map<number, number>();
  const kept: number[] = [];
  const faces = triangles.map(v => {
    const known = renamed.get(v);
    if (known !== undefined) return known;
    renamed.set(v, kept.length / 3);
    kept.push(positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!);
    return kept.length / 3 - 1;
  });
  return { positions: Float64Array.from(kept), triangles: Uint32Array.from(faces) };
}

/** Some triangles of a mesh, with only the vertices that they use. */
export function onlyTriangles({ positions: p }: TriangleMesh, triangles: ArrayLike<number>): TriangleMesh {
  const renamed = new Int32Array(p.length / 3).fill(-1);
  const kept: number[] = [];
  const faces = Uint32Array.from(triangles, v => {
    if (renamed[v]! < 0) {
      renamed[v] = kept.length / 3;
      kept.push(p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!);
    }
    return renamed[v]!;
  });
  return { positions: Float64Array.from(kept), triangles: faces };
}

/**
 * Groups of vertices that are connected by edges of triangles. @param counts whether a vertex takes part; by default
 * all do
 */
export function rootsOf(
  triangles: Uint32Array,
  count: number,
  counts: (v: number) => boolean = () => true,
): (v: number) => number {
  const parent = Uint32Array.from({ length: count }, (_, i) => i);
  const root = (v: number): number => {
    let r = v;
    while (parent[r] !== r) {
      parent[r] = parent[parent[r]!]!;
      r = parent[r]!;
    }
    return r;
  };
  for (let t = 0; t < triangles.length; t += 3)
    for (let e = 0; e < 3; e++) {
      const a = triangles[t + e]!;
      const b = triangles[t + ((e + 1) % 3)]!;
      if (counts(a) && counts(b)) parent[root(a)] = root(b);
    }
  return root;
}

/** Every edge of a closed surface occurs once in each direction. */
export function closureOf(mesh: TriangleMesh): Closure {
  const { triangles } = mesh;
  const count = mesh.positions.length / 3;
  const walks = new Map<number, number>();
  const root = rootsOf(triangles, count);
  for (let t = 0; t < triangles.length; t += 3) {
    for (let e = 0; e < 3; e++) {
      const from = triangles[t + e]!;
      const to = triangles[t + ((e + 1) % 3)]!;
      const key = from * count + to;
      walks.set(key, (walks.get(key) ?? 0) + 1);
    }
  }
  let openEdges = 0;
  for (const [key, times] of walks) {
    const back = walks.get((key % count) * count + Math.floor(key / count)) ?? 0;
    if (times !== 1 || back !== 1) openEdges++;
  }
  const roots = new Set<number>();
  for (const v of triangles) roots.add(root(v));
  return { openEdges, bodies: roots.size };
}
