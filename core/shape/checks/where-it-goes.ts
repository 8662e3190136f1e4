import { DIRECTIONS } from '../additions/place';
import { type Finding, finding } from '../findings/finding';
import type { Kernels, MeshKernel, Models } from '../kernels/kernel';
import { boundsOf, mirroredMesh, type TriangleMesh, volumeOf } from '../mesh/mesh';
import { rayTreeOf } from '../mesh/rays';
import { modelOf, placedModel, type Stance, stood } from '../model';
import type { Point3 } from '../vector';
import { moved, negated, point3, scaled } from '../vector';
import type { CheckContext, NeighbourAsked } from './context';

/** Touching is not a collision, mm³. */
const TOUCH = 0.5;
/** The first contact along the path is found to this accuracy, mm. */
const TOLD_TO = 0.25;
/** Bodies that are not convex are sampled along their edges at points no farther apart than this, mm. */
const FEEL = 1.5;
const MOST_FELT = 24_000;
/** Contact nearer to home than this is mere touching, mm. */
const AT_HOME = 0.02;
const SIDES = 96;

/** A straight leg of the path: offsets from home where it begins and where it ends. mm */
interface Leg {
  from: Point3;
  to: Point3;
  /** From its end to home along the rest of the path. */
  left: number;
}

/** Last leg first. */
export function legsOf(goesOn: NonNullable<CheckContext['goesOn']>): Leg[] {
  const along = ({ from, distance }: { from: string; distance: number }, start: Point3): Point3 => {
    const way = DIRECTIONS[from] ?? DIRECTIONS.top!;
    return point3(i => start[i] + distance * way[i]);
  };
  const last = along(goesOn, [0, 0, 0]);
  const legs: Leg[] = [{ from: last, to: [0, 0, 0], left: 0 }];
  if (goesOn.before) legs.push({ from: along(goesOn.before, last), to: last, left: goesOn.distance });
  return legs;
}

/** Whether the part has room in its place, and on the whole path to it. */
export function checkPlace(
  mesh: TriangleMesh,
  { neighbours, goesOn }: Pick<CheckContext, 'neighbours' | 'goesOn'>,
  { mesh: kernel, models }: Pick<Kernels, 'mesh' | 'models'>,
): Finding[] {
  return neighbours.flatMap((neighbour): Finding[] => {
    const solid = neighbourMesh(neighbour, kernel, models);
    const mark = { neighbour: neighbour.id };
    const { name, room } = neighbour;
    if (!solid) return [finding('neighbour-missing', 'warn', { name }, mark)];
    const shared = overlap(mesh, solid, kernel);
    if (shared > TOUCH) return [finding('in-the-way', 'stop', { name, room, shared }, mark)];
    if (!goesOn) return [];
    const convex = neighbour.form !== 'model';
    const hits = legsOf(goesOn).flatMap(leg => firstHit(mesh, solid, leg, convex, kernel) ?? []);
    if (hits.length === 0) return [];
    return [finding('path-blocked', 'stop', { name, room, before: Math.max(...hits) }, mark)];
  });
}

function overlap(a: TriangleMesh, b: TriangleMesh, kernel: MeshKernel): number {
  if (!boxesMeet(a, b)) return 0;
  const common = kernel.common(a, b);
  return common ? volumeOf(common) : 0;
}

function boxesMeet(a: TriangleMesh, b: TriangleMesh): boolean {
  const [p, q] = [boundsOf(a), boundsOf(b)];
  return [0, 1, 2].every(i => p.min[i]! < q.max[i]! && q.min[i]! < p.max[i]!);
}

/**
 * How far from home, along the path, the part first meets a neighbour; null where it never does. The whole path is
 * checked, however thin the neighbour is.
 */
export function firstHit(
  mesh: TriangleMesh,
  neighbour: TriangleMesh,
  leg: Leg,
  convex: boolean,
  kernel: MeshKernel,
): number | null {
  const distance = Math.hypot(...moved(leg.from, leg.to, -1));
  const hit = convex
    ? sweptHit(mesh, neighbour, leg, distance, kernel)
    : feltHit(mesh, neighbour, leg, distance);
  return hit === null ? null : hit + leg.left;
}

/** The neighbour is moved in the opposite direction instead of the part, since it has fewer triangles. */
const against = ({ positions, triangles }: TriangleMesh, off: Point3): TriangleMesh => ({
  positions: positions.map((v, i) => v - off[i % 3]!),
  triangles,
});

