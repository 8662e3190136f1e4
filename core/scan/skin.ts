import type { TriangleMesh } from '../shape/mesh/mesh';
import type { Point3 } from '../shape/vector';

/** How a scanner saw an object's surface: where it saw nothing, and where it saw the same place twice. */

/** Sides of the scan as it lies, by axis: towards its lower end, and its upper one. */
const SIDES = [
  ['left', 'right'],
  ['front', 'back'],
  ['underside', 'top'],
] as const;
export type ScanSide = (typeof SIDES)[number][number];

export interface UnseenSide {
  side: ScanSide;
  /** At least this area is missing, seen from there, mm². */
  area: number;
  /** As a share of all that should be visible from there. */
  share: number;
}

/** A smaller missing share is a border, or a hole in the object itself. Tried on scans of known objects. */
const MISSING = 0.06;

/**
 * Sides from which a part is missing. In every closed surface, what faces one way along an axis covers what faces the
 * other way (the divergence theorem of a constant field): the difference is missing. What is missing on both sides
 * cancels.
 */
export function unseenSides(mesh: TriangleMesh): UnseenSide[] {
  const seen: [number, number][] = [
    [0, 0],
    [0, 0],
    [0, 0],
  ];
  const n = normalAt(mesh);
  for (let t = 0; t < mesh.triangles.length / 3; t++) {
    n.of(t);
    for (let axis = 0; axis < 3; axis++) {
      const area = n.way[axis]! / 2;
      seen[axis]![area < 0 ? 0 : 1] += Math.abs(area);
    }
  }
  return seen
    .flatMap(([low, high], axis): UnseenSide[] => {
      const area = Math.abs(high - low);
      const share = area / Math.max(high, low);
      return share > MISSING ? [{ side: SIDES[axis as 0][low < high ? 0 : 1], area, share }] : [];
    })
    .sort((a, b) => b.area - a.area);
}

export interface DoubleSkin {
  /** The share of the places examined. */
  share: number;
  /** Median distance between the two. */
  apart: number;
}

/** Number of places that are examined. */
const PLACES = 1500;
/**
 * Two surfaces are apart by more than this many sd of scatter, this share of the object's length and of an edge; and by
 * less than that share of its length.
 */
const [CLEAR, APART, EDGES, NEAR] = [5, 0.002, 0.6, 0.015];
/** And they overlap to within this share of an edge: a low step does not count. */
const BESIDE = 0.5;
/** Surfaces whose normals agree within this cosine face the same way. */
const ALIKE = 0.7;
/** Fewer places than this share are chance. */
const LEAST = 0.03;

/**
 * Whether a part was scanned twice, the second time displaced: one surface lies over another and both face the same
 * way, with none between them that faces back. In any sound object there is one. Null where there is no such place.
 * @param fuzz scatter of the corners, sd, in the scan's own unit
 */
