import { drawnFrom, type Pose, posed } from '../print/pose';
import type { BuiltPart } from '../shape/built-part';
import { measureMates } from '../shape/checks/measure';
import { boundsOf, mirroredMesh, type TriangleMesh } from '../shape/mesh/mesh';
import type { Point3 } from '../shape/vector';

/** What a file makes of a version: the practice printer prints what it is given, right or wrong. */
export interface Filed {
  /** 1 is as drawn. */
  scale: number;
  /** Left and right are exchanged. */
  mirrored: boolean;
  /** By surface, as the file has it, mm. */
  sizes: Record<string, number>;
}

/** A file’s three sizes go together within this share, or it is another part, or stretched. */
const ALIKE = 0.003;
/** Of its corners so many are the version’s, within so much, mm. */
const SHARE = 0.9;
const NEAR = 0.02;

/** @param file triangles as they lie in it @returns null where the file is none of this version */
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
    if (sharedCorners(laid, drawn) < SHARE) continue;
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

/** How many corners of one are corners of the other too, as a share. */
function sharedCorners(a: TriangleMesh, b: TriangleMesh): number {
  const cell = (x: number) => Math.floor(x / (4 * NEAR));
  const cells = new Map<string, number[]>();
  for (let i = 0; i < b.positions.length; i += 3) {
    const key = [0, 1, 2].map(k => cell(b.positions[i + k]!)).join();
    cells.set(key, [...(cells.get(key) ?? []), i]);
  }
  let found = 0;
  const steps = [-1, 0, 1];
  for (let i = 0; i < a.positions.length; i += 3) {
    const at = [0, 1, 2].map(k => a.positions[i + k]!);
    const [x, y, z] = at.map(cell) as [number, number, number];
    const near = steps.some(dx =>
      steps.some(dy =>
        steps.some(dz =>
          cells
            .get([x + dx, y + dy, z + dz].join())
            ?.some(j => Math.hypot(...at.map((v, k) => v - b.positions[j + k]!)) < NEAR),
        ),
      ),
    );
    if (near) found++;
  }
  return found / (a.positions.length / 3);
}
