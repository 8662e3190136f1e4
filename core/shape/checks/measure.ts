import { facing, type TriangleMesh } from '../mesh/mesh';
import { loopNear, sectionAtZ } from '../mesh/section';
import type { MateSurface } from '../recipes/recipe';

/** A mate as the finished triangles have it. */
export interface MeasuredMate {
  id: string;
  side: 'inside' | 'outside';
  kind: 'round';
  /** Diameter measured on a section of the triangles, mm; NaN when no loop is there. */
  size: number;
  at: readonly [number, number, number];
  axis: readonly [number, number, number];
}

/**
 * Sizes from sections through the triangles, never echoed from the parameters. A section across the
 * upright axis; recipes whose mates lie otherwise will need a section plane of their own.
 */
export function measureMates(mesh: TriangleMesh, surfaces: readonly MateSurface[]): MeasuredMate[] {
  return surfaces.map(surface => {
    const [x, y, z] = surface.at;
    const loop = loopNear(sectionAtZ(mesh, z), [x, y], surface.size, surface.side);
    return {
      id: surface.mate,
      side: surface.side,
      kind: surface.kind,
      size: loop?.diameter ?? Number.NaN,
      at: surface.at,
      axis: surface.axis,
    };
  });
}

/** Triangles that lie on a mate's surface: for lighting it. Index per triangle, −1 for none. */
export function trianglesOfMates(
  mesh: TriangleMesh,
  surfaces: readonly MateSurface[],
  sagitta: number,
): Int16Array {
  const owner = new Int16Array(mesh.triangles.length / 3).fill(-1);
  const { positions: p, triangles } = mesh;
  const near = sagitta + 1e-3;
  surfaces.forEach((surface, index) => {
    const [x, y] = surface.at;
    const on = (v: number) =>
      Math.abs(Math.hypot(p[3 * v]! - x, p[3 * v + 1]! - y) - surface.size / 2) < near &&
      p[3 * v + 2]! > surface.from - near &&
      p[3 * v + 2]! < surface.to + near;
    for (let t = 0; t < owner.length; t++) {
      if (!(on(triangles[3 * t]!) && on(triangles[3 * t + 1]!) && on(triangles[3 * t + 2]!))) continue;
      // A face that closes the bore may have all its corners on it too: the wall faces sideways.
      const [nx, ny, nz] = facing(mesh, t);
      if (Math.abs(nz) < Math.hypot(nx, ny)) owner[t] = index;
    }
  });
  return owner;
}