export function doubleSkin(mesh: TriangleMesh, fuzz: number, longest: number): DoubleSkin | null {
  const count = mesh.triangles.length / 3;
  const n = normalAt(mesh);
  const places = placesOf(mesh, n);
  const edge = places.reduce((sum, p) => sum + p.edge, 0) / Math.max(1, places.length);
  const [least, most] = [Math.max(CLEAR * fuzz, APART * longest, EDGES * edge), NEAR * longest];
  if (count < PLACES / 10 || !(most > least)) return null;
  const beside = (BESIDE * edge) ** 2;
  // Every triangle is visited once: the places are in a grid as coarse as the search is wide.
  const cell = most;
  const keyOf = (x: number, y: number, z: number) =>
    (Math.floor(x / cell) * 73_856_093) ^
    (Math.floor(y / cell) * 19_349_663) ^
    (Math.floor(z / cell) * 83_492_791);
  const grid = new Map<number, number[]>();
  places.forEach(({ at: [x, y, z] }, i) => {
    for (let k = 0; k < 27; k++) {
      const key = keyOf(
        x + ((k % 3) - 1) * cell,
        y + ((Math.floor(k / 3) % 3) - 1) * cell,
        z + (Math.floor(k / 9) - 1) * cell,
      );
      const known = grid.get(key);
      if (known) known.push(i);
      else grid.set(key, [i]);
    }
  });
  // Along its normal: the nearest surfaces that face the same way, and those that face back, on either side.
  const alike = places.map(() => [Infinity, Infinity] as [number, number]);
  const back = places.map(() => [Infinity, Infinity] as [number, number]);
  const { positions: p, triangles } = mesh;
  for (let t = 0; t < count; t++) {
    const [a, b, c] = [3 * triangles[3 * t]!, 3 * triangles[3 * t + 1]!, 3 * triangles[3 * t + 2]!];
    const x = (p[a]! + p[b]! + p[c]!) / 3;
    const y = (p[a + 1]! + p[b + 1]! + p[c + 1]!) / 3;
    const z = (p[a + 2]! + p[b + 2]! + p[c + 2]!) / 3;
    const near = grid.get(keyOf(x, y, z));
    if (!near) continue;
    n.of(t);
    const long = Math.hypot(n.way[0], n.way[1], n.way[2]);
    if (!(long > 0)) continue;
    for (const i of near) {
      const { at, way } = places[i]!;
      const [dx, dy, dz] = [x - at[0], y - at[1], z - at[2]];
      const along = dx * way[0] + dy * way[1] + dz * way[2];
      const far = Math.abs(along);
      if (far > most || far < least || dx * dx + dy * dy + dz * dz - along * along > beside) continue;
      const cos = (n.way[0] * way[0] + n.way[1] * way[1] + n.way[2] * way[2]) / long;
      const side = along < 0 ? 0 : 1;
      const kept = cos > ALIKE ? alike[i]! : cos < -ALIKE ? back[i]! : null;
      if (kept && far < kept[side]!) kept[side] = far;
    }
  }
  const apart = alike.flatMap((ways, i) => {
    const sides = ([0, 1] as const).filter(s => ways[s] < back[i]![s]);
    return sides.length > 0 ? [Math.min(...sides.map(s => ways[s]))] : [];
  });
  const share = apart.length / Math.max(1, places.length);
  if (share < LEAST) return null;
  apart.sort((a, b) => a - b);
  return { share, apart: apart[apart.length >> 1]! };
}

interface Place {
  at: Point3;
  way: Point3;
  /** Length of an edge there. */
  edge: number;
}

/** Centres of triangles, evenly through the list. */
function placesOf({ positions: p, triangles }: TriangleMesh, n: Normals): Place[] {
  const count = triangles.length / 3;
  const step = Math.max(1, count / PLACES);
  const places: Place[] = [];
  for (let s = 0; s < count; s += step) {
    const t = Math.floor(s);
    n.of(t);
    const long = Math.hypot(n.way[0], n.way[1], n.way[2]);
    if (!(long > 0)) continue;
    const middle = (k: 0 | 1 | 2) =>
      (p[3 * triangles[3 * t]! + k]! +
        p[3 * triangles[3 * t + 1]! + k]! +
        p[3 * triangles[3 * t + 2]! + k]!) /
      3;
    places.push({
      at: [middle(0), middle(1), middle(2)],
      way: [n.way[0] / long, n.way[1] / long, n.way[2] / long],
      edge: Math.sqrt(long),
    });
  }
  return places;
}

interface Normals {
  /** Twice the area, along the normal: written into place for each triangle, as a million of them are visited. */
  way: [number, number, number];
  of(triangle: number): void;
}

function normalAt({ positions: p, triangles }: TriangleMesh): Normals {
  const way: [number, number, number] = [0, 0, 0];
  return {
    way,
    of(t) {
      const [a, b, c] = [3 * triangles[3 * t]!, 3 * triangles[3 * t + 1]!, 3 * triangles[3 * t + 2]!];
      const [ux, uy, uz] = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!];
      const [vx, vy, vz] = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!];
      way[0] = uy * vz - uz * vy;
      way[1] = uz * vx - ux * vz;
      way[2] = ux * vy - uy * vx;
    },
  };
}
