import { type Lay, laidMesh, widthProfile } from '../shape/laid-object';
import { onlyTriangles, type TriangleMesh } from '../shape/mesh/mesh';
import type { Point2, Point3 } from '../shape/vector';
import { withoutIslands } from './prepare';
import type { ScanSurface } from './scan-surface';
import { shownMesh } from './shown';

/** A part that follows a scan visits every triangle of it. */
const MOST_FOLLOWED = 100_000;
/** A scan whose corners are nearer than this, mm, shows its scatter but no more of the object. */
const FINE = 1;
/** Floating specks are not part of an object, and would make it wider: as a share of the largest body. */
const SPECKS = 0.01;
/** At least this many corners of such a scan become one. */
const EVENED = 2;

/**
 * A scan's surface with few triangles for a part to follow. Corners close together with about the same normal are
 * merged in their middle, which also removes most of the scatter.
 * @param factor true size over scanned size
 */
export function thinned(scan: ScanSurface, factor = 1): TriangleMesh {
  const count = scan.mesh.triangles.length / 3;
  const most = scan.spacing < FINE ? Math.min(MOST_FOLLOWED, count / EVENED) : MOST_FOLLOWED;
  const shown = shownMesh(scan, most);
  const whole = withoutIslands(
    { positions: Float64Array.from(shown.positions, x => factor * x), triangles: shown.triangles },
    SPECKS,
  );
  // A corner that no triangle uses would count in the object's box.
  return onlyTriangles(whole, whole.triangles);
}

/** A scan's surface for a part to follow, and its sizes in the part's orientation. */
export interface Followed {
  mesh: TriangleMesh;
  /** Left to right, and from its underside to its highest place. */
  length: number;
  high: number;
  /** Front to back, of its lower half. */
  width: number;
  /** Standard uncertainty of each. */
  u: number;
}

/** For a size from end to end, mm: no scan's ends are surer. Common practice, no source. */
const LEAST_DOUBT = 0.03;
/** The outermost corners stand out by some of the scatter at both ends. Tried on a torch and a grip of known size. */
const OUTERMOST = 2;

export function followed(scan: ScanSurface, lay: Omit<Lay, 'object'>, factor = 1): Followed {
  const mesh = thinned(scan, factor);
  const laid = laidMesh(mesh, lay);
  const { front, back } = widthProfile(laid);
  const half = front.length >> 1;
  return {
    mesh,
    length: laid.size[0],
    high: laid.size[2],
    width: back[half]! - front[half]!,
    u: Math.hypot(LEAST_DOUBT, OUTERMOST * scan.fuzz),
  };
}

/**
 * The positions of places of a scan relative to a part that follows it, seen from above: from the centre of the
 * object's box, in the part's orientation.
 */
export function placesUnder(
  scan: ScanSurface,
  places: readonly Point3[],
  lay: Omit<Lay, 'object'>,
  factor = 1,
): Point2[] {
  const { positions, triangles } = thinned(scan, factor);
  // Placed together with their surface, they move as it does.
  const both = Float64Array.from([...positions, ...places.flatMap(p => p.map(x => factor * x))]);
  const { mesh } = laidMesh({ positions: both, triangles }, lay);
  return places.map((_, i): Point2 => {
    const at = positions.length + 3 * i;
    return [mesh.positions[at]!, mesh.positions[at + 1]!];
  });
}
