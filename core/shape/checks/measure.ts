import type { MeasuredMate } from '../built-part';
import type { MateSurface } from '../mates';
import { facing, type TriangleMesh } from '../mesh/mesh';
import { type Loop, loopNear, sectionAcross } from '../mesh/section';
import type { Point3 } from '../vector';
import { basisOf, cross, dot, moved, point3 } from '../vector';

/** Sizes come from sections through the triangles, never from the parameters. */
export function measureMates(mesh: TriangleMesh, surfaces: readonly MateSurface[]): MeasuredMate[] {
  return surfaces.map(surface => {
    const { size, at } = whereItIsMost(mesh, surface);
    return { id: surface.mate, side: surface.side, kind: surface.kind, size, at, axis: surface.axis };
  });
}

/** Other places along a mate where it is measured, as shares of its length. */
const ELSEWHERE = Array.from({ length: 19 }, (_, i) => (i + 1) / 20);
/** Beside its middle, as shares of its size: flats continue on both sides of a hole in them. */
const BESIDE = [0, -0.15, 0.15, -0.3, 0.3];
/** A pair of flats may be much wider than their distance; of six flats each ends at 0.29. */
const FAR_BESIDE = [...BESIDE, -0.5, 0.5, -0.75, 0.75];
/** Sizes closer than this are the same, mm: flats of the screen's triangles are up to 0.03 off. */
const ALIKE = 0.08;
/** Of the places that show any width, at least this share must show the surface as drawn. */
const SHOWN = 0.1;

/**
 * A mate is measured on its own surface. A groove, a slot, a screw hole or a stub that was added in its middle is not
 * part of it: where the middle is not as drawn, other places along and beside it are tried. A mate that is spoiled as a
 * whole is nowhere as drawn, and its true size is returned.
 */
function whereItIsMost(mesh: TriangleMesh, surface: MateSurface): { size: number; at: Point3 } {
  const middle = { size: sizeOf(mesh, surface), at: surface.at };
  if (Math.abs(middle.size - surface.size) < ALIKE || surface.taper || surface.kind === 'girth')
    return middle;
  const { axis, from, to } = surface;
  const here = dot(surface.at, axis);
  const aside = surface.kind === 'flats' ? cross(axis, surface.across!) : null;
  const besides = !aside ? [0] : (surface.flats ?? 2) > 2 ? BESIDE : FAR_BESIDE;
  const places = ELSEWHERE.flatMap(share => {
    const along = moved(surface.at, axis, from + share * (to - from) - here);
    return besides.map(by => {
      const at = aside ? moved(along, aside, by * surface.size) : along;
      return { size: sizeOf(mesh, { ...surface, at }), at };
    });
  });
  const asDrawn = places.filter(p => Math.abs(p.size - surface.size) < ALIKE);
  const seen = places.filter(p => Number.isFinite(p.size));
  if (asDrawn.length >= Math.max(2, SHOWN * seen.length)) return nearestTo(asDrawn, surface.at);
  const parted = partlyThere(mesh, surface, [surface.at, ...places.map(p => p.at)]);
  if (parted) return parted;
  const all = [middle, ...places].map(p => ({
    ...p,
    // Where there is nothing, nothing is alike.
    shared: [middle, ...places].filter(q => Math.abs(q.size - p.size) < ALIKE).length,
  }));
  const most = all.reduce((best, p) => (p.shared > best.shared ? p : best));
  return Number.isNaN(middle.size) && Number.isFinite(most.size) ? most : middle;
}

const nearestTo = <P extends { at: Point3 }>(places: readonly P[], to: Point3): P =>
  places.reduce((best, p) => (gap(p.at, to) < gap(best.at, to) ? p : best));

const gap = (a: Point3, b: Point3) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/**
 * At least this share must be left of a round mate's circle, or of a width's two ends, where something was joined to
 * it.
 */
const LEAST_ARC = 0.2;
/** A point of the section this near to the drawn surface is on it, mm. */
const ON_IT = 0.05;

/**
 * Where something stands out of a mate along its whole length, no loop has its size: what is left of its own surface is
 * measured. Null where too little is left.
 */
