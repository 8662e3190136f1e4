import type { ScanSurface } from './scan-surface';

/** A scan for the screen: as it is or, where it is finer than a screen shows, its surfels. */
export interface ShownMesh {
  positions: Float32Array;
  normals: Float32Array;
  triangles: Uint32Array;
  /** The new corner for each corner of the scan. */
  of: Uint32Array | null;
}

/** A screen shows no more than this. */
const MOST_SHOWN = 350_000;

export function shownMesh(scan: ScanSurface, most = MOST_SHOWN): ShownMesh {
  const { positions, triangles } = scan.mesh;
  if (triangles.length / 3 <= most)
    return {
      positions: Float32Array.from(positions),
      normals: Float32Array.from(scan.normals),
      triangles: triangles.slice(),
      of: null,
    };
  let cell = scan.spacing;
  let surfels = scan.surfels(cell);
  // A surface of n corners has about twice as many triangles.
  while (2 * surfels.count > most) {
    cell *= 2;
    surfels = scan.surfels(cell);
  }
  const known = new Set<number>();
  const faces: number[] = [];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [
      surfels.of[triangles[t]!]!,
      surfels.of[triangles[t + 1]!]!,
      surfels.of[triangles[t + 2]!]!,
    ];
    if (a === b || b === c || c === a) continue;
    const [low, mid, high] = [a, b, c].sort((x, y) => x - y) as [number, number, number];
    const key = (low * surfels.count + mid) * 8 + (high % 8);
    if (known.has(key)) continue;
    known.add(key);
    faces.push(a, b, c);
  }
  return {
    positions: Float32Array.from(surfels.points),
    normals: Float32Array.from(surfels.normals),
    triangles: Uint32Array.from(faces),
    of: surfels.of,
  };
}
