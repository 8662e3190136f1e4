import type { Point3 } from '../kernels/kernel';
import { facing, type TriangleMesh } from '../mesh/mesh';
import { basisOf, dot, type Loop, loopNear, sectionAcross } from '../mesh/section';
import type { MateSurface } from '../recipes/recipe';

/** A mate as the finished triangles have it. */
export interface MeasuredMate {
  id: string;
  side: 'inside' | 'outside';
  kind: MateSurface['kind'];
  /** Diameter or width across flats, measured on a section of the triangles, mm; NaN when nothing is there. */
  size: number;
  at: Point3;
  axis: Point3;
}

/** Sizes from sections through the triangles, never echoed from the parameters. */
export function measureMates(mesh: TriangleMesh, surfaces: readonly MateSurface[]): MeasuredMate[] {
  return surfaces.map(surface => ({
    id: surface.mate,
    side: surface.side,
    kind: surface.kind,
    size: sizeOf(mesh, surface),
    at: surface.at,
    axis: surface.axis,
  }));
}

function sizeOf(mesh: TriangleMesh, surface: MateSurface): number {
  const { loops, at } = sectionAcross(mesh, surface.at, surface.axis);
  if (surface.kind === 'thread') return threadSize(loops, at, surface.side);
  if (surface.kind === 'round')
    return loopNear(loops, at, surface.size, surface.side)?.diameter ?? Number.NaN;
  const basis = basisOf(surface.axis);
  const widths = flatNormals(surface).map(n => widthAlong(loops, at, [dot(n, basis.x), dot(n, basis.y)]));
  // What must pass the narrowest pair of flats, or be passed by the widest.
  return surface.side === 'inside' ? Math.min(...widths) : Math.max(...widths);
}

/** Twice the farthest that the innermost loop of its side comes from the axis. */
function threadSize(
  loops: readonly Loop[],
  [x, y]: readonly [number, number],
  side: MateSurface['side'],
): number {
  const reaches = loops
    .filter(l => (side === 'inside' ? l.area < 0 : l.area > 0))
    .map(l => Math.max(...l.points.map(p => Math.hypot(p[0] - x, p[1] - y))));
  return reaches.length > 0 ? 2 * Math.min(...reaches) : Number.NaN;
}

/** Square to each pair of flats, in space. */
function flatNormals({ across, axis, flats = 2 }: MateSurface): Point3[] {
  if (!across) throw new RangeError('Flats need the way their width is measured.');
  const basis = basisOf(axis);
  const [u, v] = [dot(across, basis.x), dot(across, basis.y)];
  return Array.from({ length: flats / 2 }, (_, i) => {
    const a = (2 * Math.PI * i) / flats;
    const [p, q] = [u * Math.cos(a) - v * Math.sin(a), u * Math.sin(a) + v * Math.cos(a)];
    return [0, 1, 2].map(k => p * basis.x[k]! + q * basis.y[k]!) as unknown as Point3;
  });
}

/** From the nearest crossing on one side of `at` to the nearest on the other, along a unit direction. */
function widthAlong(
  loops: readonly Loop[],
  [x, y]: readonly [number, number],
  [u, v]: readonly [number, number],
): number {
  let [before, after] = [-Infinity, Infinity];
  for (const { points } of loops) {
    for (let i = 0; i < points.length; i++) {
      const [ax, ay] = points[i]!;
      const [bx, by] = points[(i + 1) % points.length]!;
      // Distance to the line through `at` along (u, v): a crossing is where it changes its sign.
      const da = (ax - x) * v - (ay - y) * u;
      const db = (bx - x) * v - (by - y) * u;
      if (da >= 0 === db >= 0) continue;
      const t = da / (da - db);
      const along = (ax + t * (bx - ax) - x) * u + (ay + t * (by - ay) - y) * v;
      if (along < 0) before = Math.max(before, along);
      else after = Math.min(after, along);
    }
  }
  const width = after - before;
  return Number.isFinite(width) ? width : Number.NaN;
}

/** Triangles that lie on a mate's surface: for lighting it. Index per triangle, −1 for none. */
export function trianglesOfMates(
  mesh: TriangleMesh,
  surfaces: readonly MateSurface[],
  sagitta: number,
): Int16Array {
  const owner = new Int16Array(mesh.triangles.length / 3).fill(-1);
  const { positions, triangles } = mesh;
  const near = sagitta + 1e-3;
  surfaces.forEach((surface, index) => {
    const { at, axis, size, from, to } = surface;
    const normals = surface.kind === 'flats' ? flatNormals(surface) : [];
    const point = (v: number): Point3 => [positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!];
    const off = (p: Point3): Point3 => [p[0] - at[0], p[1] - at[1], p[2] - at[2]];
    const within = (p: Point3) => {
      const along = dot(p, axis);
      return along > from - near && along < to + near;
    };
    const onRound = (p: Point3) => {
      const o = off(p);
      const along = dot(o, axis);
      const radius = Math.sqrt(Math.max(0, dot(o, o) - along * along));
      return Math.abs(radius - size / 2) < near;
    };
    for (let t = 0; t < owner.length; t++) {
      const corners = [0, 1, 2].map(k => point(triangles[3 * t + k]!));
      if (!corners.every(within)) continue;
      const n = facing(mesh, t);
      const length = Math.hypot(...n) || 1;
      if (surface.kind === 'thread') {
        const radii = corners.map(p => Math.sqrt(Math.max(0, dot(off(p), off(p)) - dot(off(p), axis) ** 2)));
        // Ridges and grooves alike, but not the walls beyond them, nor a floor, which lies flat across the axis.
        const along = corners.map(p => dot(p, axis));
        if (Math.max(...along) - Math.min(...along) < 1e-3) continue;
        if (radii.every(r => r < size / 2 + near && r > surface.core! / 2 - near)) owner[t] = index;
      } else if (surface.kind === 'round') {
        // A face that closes the bore may have all its corners on it too: the wall faces sideways.
        if (corners.every(onRound) && Math.abs(dot(n, axis)) < 0.7 * length) owner[t] = index;
      } else if (
        normals.some(
          f =>
            Math.abs(dot(n, f)) > 0.99 * length &&
            corners.every(p => Math.abs(Math.abs(dot(off(p), f)) - size / 2) < near),
        )
      )
        owner[t] = index;
    }
  });
  return owner;
}
