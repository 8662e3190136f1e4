import { facing, type TriangleMesh } from '../mesh/mesh';
import { RayTree } from '../mesh/rays';
import { basisOf, dot, type Point3, point3 } from '../vector';

export interface Thinnest {
  /** mm */
  thickness: number;
  at: [number, number, number];
}

/** Walls built of passes side by side, and flats built of layers on each other. */
export interface ThinnestWalls {
  upright: Thinnest | undefined;
  flat: Thinnest | undefined;
}

/** A wall whose faces are closer than this to the stacking direction is one of layers: cosine. */
const FLAT = 0.8;

/**
 * Number of rays shot into the solid, from its largest triangles: a wall of two triangles is not lost among a thousand
 * small ones.
 */
const MOST_RAYS = 1500;
/** The two faces of a wall face away from each other: the cosine between their normals is below this. */
const OPPOSITE = -0.85;
/** A ray starts this far inside, so that it does not meet its own face. */
const INSET = 1e-4;

/**
 * The thinnest walls: from triangle centres straight into the material to the opposite face.
 * @param stacked the way its layers are stacked
 */
export function thinnestWalls(mesh: TriangleMesh, stacked: Point3 = [0, 0, 1]): ThinnestWalls {
  const { positions: p, triangles } = mesh;
  const count = triangles.length / 3;
  const normals = new Float64Array(3 * count);
  const areas = new Float64Array(count);
  for (let t = 0; t < count; t++) {
    const n = facing(mesh, t);
    const length = Math.hypot(...n) || 1;
    areas[t] = length;
    normals.set([n[0] / length, n[1] / length, n[2] / length], 3 * t);
  }
  const tree = new RayTree(mesh);
  const best: ThinnestWalls = { upright: undefined, flat: undefined };
  const largest = Uint32Array.from(areas.keys())
    .sort((a, b) => areas[b]! - areas[a]!)
    .subarray(0, MOST_RAYS);
  for (const t of largest) {
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
    const kind = Math.abs(dot(direction, stacked)) > FLAT ? 'flat' : 'upright';
    const known = best[kind];
    if (known && thickness >= known.thickness) continue;
    if (isWall(mesh, tree, start, direction, thickness)) best[kind] = { thickness, at: start };
  }
  return best;
}

type Vector = [number, number, number];

/**
 * A wall continues sideways, in at least one direction of each pair, for this many times its thickness or this many mm.
 */
const GOES_ON = { share: 1.5, least: 0.6 };
/** Where it continues it may be thicker by this factor: it tapers or bends. */
const AS_THIN = 1.7;

/**
 * Whether a thin place is part of a wall. What is left between the strokes of sunk letters is thin in one direction and
 * short in the other, and is supported by the wall behind it.
 */
function isWall(mesh: TriangleMesh, tree: RayTree, at: Vector, across: Vector, thickness: number): boolean {
  const { x, y } = basisOf(across);
  const far = Math.max(GOES_ON.least, GOES_ON.share * thickness);
  const goesOn = (way: readonly [number, number, number], by: number) => {
    const point = point3(i => at[i] + (thickness / 2) * across[i] + by * way[i]);
    const there = tree.firstHit(point, across);
    const back = tree.firstHit(point, [-across[0], -across[1], -across[2]]);
    // From inside the plastic a face is met from behind.
    const within = there && dot(facing(mesh, there.triangle), across) > 0;
    return Boolean(within && back && there!.distance + back.distance < AS_THIN * thickness);
  };
  return [x, y].every(way => goesOn(way, far) || goesOn(way, -far));
}
