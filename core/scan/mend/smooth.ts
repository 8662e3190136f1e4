import type { TriangleMesh } from '../../shape/mesh/mesh';
import { trianglesAround } from '../around';
import { fuzzOf } from '../fuzz';
import { ScanSurface } from '../scan-surface';

/** How far the corners of a scan were moved, mm. */
export interface Moved {
  rms: number;
  most: number;
}

/** A neighbour farther off than this many times the scatter is beyond an edge. */
const EDGE = 2.5;

/**
 * Reduces scatter and keeps edges: each corner moves along its normal towards the plane of its neighbours, and those
 * that are farther off it than scatter explains do not count (bilateral denoising; Fleishman, Drori and Cohen-Or 2003).
 */
export function smoothed(mesh: TriangleMesh, rounds: number): { mesh: TriangleMesh; moved: Moved } {
  const corners = mesh.positions.length / 3;
  const scatter = fuzzOf(mesh) ?? 0;
  const { triangles } = mesh;
  const { first, of } = trianglesAround(triangles, corners);
  let positions = mesh.positions;
  for (let round = 0; round < rounds && scatter > 0; round++) {
    const surface = new ScanSurface({ positions, triangles }, scatter);
    positions = oneRound(surface, first, of, EDGE * scatter);
  }
  let [sum, most] = [0, 0];
  for (let v = 0; v < corners; v++) {
    const off = Math.hypot(...[0, 1, 2].map(i => positions[3 * v + i]! - mesh.positions[3 * v + i]!));
    sum += off * off;
    most = Math.max(most, off);
  }
  return {
    mesh: { positions, triangles },
    moved: { rms: Math.sqrt(sum / Math.max(1, corners)), most },
  };
}

function oneRound(
  { mesh: { positions: p, triangles }, normals, spacing }: ScanSurface,
  first: Uint32Array,
  of: Uint32Array,
  edge: number,
): Float64Array {
  const next = p.slice();
  const far = 2 * (1.5 * spacing) ** 2;
  const high = 2 * edge ** 2;
  for (let v = 0; v < first.length - 1; v++) {
    const [x, y, z] = [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!];
    const [nx, ny, nz] = [normals[3 * v]!, normals[3 * v + 1]!, normals[3 * v + 2]!];
    let [sum, weights] = [0, 0];
    for (let k = first[v]!; k < first[v + 1]!; k++) {
      const t = 3 * of[k]!;
      for (let e = 0; e < 3; e++) {
        const o = 3 * triangles[t + e]!;
        if (o === 3 * v) continue;
        const [dx, dy, dz] = [p[o]! - x, p[o + 1]! - y, p[o + 2]! - z];
        const h = dx * nx + dy * ny + dz * nz;
        const w = Math.exp(-(dx * dx + dy * dy + dz * dz) / far - (h * h) / high);
        sum += w * h;
        weights += w;
      }
    }
    if (weights < 1e-9) continue;
    const by = sum / weights;
    next[3 * v] = x + by * nx;
    next[3 * v + 1] = y + by * ny;
    next[3 * v + 2] = z + by * nz;
  }
  return next;
}
