import { facing, type TriangleMesh } from '../mesh/mesh';

export interface Thinnest {
  /** mm */
  thickness: number;
  at: [number, number, number];
}

/** Rays shot into the solid; more would find no other wall on parts of this kind. */
const MOST_RAYS = 400;
/** A wall has two faces that look away from each other: cosine between their normals below this. */
const OPPOSITE = -0.85;
/** A ray starts this far inside, so as not to meet its own face. */
const INSET = 1e-4;

/** The thinnest wall: from triangle centres straight into the material to the face that looks away. */
export function thinnestWall(mesh: TriangleMesh): Thinnest | undefined {
  const { positions: p, triangles } = mesh;
  const count = triangles.length / 3;
  const normals = new Float64Array(3 * count);
  for (let t = 0; t < count; t++) {
    const n = facing(mesh, t);
    const length = Math.hypot(...n) || 1;
    normals.set([n[0] / length, n[1] / length, n[2] / length], 3 * t);
  }
  let best: Thinnest | undefined;
  const stride = Math.max(1, Math.floor(count / MOST_RAYS));
  for (let t = 0; t < count; t += stride) {
    const direction: Vector = [-normals[3 * t]!, -normals[3 * t + 1]!, -normals[3 * t + 2]!];
    const start: Vector = [0, 1, 2].map(
      axis =>
        (p[3 * triangles[3 * t]! + axis]! +
          p[3 * triangles[3 * t + 1]! + axis]! +
          p[3 * triangles[3 * t + 2]! + axis]!) /
          3 +
        INSET * direction[axis]!,
    ) as Vector;
    const hit = firstHit(mesh, start, direction);
    if (!hit) continue;
    const facingBack =
      normals[3 * t]! * normals[3 * hit.triangle]! +
      normals[3 * t + 1]! * normals[3 * hit.triangle + 1]! +
      normals[3 * t + 2]! * normals[3 * hit.triangle + 2]!;
    if (facingBack > OPPOSITE) continue;
    const thickness = hit.distance + INSET;
    if (!best || thickness < best.thickness) best = { thickness, at: start };
  }
  return best;
}

type Vector = [number, number, number];

/** Möller and Trumbore, "Fast, minimum storage ray/triangle intersection" (1997), over all triangles. */
function firstHit(
  mesh: TriangleMesh,
  o: Vector,
  d: Vector,
): { distance: number; triangle: number } | undefined {
  const { positions: p, triangles } = mesh;
  let nearest = Infinity;
  let triangle = -1;
  for (let t = 0; t < triangles.length; t += 3) {
    const a = 3 * triangles[t]!;
    const b = 3 * triangles[t + 1]!;
    const c = 3 * triangles[t + 2]!;
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
    if (Math.abs(det) < 1e-14) continue;
    const sx = o[0] - p[a]!;
    const sy = o[1] - p[a + 1]!;
    const sz = o[2] - p[a + 2]!;
    const u = (sx * hx + sy * hy + sz * hz) / det;
    if (u < 0 || u > 1) continue;
    const qx = sy * uz - sz * uy;
    const qy = sz * ux - sx * uz;
    const qz = sx * uy - sy * ux;
    const v = (d[0] * qx + d[1] * qy + d[2] * qz) / det;
    if (v < 0 || u + v > 1) continue;
    const distance = (vx * qx + vy * qy + vz * qz) / det;
    if (distance > 0 && distance < nearest) {
      nearest = distance;
      triangle = t / 3;
    }
  }
  return triangle < 0 ? undefined : { distance: nearest, triangle };
}
