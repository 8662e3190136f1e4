import { boundsOf, facing, type TriangleMesh } from '../shape/mesh/mesh';
import type { Point3 } from '../shape/vector';
import { fuzzOf } from './fuzz';
import { Surfels } from './surfels';

/** A scan with what its fits need again and again: the normal of each corner, its scatter, its surfels. */
export class ScanSurface {
  readonly corners: number;
  /** Unit vectors, x, y, z; 0 where no triangle with any area meets the corner. */
  readonly normals: Float32Array;
  private apart: number | undefined;
  private across: number | undefined;
  private readonly levels = new Map<number, Surfels>();

  /** @param scatter of its corners, where it was already worked out */
  constructor(
    readonly mesh: TriangleMesh,
    private scatter?: number,
  ) {
    const { positions: p, triangles } = mesh;
    this.corners = p.length / 3;
    this.normals = new Float32Array(p.length);
    for (let t = 0; t < triangles.length; t += 3) {
      const n = facing(mesh, t / 3);
      for (let e = 0; e < 3; e++)
        for (let i = 0; i < 3; i++) this.normals[3 * triangles[t + e]! + i]! += n[i]!;
    }
    for (let v = 0; v < p.length; v += 3) {
      const long = Math.hypot(this.normals[v]!, this.normals[v + 1]!, this.normals[v + 2]!);
      if (long > 0) for (let i = 0; i < 3; i++) this.normals[v + i]! /= long;
    }
  }

  /** Scatter of its corners, sd; worked out once. */
  get fuzz(): number {
    this.scatter ??= fuzzOf(this.mesh) ?? 0;
    return this.scatter;
  }

  /** From corner to corner of its box, mm. */
  get size(): number {
    if (this.across === undefined) {
      const { min, max } = boundsOf(this.mesh);
      this.across = Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
    }
    return this.across;
  }

  /** Spacing of its corners, mm: the median edge of a triangle. */
  get spacing(): number {
    this.apart ??= spacingOf(this.mesh);
    return this.apart;
  }

  /** Surfels in cells of about that size, never so small that one has hardly more than a corner; remembered. */
  surfels(about: number): Surfels {
    const least = FINEST * this.spacing;
    const cell = least * 2 ** Math.max(0, Math.round(Math.log2(about / least)));
    const kept = this.levels.get(cell) ?? new Surfels(this, cell);
    this.levels.set(cell, kept);
    return kept;
  }

  point(v: number): Point3 {
    const { positions: p } = this.mesh;
    return [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!];
  }

  normal(v: number): Point3 {
    return [this.normals[3 * v]!, this.normals[3 * v + 1]!, this.normals[3 * v + 2]!];
  }

  /** The corner nearest to a place. */
  nearest([x, y, z]: Point3): number {
    const { positions: p } = this.mesh;
    let [best, least] = [0, Infinity];
    for (let v = 0; v < this.corners; v++) {
      const d = (p[3 * v]! - x) ** 2 + (p[3 * v + 1]! - y) ** 2 + (p[3 * v + 2]! - z) ** 2;
      if (d < least) [best, least] = [v, d];
    }
    return best;
  }

  /** Area of the triangles with all corners among these, mm². */
  areaOf(corners: readonly number[]): number {
    const among = new Uint8Array(this.corners);
    for (const v of corners) among[v] = 1;
    const { triangles } = this.mesh;
    let area = 0;
    for (let t = 0; t < triangles.length; t += 3) {
      const [a, b, c] = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
      if (among[a] && among[b] && among[c]) area += this.areaOfTriangle(t / 3);
    }
    return area;
  }

  /** mm² */
  areaOfTriangle(t: number): number {
    return Math.hypot(...facing(this.mesh, t)) / 2;
  }
}

/** Cells of the finest surfels, in spacings of corners. */
const FINEST = 1.5;
/** Number of edges that are examined. */
const MOST_EDGES = 20_000;

/** Spacing of corners, mm: the median edge of a triangle. */
export function spacingOf({ positions: p, triangles }: TriangleMesh): number {
  const step = Math.max(1, Math.floor(triangles.length / 3 / MOST_EDGES));
  const long: number[] = [];
  for (let t = 0; t < triangles.length; t += 3 * step) {
    const [a, b] = [3 * triangles[t]!, 3 * triangles[t + 1]!];
    long.push(Math.hypot(p[a]! - p[b]!, p[a + 1]! - p[b + 1]!, p[a + 2]! - p[b + 2]!));
  }
  return Float64Array.from(long).sort()[Math.floor(long.length / 2)] || 1;
}