function partlyThere(
  mesh: TriangleMesh,
  surface: MateSurface,
  places: readonly Point3[],
): { size: number; at: Point3 } | null {
  for (const at of places) {
    const section = sectionAcross(mesh, at, surface.axis);
    const size =
      surface.kind === 'round'
        ? arcSize(section.loops, section.at, surface)
        : surface.kind === 'span'
          ? endsSize(section.loops, section.at, surface)
          : Number.NaN;
    if (Number.isFinite(size)) return { size, at };
  }
  return null;
}

/** Diameter of the part of a section that lies on the mate's circle; NaN where that is only a small part of it. */
function arcSize(
  loops: readonly Loop[],
  [x, y]: readonly [number, number],
  { size, side }: MateSurface,
): number {
  let arc = 0;
  const radii: number[] = [];
  for (const { points } of loops)
    points.forEach(([ax, ay], i) => {
      const [bx, by] = points[(i + 1) % points.length]!;
      const [ra, rb] = [Math.hypot(ax - x, ay - y), Math.hypot(bx - x, by - y)];
      if (Math.abs(ra - size / 2) > ON_IT || Math.abs(rb - size / 2) > ON_IT) return;
      arc += Math.hypot(bx - ax, by - ay);
      radii.push(ra, rb);
    });
  if (arc < LEAST_ARC * Math.PI * size) return Number.NaN;
  return 2 * (side === 'inside' ? Math.min(...radii) : Math.max(...radii));
}

/** The next point of a closed line that is not practically the same: a scanned wall is rough. */
function away(points: Loop['points'], from: number, step: 1 | -1): Loop['points'][0] {
  const [x, y] = points[from]!;
  for (let k = 1; ; k++) {
    const point = points.at((from + k * step) % points.length)!;
    if (k >= points.length - 1 || Math.hypot(point[0] - x, point[1] - y) > ROUGH) return point;
  }
}

/** mm */
const ROUGH = 0.6;
/** Cosine of how far an end may lean. */
const END_FACES = 0.9;

/** Between the two ends of a width, where both are there; otherwise NaN. */
function endsSize(
  loops: readonly Loop[],
  [x, y]: readonly [number, number],
  { size, across, axis, side }: MateSurface,
): number {
  const basis = basisOf(axis);
  const [u, v] = [dot(across!, basis.x), dot(across!, basis.y)];
  // An end faces along the width, into the gap of an inside and out of an outside: other walls only pass by there.
  const into = side === 'inside' ? 1 : -1;
  const endAt = (end: 1 | -1) =>
    loops.flatMap(({ points }) =>
      points.flatMap(([px, py], i) => {
        const at = (px - x) * u + (py - y) * v;
        if (Math.abs(at - (end * size) / 2) >= ON_IT) return [];
        const [before, next] = [away(points, i, -1), away(points, i, 1)];
        const [dx, dy] = [next[0] - before[0], next[1] - before[1]];
        // The solid lies to the left.
        const faces = (into * end * (dx * v - dy * u)) / Math.hypot(dx, dy);
        return faces > END_FACES ? [at] : [];
      }),
    );
  const [low, high] = [endAt(-1), endAt(1)];
  return low!.length > 0 && high!.length > 0 ? Math.max(...high!) - Math.min(...low!) : Number.NaN;
}

function sizeOf(mesh: TriangleMesh, surface: MateSurface): number {
  const { loops, at } = sectionAcross(mesh, surface.at, surface.axis);
  if (surface.kind === 'thread') return threadSize(loops, at, surface.side);
  if (surface.parted) return partedSize(loops, at, surface);
  if (surface.kind === 'round')
    return loopNear(loops, at, surface.size, surface.side)?.diameter ?? partedSize(loops, at, surface);
  const basis = basisOf(surface.axis);
  if (surface.kind === 'span' || surface.kind === 'girth') {
    const sizes = loops
      .filter(l => (surface.side === 'inside' ? l.area < 0 : l.area > 0))
      .map(l => (surface.kind === 'girth' ? girthOf(l) : spanOf(l, surface)));
    return sizes.sort((a, b) => Math.abs(a - surface.size) - Math.abs(b - surface.size))[0] ?? Number.NaN;
  }
  const widths = flatNormals(surface).map(n =>
    widthAlong(loops, at, [dot(n, basis.x), dot(n, basis.y)], surface.side),
  );
  // The narrowest pair of flats limits what can pass through; the widest limits what it passes through.
  return surface.side === 'inside' ? Math.min(...widths) : Math.max(...widths);
}

