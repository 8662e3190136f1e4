import type { TriangleMesh } from '../shape/mesh/mesh';
import type { Point3 } from '../shape/vector';

/** The normal and the area of each triangle of a part: worked out once, used for every pose. */
export interface Facings {
  /** Unit vectors, x, y, z each. */
  normal: Float64Array;
  /** mm² */
  area: Float64Array;
}

export function facingsOf({ positions: p, triangles }: TriangleMesh): Facings {
  const count = triangles.length / 3;
  const normal = new Float64Array(3 * count);
  const area = new Float64Array(count);
  for (let t = 0; t < count; t++) {
    const [a, b, c] = [3 * triangles[3 * t]!, 3 * triangles[3 * t + 1]!, 3 * triangles[3 * t + 2]!];
    const [ux, uy, uz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
    const [vx, vy, vz] = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
    const [x, y, z] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const long = Math.sqrt(x * x + y * y + z * z);
    area[t] = long / 2;
    if (long === 0) continue;
    normal[3 * t] = x / long;
    normal[3 * t + 1] = y / long;
    normal[3 * t + 2] = z / long;
  }
  return { normal, area };
}

/** How much a triangle faces that direction: 1 square to it, 0 along it, below 0 away from it. */
export const facesTo = ({ normal }: Facings, t: number, to: Point3): number =>
  normal[3 * t]! * to[0] + normal[3 * t + 1]! * to[1] + normal[3 * t + 2]! * to[2];

/** By triangle, whether it faces down by more than a share. @param spared triangles that are never tested */
export function hanging(
  facings: Facings,
  down: Point3,
  steep: number,
  spared?: (t: number) => boolean,
): Uint8Array {
  const hangs = new Uint8Array(facings.area.length);
  for (let t = 0; t < hangs.length; t++) if (facesTo(facings, t, down) > steep && !spared?.(t)) hangs[t] = 1;
  return hangs;
}
