import { facing, type TriangleMesh } from './mesh';
import { nearestOnTriangle } from './nearest-on-triangle';

type Vector = readonly [number, number, number];

export interface Hit {
  distance: number;
  triangle: number;
}

export interface Nearest {
  distance: number;
  triangle: number;
  at: Vector;
  /** Distance in front of the triangle's plane; below 0 behind it, inside a solid. */
  ahead: number;
}

/** Triangles of a leaf: with fewer, the extra boxes cost more than they save. */
const LEAF = 8;

/**
 * A tree of boxes over a mesh's triangles, so that a ray meets a few of them instead of all: each box is split across
 * its longest side at its middle triangle.
 */
export class RayTree {
  /** Six numbers a node: least and greatest corner. */
  private readonly boxes: number[] = [];
  /** For a branch its second child, for a leaf −1 − its first triangle in `order`. */
  private readonly next: number[] = [];
  private readonly counts: number[] = [];
  private readonly order: Uint32Array;
  private readonly place = new Float64Array(3);

  constructor(private readonly mesh: TriangleMesh) {
    const { positions: p, triangles } = mesh;
    const count = triangles.length / 3;
    const middles = new Float64Array(3 * count);
    for (let t = 0; t < count; t++)
      for (let i = 0; i < 3; i++)
        middles[3 * t + i] =
          (p[3 * triangles[3 * t]! + i]! +
            p[3 * triangles[3 * t + 1]! + i]! +
            p[3 * triangles[3 * t + 2]! + i]!) /
          3;
    this.order = Uint32Array.from({ length: count }, (_, i) => i);
    if (count > 0) this.grow(0, count, middles);
  }

  private grow(from: number, to: number, middles: Float64Array): void {
    const { positions: p, triangles } = this.mesh;
    const node = this.next.length;
    const low = [Infinity, Infinity, Infinity];
    const high = [-Infinity, -Infinity, -Infinity];
    for (let k = from; k < to; k++)
      for (let c = 0; c < 3; c++) {
        const v = 3 * triangles[3 * this.order[k]! + c]!;
        for (let i = 0; i < 3; i++) {
          low[i] = Math.min(low[i]!, p[v + i]!);
          high[i] = Math.max(high[i]!, p[v + i]!);
        }
      }
    this.boxes.push(...low, ...high);
    this.next.push(-1 - from);
    this.counts.push(to - from);
    if (to - from <= LEAF) return;
    const sides = [0, 1, 2].map(i => high[i]! - low[i]!);
    const axis = sides.indexOf(Math.max(...sides));
    this.order.subarray(from, to).sort((a, b) => middles[3 * a + axis]! - middles[3 * b + axis]!);
    const half = (from + to) >> 1;
    this.counts[node] = 0;
    this.grow(from, half, middles);
    this.next[node] = this.next.length;
    this.grow(half, to, middles);
  }

  /** The first triangle that a ray meets, from either side; `d` has unit length. */
  firstHit(o: Vector, d: Vector): Hit | undefined {
    if (this.next.length === 0) return undefined;
    const best: Hit = { distance: Infinity, triangle: -1 };
    const open = [0];
    while (open.length > 0) {
      const node = open.pop()!;
      if (!this.meets(node, o, d, best.distance)) continue;
      if (this.counts[node] === 0) {
        open.push(this.next[node]!, node + 1);
        continue;
      }
      const from = -1 - this.next[node]!;
      for (let k = from; k < from + this.counts[node]!; k++) this.meet(this.order[k]!, o, d, best);
    }
    return best.triangle < 0 ? undefined : best;
  }

  /**
   * The nearest point of the surface, no farther than `most`; of two equally near on an edge, the triangle that faces
   * it more.
   */
  nearest(o: Vector, most: number): Nearest | undefined {
    if (this.next.length === 0) return undefined;
    const best: Nearest = { distance: most, triangle: -1, at: [0, 0, 0], ahead: 0 };
    const open = [0];
    while (open.length > 0) {
      const node = open.pop()!;
      if (this.boxDistance(node, o) > best.distance) continue;
      if (this.counts[node] === 0) {
        const [a, b] = [node + 1, this.next[node]!];
        // The nearer box last: it is searched first.
        if (this.boxDistance(a, o) < this.boxDistance(b, o)) open.push(b, a);
        else open.push(a, b);
        continue;
      }
      const from = -1 - this.next[node]!;
      for (let k = from; k < from + this.counts[node]!; k++) this.approach(this.order[k]!, o, best);
    }
    return best.triangle < 0 ? undefined : best;
  }