/** How far from its size a corner of a ring in pieces may be and still belong to it, as a share. */
const OF_THE_RING = 0.04;

/**
 * A ring divided by slots has no loop around its centre: the corners of its pieces that are nearest to its size form
 * its surface.
 */
function partedSize(
  loops: readonly Loop[],
  [x, y]: readonly [number, number],
  { size, side }: MateSurface,
): number {
  const radii = loops
    .flatMap(l => l.points.map(p => Math.hypot(p[0] - x, p[1] - y)))
    .filter(r => Math.abs(2 * r - size) < OF_THE_RING * size);
  if (radii.length === 0) return Number.NaN;
  return 2 * (side === 'inside' ? Math.min(...radii) : Math.max(...radii));
}

/** Twice the greatest distance of the innermost loop of its side from the axis. */
function threadSize(
  loops: readonly Loop[],
  [x, y]: readonly [number, number],
  side: MateSurface['side'],
): number {
  const reaches = loops
    .filter(l => (side === 'inside' ? l.area < 0 : l.area > 0))
    .map(l => Math.max(...l.points.map(p => Math.hypot(p[0] - x, p[1] - y))));
  return reaches.length > 0 ? 2 * Math.min(...reaches) : Number.NaN;
}

/** Diameter of the circle with the same length as a loop. */
function girthOf({ points }: Loop): number {
  let long = 0;
  points.forEach(([x, y], i) => {
    const [nx, ny] = points[(i + 1) % points.length]!;
    long += Math.hypot(nx - x, ny - y);
  });
  return long / Math.PI;
}

/** The extent of a loop in the direction in which the surface's width is measured. */
function spanOf({ points }: Loop, { across, axis }: MateSurface): number {
  if (!across) throw new RangeError('A span needs the way it is measured.');
  const basis = basisOf(axis);
  const [u, v] = [dot(across, basis.x), dot(across, basis.y)];
  const along = points.map(([x, y]) => x * u + y * v);
  return Math.max(...along) - Math.min(...along);
}

/** Square to each pair of flats, in space. */
function flatNormals({ across, axis, flats = 2 }: MateSurface): Point3[] {
  if (!across) throw new RangeError('Flats need the way their width is measured.');
  const basis = basisOf(axis);
  const [u, v] = [dot(across, basis.x), dot(across, basis.y)];
  return Array.from({ length: flats / 2 }, (_, i) => {
    const a = (2 * Math.PI * i) / flats;
    const [p, q] = [u * Math.cos(a) - v * Math.sin(a), u * Math.sin(a) + v * Math.cos(a)];
    return point3(k => p * basis.x[k] + q * basis.y[k]);
  });
}

/**
 * From the nearest wall on one side of `at` to the nearest on the other, along a unit direction. For an outside, the
 * walls of a hole around `at` do not count.
 */
function widthAlong(
  loops: readonly Loop[],
  [x, y]: readonly [number, number],
  [u, v]: readonly [number, number],
  side: MateSurface['side'],
): number {
  const [before, after]: [number[], number[]] = [[], []];
  for (const { points } of loops) {
    for (let i = 0; i < points.length; i++) {
      const [ax, ay] = points[i]!;
      const [bx, by] = points[(i + 1) % points.length]!;
      // Distance to the line through `at` along (u, v): a crossing is where it changes its sign.
      const da = (ax - x) * v - (ay - y) * u;
      const db = (bx - x) * v - (by - y) * u;
      if (da >= 0 === db >= 0) continue;
      const t = da / (da - db);
      const along = (ax + t * (bx - ax) - x) * u + (ay + t * (by - ay) - y) * v;
      (along < 0 ? before : after).push(Math.abs(along));
    }
  }
  // An even number of walls ahead: `at` is in the air.
  const skip = side === 'outside' && after.length % 2 === 0 ? 1 : 0;
  const wall = (all: number[]) => all.sort((a, b) => a - b)[skip] ?? Number.NaN;
  return wall(before) + wall(after);
}

