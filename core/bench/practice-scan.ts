import { boundsOf, type TriangleMesh } from '../shape/mesh/mesh';
import { moved, type Point3, scaled } from '../shape/vector';
import { objectOf } from './objects';
import { gauss, seeded, seedOf } from './random';
import { ROUND_A_TABLE, scannedBy } from './scanner';
import type { World } from './world';

/** Scale error of the practice scanner, sd as a share: only calipers reveal it. */
const SCALE = 0.004;
/** A longer object is scanned from farther away, mm. */
const [FINEST, COARSEST, CELLS] = [0.4, 1, 140];

/** As the object happened to lie when the scanner started: nothing is upright by itself. */
export function lying(mesh: TriangleMesh, turn: number, lean: number, shift: Point3): TriangleMesh {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const [k, l] = [Math.cos(lean), Math.sin(lean)];
  const positions = new Float64Array(mesh.positions.length);
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y, z] = [mesh.positions[i]!, mesh.positions[i + 1]!, mesh.positions[i + 2]!];
    const [u, v] = [c * x - s * y, s * x + c * y];
    positions.set(moved([u, k * v - l * z, l * v + k * z], shift), i);
  }
  return { positions, triangles: mesh.triangles };
}

/**
 * What the practice scanner returns of a job's hidden object: first from above, then from below, so that both must be
 * merged. Null where it has no such object.
 * @param count the number of scans made before
 */
export function practiceScan(recipe: string, { sizes, seed }: World, count: number): TriangleMesh | null {
  const object = objectOf(recipe, sizes);
  if (!object) return null;
  const random = seeded(seedOf('scan', seed, count));
  const { min, max } = boundsOf(object);
  const longest = Math.max(...max.map((x, i) => x - min[i]!));
  const over = count % 2 === 0 ? 1 : -1;
  const place = (): Point3 => [
    min[0] + random() * (max[0] - min[0]),
    min[1] + random() * (max[1] - min[1]),
    max[2],
  ];
  const scan = scannedBy(object, {
    seed: seedOf('noise', seed, count),
    spacing: Math.min(COARSEST, Math.max(FINEST, longest / CELLS)),
    noise: 0.02 + 0.04 * random(),
    warp: 0.02 + 0.05 * random(),
    // Belongs to one scanner, whatever it scans.
    scale: 1 + gauss(seeded(seedOf('scanner')), 0, SCALE),
    islands: Math.floor(4 * random()),
    dropouts: [{ at: place(), radius: 0.03 * longest }],
    views: ROUND_A_TABLE.map(([x, y, z]): Point3 => [x, y, over * z]),
  });
  const shift = scaled([random() - 0.5, random() - 0.5, random()], 3 * longest);
  return lying(scan, 2 * Math.PI * random(), 0.8 * (random() - 0.5), shift);
}
