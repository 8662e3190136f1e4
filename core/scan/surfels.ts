import type { TriangleMesh } from '../shape/mesh/mesh';

/** What surfels are made from: a scan's corners and their normals. */
interface Corners {
  readonly mesh: TriangleMesh;
  readonly corners: number;
  readonly normals: Float32Array;
}

/**
 * A scan in fewer, quieter points: the corners of each cell of a grid with about the same normal, merged into one.
 * Searches run on these; sizes are then taken from all corners.
 */
export class Surfels {
  readonly count: number;
  /** x, y, z */
  readonly points: Float64Array;
  /** Unit vectors, averaged over neighbours with about the same normal. */
  readonly normals: Float32Array;
  /** How many corners each stands for. */
  readonly weights: Uint32Array;
  /** Which of them a corner of the scan belongs to. */
  readonly of: Uint32Array;
  private readonly first: Uint32Array;
  private readonly beside: Uint32Array;

  constructor(
    scan: Corners,
    /** Side of a cell, mm. */
    readonly cell: number,
  ) {
    const { positions: p } = scan.mesh;
    this.of = new Uint32Array(scan.corners);
    const at = new Map<number, number>();
    const sums: number[] = [];
    const ways: number[] = [];
    const weights: number[] = [];
    const later: number[] = [];
    for (let v = 0; v < scan.corners; v++) {
      const key = keyOf(p[3 * v]! / cell, p[3 * v + 1]! / cell, p[3 * v + 2]! / cell);
      const n = scan.normals;
      let s = at.get(key);
      const top = s;
      for (; s !== undefined; s = later[s]! < 0 ? undefined : later[s])
        if (sameDirection(ways, s, n, v)) break;
      if (s === undefined) {
        s = weights.length;
        at.set(key, s);
        later.push(top ?? -1);
        sums.push(0, 0, 0);
        ways.push(0, 0, 0);
        weights.push(0);
      }
      this.of[v] = s;
      weights[s]!++;
      for (let i = 0; i < 3; i++) {
        sums[3 * s + i]! += p[3 * v + i]!;
        ways[3 * s + i]! += n[3 * v + i]!;
      }
    }
    this.count = weights.length;
    this.weights = Uint32Array.from(weights);
    this.points = Float64Array.from(sums, (x, i) => x / weights[Math.floor(i / 3)]!);
    const rough = unitVectors(ways);
    const first = new Uint32Array(this.count + 1);
    const beside: number[] = [];
    for (let s = 0; s < this.count; s++) {
      const [x, y, z] = [0, 1, 2].map(i => this.points[3 * s + i]! / cell) as [number, number, number];
      for (let k = 0; k < 27; k++) {
        const key = keyOf(x + (k % 3) - 1, y + (Math.floor(k / 3) % 3) - 1, z + Math.floor(k / 9) - 1);
        for (let o = at.get(key) ?? -1; o >= 0; o = later[o]!) if (o !== s) beside.push(o);
      }
      first[s + 1] = beside.length;
    }
    this.first = first;
    this.beside = Uint32Array.from(beside);
    const even = Array.from(rough);
    for (let s = 0; s < this.count; s++)
      for (const o of this.around(s))
        if (sameDirection(rough, s, rough, o))
          for (let i = 0; i < 3; i++) even[3 * s + i]! += rough[3 * o + i]!;
    this.normals = unitVectors(even);
  }

  point(s: number): [number, number, number] {
    return [this.points[3 * s]!, this.points[3 * s + 1]!, this.points[3 * s + 2]!];
  }

  /** Those in the neighbouring cells. */
  around(s: number): Uint32Array {
    return this.beside.subarray(this.first[s], this.first[s + 1]);
  }
}

/** Normals within 60° of each other belong to one side of a thing. */
const SAME = Math.cos(Math.PI / 3);

function sameDirection(a: ArrayLike<number>, i: number, b: ArrayLike<number>, j: number): boolean {
  const [x, y, z] = [a[3 * i]!, a[3 * i + 1]!, a[3 * i + 2]!];
  const [u, v, w] = [b[3 * j]!, b[3 * j + 1]!, b[3 * j + 2]!];
  return x * u + y * v + z * w >= SAME * Math.sqrt((x * x + y * y + z * z) * (u * u + v * v + w * w));
}

const HALF = 2 ** 16;
const keyOf = (x: number, y: number, z: number) =>
  (Math.floor(x) + HALF) * 2 ** 34 + (Math.floor(y) + HALF) * 2 ** 17 + Math.floor(z) + HALF;

function unitVectors(sums: ArrayLike<number>): Float32Array {
  const out = new Float32Array(sums.length);
  for (let i = 0; i < sums.length; i += 3) {
    const long = Math.hypot(sums[i]!, sums[i + 1]!, sums[i + 2]!) || 1;
    for (let k = 0; k < 3; k++) out[i + k] = sums[i + k]! / long;
  }
  return out;
}
