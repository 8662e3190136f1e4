import { facing, type TriangleMesh } from '../mesh/mesh';
import { RayTree } from '../mesh/rays';

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
  const tree = new RayTree(mesh);
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
    const hit = tree.firstHit(start, direction);
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
