import { drawnFrom, type Pose, posed } from '../print/pose';
import type { BuiltPart } from '../shape/built-part';
import { measureMates } from '../shape/checks/measure';
import { boundsOf, mirroredMesh, type TriangleMesh } from '../shape/mesh/mesh';
import { rayTreeOf } from '../shape/mesh/rays';
import type { Point3 } from '../shape/vector';

/** What a file does to a version: the practice printer prints what it is given, right or wrong. */
export interface Filed {
  /** 1 is as drawn. */
  scale: number;
  /** Left and right are swapped. */
  mirrored: boolean;
  /** By surface, its size in the file, mm. */
  sizes: Record<string, number>;
}

/** A file's three scales agree within this share; otherwise it is another part, or stretched. */
const ALIKE = 0.003;
/** This share of the corners of each must lie on the other, within this distance, mm. */
const SHARE = 0.9;
const NEAR = 0.02;

/** @param file its triangles @returns null where the file is not of this version */
export function filedAs(
  file: TriangleMesh,
  version: Pick<BuiltPart, 'mesh' | 'surfaces'>,
  pose: Pose,
): Filed | null {
  const drawn = posed(version.mesh, pose);
  const [is, was] = [boundsOf(file), boundsOf(drawn)];
  const ratios = [0, 1, 2].map(i => (is.max[i]! - is.min[i]!) / (was.max[i]! - was.min[i]!));
  const scale = ratios.reduce((sum, r) => sum + r, 0) / 3;
  if (!(scale > 0) || ratios.some(r => Math.abs(r / scale - 1) > ALIKE)) return null;
  for (const mirrored of [false, true]) {
    const own = mirrored ? mirroredMesh(file) : file;
    const { min } = boundsOf(own);
    const back = own.positions.map((x, i) => (x - min[i % 3]!) / scale + was.min[i % 3]!);
    const laid = { positions: back, triangles: own.triangles };
    if (Math.min(liesOn(laid, drawn), liesOn(drawn, laid)) < SHARE) continue;
    const lies = drawnFrom(version.mesh, pose);
    const mesh = { ...laid, positions: inPlace(back, lies) };
    const sizes = Object.fromEntries(
      measureMates(mesh, version.surfaces).map(({ id, size }) => [id, size * scale]),
    );
    return { scale, mirrored, sizes };
  }
  return null;
}

function inPlace(positions: Float64Array, lies: (lies: Point3) => Point3): Float64Array {
  const drawn = new Float64Array(positions.length);
  for (let i = 0; i < positions.length; i += 3)
    drawn.set(lies([positions[i]!, positions[i + 1]!, positions[i + 2]!]), i);
  return drawn;
}

/** The share of one's corners that lie on the other. */
function liesOn({ positions: p }: TriangleMesh, other: TriangleMesh): number {
  const tree = rayTreeOf(other);
  let found = 0;
  for (let i = 0; i < p.length; i += 3) if (tree.nearest([p[i]!, p[i + 1]!, p[i + 2]!], NEAR)) found++;
  return found / (p.length / 3);
}