/** The triangles of each mate's surface, for highlighting: an index per triangle, −1 for none. */
export function trianglesOfMates(
  mesh: TriangleMesh,
  surfaces: readonly MateSurface[],
  sagitta: number,
): Int16Array {
  const { positions, triangles } = mesh;
  const owner = new Int16Array(triangles.length / 3).fill(-1);
  const near = sagitta + 1e-3;
  // Runs at every keystroke, so each corner is worked out once rather than once per triangle.
  const on = new Uint8Array(positions.length / 3);
  surfaces.forEach((surface, index) => {
    const { at, axis, from, to } = surface;
    for (const test of facesOf(surface, near)) {
      for (let v = 0; v < on.length; v++) {
        const [x, y, z] = [positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!];
        const along = x * axis[0] + y * axis[1] + z * axis[2];
        on[v] =
          along > from - near && along < to + near && test.corner(x - at[0], y - at[1], z - at[2]) ? 1 : 0;
      }
      for (let t = 0; t < owner.length; t++) {
        if (!on[triangles[3 * t]!] || !on[triangles[3 * t + 1]!] || !on[triangles[3 * t + 2]!]) continue;
        const n = facing(mesh, t);
        if (test.faces(n, Math.hypot(...n) || 1)) owner[t] = index;
      }
    }
  });
  return owner;
}

/**
 * Tests for a corner, off the surface's centre, and for a normal: whether they belong to a mate; one test for each face
 * of it.
 */
interface FaceTest {
  corner(x: number, y: number, z: number): boolean;
  faces(normal: Point3, length: number): boolean;
}

function facesOf(surface: MateSurface, near: number): FaceTest[] {
  const { axis, size } = surface;
  if (surface.kind === 'flats')
    return flatNormals(surface).map(f => ({
      corner: (x, y, z) => Math.abs(Math.abs(x * f[0] + y * f[1] + z * f[2]) - size / 2) < near,
      faces: (n, length) => Math.abs(dot(n, f)) > 0.99 * length,
    }));
  if (surface.kind === 'span') {
    const way = surface.across!;
    return [
      {
        corner: (x, y, z) => Math.abs(Math.abs(x * way[0] + y * way[1] + z * way[2]) - size / 2) < near,
        faces: (n, length) => Math.abs(dot(n, way)) > 0.5 * length,
      },
    ];
  }
  const sideways = (n: Point3, length: number) => Math.abs(dot(n, axis)) / length;
  if (surface.kind === 'girth')
    return [{ corner: () => true, faces: (n, length) => sideways(n, length) < 0.7 }];
  const radius = (x: number, y: number, z: number) => {
    const along = x * axis[0] + y * axis[1] + z * axis[2];
    return Math.sqrt(Math.max(0, x * x + y * y + z * z - along * along));
  };
  if (surface.kind === 'thread')
    return [
      {
        // Ridges and grooves alike, but not the walls beyond them.
        corner: (x, y, z) => {
          const r = radius(x, y, z);
          return r < size / 2 + near && r > surface.core! / 2 - near;
        },
        // Nor a floor, which is square to the axis; the flattest flank is not.
        faces: (n, length) => sideways(n, length) < 0.9999,
      },
    ];
  return [
    {
      corner: (x, y, z) => {
        const along = x * axis[0] + y * axis[1] + z * axis[2];
        return Math.abs(radius(x, y, z) - size / 2 - (surface.taper ?? 0) * along) < near;
      },
      // A face that closes the bore may have all its corners on it too: only the wall faces sideways.
      faces: (n, length) => sideways(n, length) < 0.7,
    },
  ];
}
