import { eigs } from 'mathjs';
import { joined, mirroredMesh, onlyTriangles, type TriangleMesh } from '../shape/mesh/mesh';
import { dot, lengthOfVector, moved, type Point3, point3, scaled } from '../shape/vector';
import { aligned } from './align/align';
import type { Pose } from './align/pose';
import { NearestPoints } from './nearest';
import { ScanSurface, spacingOf } from './scan-surface';

/** A plane of symmetry: points x with normal · x = at. Lengths mm. */
export interface MirrorPlane {
  normal: Point3;
  at: number;
}

export type Symmetry =
  | ({ ok: true; rms: number; overlap: number } & MirrorPlane)
  | { ok: false; message: string };

/** At least this share of the mirrored scan must lie on the scan itself. Tried on scans of known objects. */
const LEAST_OVERLAP = 0.4;
/** A whole object overlaps its mirror image this much: then its own axes were right. */
const NEARLY_ALL = 0.8;
/**
 * A turn that comes with the mirroring, as the share of a unit vector, and a shift along the plane, mm, that count as
 * none.
 */
const [NO_TURN, NO_GLIDE] = [0.03, 0.6];

const NONE =
  'It has no plane of symmetry, or too little of both sides was seen: mirror nothing, or scan more of the other side.';

/** The mirror image is aligned with the scan: first about the planes across the object's own axes, then in any pose. */
export function symmetryOf(scan: ScanSurface): Symmetry {
  const mirrored = new ScanSurface(mirroredMesh(scan.mesh), scan.fuzz);
  const starts = axesOf(scan).map(plane => startFor(plane));
  for (const asked of [{ starts, anyOfEqual: true }, { anyOfEqual: true }]) {
    const found = aligned(scan, mirrored, asked);
    if (!found.ok || found.overlap < ('starts' in asked ? NEARLY_ALL : LEAST_OVERLAP)) continue;
    const plane = planeOf(found.pose);
    if (plane) return { ok: true, rms: found.rms, overlap: found.overlap, ...plane };
  }
  return { ok: false, message: NONE };
}

/** Planes through the middle of what was seen, across its three axes. */
function axesOf(scan: ScanSurface): MirrorPlane[] {
  const { points, count } = scan.surfels(0);
  const middle = point3(i => {
    let sum = 0;
    for (let s = 0; s < count; s++) sum += points[3 * s + i]!;
    return sum / count;
  });
  const spread = [0, 1, 2].map(i =>
    [0, 1, 2].map(j => {
      let sum = 0;
      for (let s = 0; s < count; s++)
        sum += (points[3 * s + i]! - middle[i as 0]!) * (points[3 * s + j]! - middle[j as 0]!);
      return sum / count;
    }),
  );
  const { eigenvectors } = eigs(spread) as { eigenvectors: { vector: number[] }[] };
  return eigenvectors.map(({ vector }) => {
    const long = Math.hypot(...vector);
    const normal = point3(i => vector[i]! / long);
    return { normal, at: dot(normal, middle) };
  });
}

/** What takes the image in the plane x = 0 to that in another: both mirror, so that together they only turn and shift. */
function startFor({ normal: n, at }: MirrorPlane): Pose {
  const turn = Array.from({ length: 9 }, (_, k) => {
    const [i, j] = [Math.floor(k / 3), k % 3];
    const mirror = (i === j ? 1 : 0) - 2 * n[i as 0]! * n[j as 0]!;
    return j === 0 ? -mirror : mirror;
  });
  return { turn, shift: scaled(n, 2 * at) };
}

/** The plane of a mirroring that is a pure one: without a turn about its normal, or a shift along itself. */
function planeOf({ turn, shift }: Pose): MirrorPlane | null {
  // Of the mirroring, I − 2 n nᵀ, what is left of I is 2 n nᵀ.
  const own = Array.from({ length: 9 }, (_, k) => {
    const [i, j] = [Math.floor(k / 3), k % 3];
    return ((i === j ? 1 : 0) - (j === 0 ? -turn[k]! : turn[k]!)) / 2;
  });
  const columns = [0, 1, 2].map(j => point3(i => own[3 * i + j]!));
  const longest = columns.reduce((a, b) => (lengthOfVector(b) > lengthOfVector(a) ? b : a));
  const normal = scaled(longest, 1 / lengthOfVector(longest));
  const odd = Math.hypot(...own.map((x, k) => x - normal[Math.floor(k / 3) as 0]! * normal[(k % 3) as 0]!));
  const along = dot(shift, normal);
  const glide = lengthOfVector(moved(shift, normal, -along));
  return odd < NO_TURN && glide < NO_GLIDE ? { normal, at: along / 2 } : null;
}

/** The side that was seen less is completed from the other: from the mirror image, what the scan itself lacks. */
export function completed(mesh: TriangleMesh, { normal, at }: MirrorPlane): TriangleMesh {
  const { positions: p, triangles } = mesh;
  const image = new Float64Array(p.length);
  for (let v = 0; v < p.length; v += 3) {
    const q: Point3 = [p[v]!, p[v + 1]!, p[v + 2]!];
    const far = 2 * (dot(q, normal) - at);
    for (let i = 0; i < 3; i++) image[v + i] = q[i as 0]! - far * normal[i as 0]!;
  }
  const spacing = spacingOf(mesh);
  const known = new NearestPoints(p);
  const lacks = new Uint8Array(p.length / 3);
  for (let v = 0; v < lacks.length; v++)
    lacks[v] = known.nearest(image[3 * v]!, image[3 * v + 1]!, image[3 * v + 2]!, SAME * spacing) < 0 ? 1 : 0;
  const faces: number[] = [];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
    if (lacks[a]! + lacks[b]! + lacks[c]! > 0) faces.push(a, c, b);
  }
  return joined([mesh, onlyTriangles({ positions: image, triangles }, faces)]);
}

/** A corner of the image this near to one of the scan's, in its spacings, is already there. */
const SAME = 1.2;