  private boxDistance(node: number, o: Vector): number {
    let sum = 0;
    for (let i = 0; i < 3; i++) {
      const [low, high] = [this.boxes[6 * node + i]!, this.boxes[6 * node + 3 + i]!];
      const off = o[i]! < low ? low - o[i]! : o[i]! > high ? o[i]! - high : 0;
      sum += off * off;
    }
    return Math.sqrt(sum);
  }

  private approach(triangle: number, o: Vector, best: Nearest): void {
    const { positions: p, triangles } = this.mesh;
    const [i, j, k] = [
      3 * triangles[3 * triangle]!,
      3 * triangles[3 * triangle + 1]!,
      3 * triangles[3 * triangle + 2]!,
    ];
    const distance = Math.sqrt(nearestOnTriangle(p, i, j, k, o[0], o[1], o[2], this.place));
    if (distance > best.distance + 1e-9) return;
    const at: Vector = [this.place[0]!, this.place[1]!, this.place[2]!];
    const off: Vector = [o[0] - at[0], o[1] - at[1], o[2] - at[2]];
    const n = facing(this.mesh, triangle);
    const long = Math.hypot(...n);
    if (!(long > 0)) return;
    const ahead = (off[0] * n[0] + off[1] * n[1] + off[2] * n[2]) / long;
    if (distance > best.distance - 1e-9 && Math.abs(ahead) <= Math.abs(best.ahead) && best.triangle >= 0)
      return;
    best.distance = distance;
    best.triangle = triangle;
    best.at = at;
    best.ahead = ahead;
  }

  private meets(node: number, o: Vector, d: Vector, within: number): boolean {
    let [near, far] = [0, within];
    for (let i = 0; i < 3; i++) {
      const inverse = 1 / d[i]!;
      const a = (this.boxes[6 * node + i]! - o[i]!) * inverse;
      const b = (this.boxes[6 * node + 3 + i]! - o[i]!) * inverse;
      // NaN where the ray lies in a face of the box: that face does not limit it then.
      near = Math.max(near, Math.min(a, b) || near);
      far = Math.min(far, Math.max(a, b) + 1e-9 || far);
    }
    return near <= far;
  }

  /** Möller and Trumbore, "Fast, minimum storage ray/triangle intersection" (1997). */
  private meet(triangle: number, o: Vector, d: Vector, best: Hit): void {
    const { positions: p, triangles } = this.mesh;
    const a = 3 * triangles[3 * triangle]!;
    const b = 3 * triangles[3 * triangle + 1]!;
    const c = 3 * triangles[3 * triangle + 2]!;
    const ux = p[b]! - p[a]!;
    const uy = p[b + 1]! - p[a + 1]!;
    const uz = p[b + 2]! - p[a + 2]!;
    const vx = p[c]! - p[a]!;
    const vy = p[c + 1]! - p[a + 1]!;
    const vz = p[c + 2]! - p[a + 2]!;
    const hx = d[1] * vz - d[2] * vy;
    const hy = d[2] * vx - d[0] * vz;
    const hz = d[0] * vy - d[1] * vx;
    const det = ux * hx + uy * hy + uz * hz;
    if (Math.abs(det) < 1e-14) return;
    const sx = o[0] - p[a]!;
    const sy = o[1] - p[a + 1]!;
    const sz = o[2] - p[a + 2]!;
    const u = (sx * hx + sy * hy + sz * hz) / det;
    if (u < 0 || u > 1) return;
    const qx = sy * uz - sz * uy;
    const qy = sz * ux - sx * uz;
    const qz = sx * uy - sy * ux;
    const v = (d[0] * qx + d[1] * qy + d[2] * qz) / det;
    if (v < 0 || u + v > 1) return;
    const distance = (vx * qx + vy * qy + vz * qz) / det;
    if (distance > 0 && distance < best.distance) {
      best.distance = distance;
      best.triangle = triangle;
    }
  }
}

/** Copies of an addition test the same part: its tree is built once. */
const grown = new WeakMap<TriangleMesh, RayTree>();

export function rayTreeOf(mesh: TriangleMesh): RayTree {
  const tree = grown.get(mesh) ?? new RayTree(mesh);
  grown.set(mesh, tree);
  return tree;
}