/** A convex body swept along a line is the hull of both its ends: exact, however long the path. */
function sweptHit(
  mesh: TriangleMesh,
  neighbour: TriangleMesh,
  { from, to }: Leg,
  distance: number,
  kernel: MeshKernel,
): number | null {
  const at = (off: number) => against(neighbour, moved(to, moved(from, to, -1), off / distance));
  const meets = (off: number) => overlap(mesh, kernel.hull(appended(at(off), at(distance))), kernel) > TOUCH;
  if (!meets(0)) return null;
  // Seen from farther out, contact only decreases: the last place where there still is some.
  let [near, far] = [0, distance];
  while (far - near > TOLD_TO) {
    const middle = (near + far) / 2;
    if (meets(middle)) near = middle;
    else far = middle;
  }
  return (near + far) / 2;
}

function appended(a: TriangleMesh, b: TriangleMesh): TriangleMesh {
  const positions = new Float64Array(a.positions.length + b.positions.length);
  positions.set(a.positions);
  positions.set(b.positions, a.positions.length);
  return { positions, triangles: a.triangles };
}

/** Points of each body are sent along the path until they touch the other body; with both directions none is missed. */
function feltHit(
  mesh: TriangleMesh,
  neighbour: TriangleMesh,
  { from, to }: Leg,
  distance: number,
): number | null {
  const away = moved(from, to, -1);
  const way = scaled(away, 1 / distance);
  const back = negated(way);
  const there = against(neighbour, to);
  let farthest: number | null = null;
  const feel = (points: TriangleMesh, target: TriangleMesh, d: Point3) => {
    const tree = rayTreeOf(target);
    for (const p of feltPoints(points)) {
      // Seen from the far end, because the part meets that end first.
      const hit = tree.firstHit(moved(p, d, distance), negated(d));
      const off = hit && distance - hit.distance;
      // Touching at home is not a collision on the path.
      if (off !== undefined && off > AT_HOME) farthest = Math.max(farthest ?? 0, off);
    }
  };
  feel(mesh, there, way);
  feel(there, mesh, back);
  return farthest;
}

/** Corners, and points along long edges. */
function feltPoints({ positions: p, triangles }: TriangleMesh): Point3[] {
  const count = p.length / 3;
  const points: Point3[] = Array.from({ length: count }, (_, v) => [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!]);
  for (let t = 0; t < triangles.length; t += 3)
    for (let e = 0; e < 3; e++) {
      const [a, b] = [points[triangles[t + e]!]!, points[triangles[t + ((e + 1) % 3)]!]!];
      // Each edge belongs to two triangles: it is sampled once.
      if (triangles[t + e]! > triangles[t + ((e + 1) % 3)]!) continue;
      const steps = Math.ceil(Math.hypot(...moved(b, a, -1)) / FEEL);
      for (let k = 1; k < steps && points.length < MOST_FELT; k++)
        points.push(moved(a, moved(b, a, -1), k / steps));
    }
  return points;
}

/** A neighbour as a solid, with its clearance if a kernel is at hand; null where its body is not. */
export function neighbourMesh(
  n: NeighbourAsked,
  kernel: MeshKernel | null = null,
  models?: Models,
): TriangleMesh | null {
  const mesh = n.form === 'model' ? standingModel(n, kernel, models) : plainMesh(n);
  return mesh && n.mirrored ? mirroredMesh(mesh) : mesh;
}

function standingModel(n: NeighbourAsked, kernel: MeshKernel | null, models?: Models): TriangleMesh | null {
  if (!n.model) return null;
  const stance: Stance = { lies: n.lies ?? 'drawn', turn: n.turn ?? 0, at: [n.x, n.y, n.z] };
  if (kernel) return placedModel(models, n.model, n.room, stance, kernel);
  const bare = modelOf(models, n.model);
  return bare && stood(bare, stance);
}

function plainMesh(n: NeighbourAsked): TriangleMesh {
  const { room } = n;
  const [z0, z1] = [n.z - room, n.z + n.height + room];
  const corners: [number, number][] =
    n.form === 'box'
      ? [
          [n.x - n.width / 2 - room, n.y - n.depth / 2 - room],
          [n.x + n.width / 2 + room, n.y - n.depth / 2 - room],
          [n.x + n.width / 2 + room, n.y + n.depth / 2 + room],
          [n.x - n.width / 2 - room, n.y + n.depth / 2 + room],
        ]
      : Array.from({ length: SIDES }, (_, i) => {
          const a = (2 * Math.PI * i) / SIDES;
          const r = n.width / 2 + room;
          return [n.x + r * Math.cos(a), n.y + r * Math.sin(a)] as [number, number];
        });
  const count = corners.length;
  const positions = [z0, z1].flatMap(z => corners.flatMap(([x, y]) => [x, y, z]));
  const triangles: number[] = [];
  for (let i = 0; i < count; i++) {
    const j = (i + 1) % count;
    triangles.push(i, j, count + j, i, count + j, count + i);
    if (i > 0 && i < count - 1) triangles.push(0, i + 1, i, count, count + i, count + i + 1);
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}
