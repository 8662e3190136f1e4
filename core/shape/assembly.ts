import type { BuiltPart } from './built-part';
import type { MeshKernel } from './kernels/kernel';
import { boundsOf, type TriangleMesh, volumeOf } from './mesh/mesh';
import type { Point3 } from './vector';
import { basisOf, cross, dot, negated, point3 } from './vector';

/** The parts of one job in their places: joined at the surfaces that mate with each other. Lengths mm. */
export interface PlacedPart {
  id: string;
  mesh: TriangleMesh;
  /** The direction in which it is pulled off; zero for the part that all others sit on, and for parts beside it. */
  off: Point3;
}

/** A surface of one part that mates with a surface of another. */
export interface Joint {
  part: string;
  surface: string;
  other: string;
  otherSurface: string;
}

export interface Assembly {
  parts: PlacedPart[];
  /** Parts that overlap in their places; mm³, since cm³ would be too coarse. */
  shared: { a: string; b: string; volume: number }[];
}

/** Gap between parts that nothing joins, mm. */
const APART = 10;
/** Touching, or the slight interference of a press, is not a collision: mm³. */
const TOUCH = 0.5;

/**
 * The first part stays. Each other part is brought to one that is already placed, with the centre and axis of its
 * surface on the other's, the way round with less overlap. A part that no mate joins is placed beside the rest.
 */
export function assembled(
  built: readonly { id: string; part: Pick<BuiltPart, 'whole' | 'surfaces'> }[],
  joints: readonly Joint[],
  kernel: MeshKernel,
): Assembly {
  const placed = new Map<
    string,
    { mesh: TriangleMesh; at(p: Point3): Point3; way(p: Point3): Point3; off: Point3 }
  >();
  const surfaceOf = (id: string, name: string) =>
    built.find(b => b.id === id)?.part.surfaces.find(s => s.mate === name);
  const [first] = built;
  if (!first) return { parts: [], shared: [] };
  placed.set(first.id, { mesh: first.part.whole, at: p => p, way: p => p, off: [0, 0, 0] });
  for (let found = true; found; ) {
    found = false;
    for (const b of built) {
      if (placed.has(b.id)) continue;
      const joint = joints
        .flatMap(j => [j, { part: j.other, surface: j.otherSurface, other: j.part, otherSurface: j.surface }])
        .find(j => j.part === b.id && placed.has(j.other));
      const own = joint && surfaceOf(b.id, joint.surface);
      const theirs = joint && surfaceOf(joint.other, joint.otherSurface);
      if (!joint || !own || !theirs) continue;
      const host = placed.get(joint.other)!;
      const at = host.at(theirs.at);
      const axis = host.way(theirs.axis);
      const tries = [axis, negated(axis)].map(target => {
        const way = turning(own.axis, target);
        const move = (p: Point3): Point3 => {
          const w = way([p[0] - own.at[0], p[1] - own.at[1], p[2] - own.at[2]]);
          return [w[0] + at[0], w[1] + at[1], w[2] + at[2]];
        };
        const mesh = movedBy(b.part.whole, move);
        return { mesh, move, way, shares: sharedRoom(mesh, host.mesh, kernel) };
      });
      const best = tries[1]!.shares < tries[0]!.shares - TOUCH ? tries[1]! : tries[0]!;
      placed.set(b.id, {
        mesh: best.mesh,
        at: best.move,
        way: best.way,
        off: awayFrom(best.mesh, host.mesh, axis),
      });
      found = true;
    }
  }
  beside(built, placed);
  const parts = built.map(({ id }) => ({ id, mesh: placed.get(id)!.mesh, off: placed.get(id)!.off }));
  const shared = parts.flatMap((a, i) =>
    parts.slice(i + 1).flatMap(b => {
      const volume = sharedRoom(a.mesh, b.mesh, kernel);
      return volume > TOUCH ? [{ a: a.id, b: b.id, volume }] : [];
    }),
  );
  return { parts, shared };
}

type Placed = Map<string, { mesh: TriangleMesh; at(p: Point3): Point3; way(p: Point3): Point3; off: Point3 }>;

function beside(built: Parameters<typeof assembled>[0], placed: Placed): void {
  let right = Math.max(...[...placed.values()].map(p => boundsOf(p.mesh).max[0]));
  for (const b of built) {
    if (placed.has(b.id)) continue;
    const { min, max } = boundsOf(b.part.whole);
    const by = right + APART - min[0];
    const at = (p: Point3): Point3 => [p[0] + by, p[1], p[2]];
    placed.set(b.id, { mesh: movedBy(b.part.whole, at), at, way: p => p, off: [0, 0, 0] });
    right += APART + max[0] - min[0];
  }
}

function movedBy({ positions: p, triangles }: TriangleMesh, move: (p: Point3) => Point3): TriangleMesh {
  const moved = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 3) moved.set(move([p[i]!, p[i + 1]!, p[i + 2]!]), i);
  return { positions: moved, triangles };
}

function sharedRoom(a: TriangleMesh, b: TriangleMesh, kernel: MeshKernel): number {
  const common = kernel.common(a, b);
  return common ? volumeOf(common) : 0;
}

/** A rotation that brings one unit vector onto another, and their second directions with them. */
function turning(from: Point3, to: Point3): (v: Point3) => Point3 {
  const [a, b] = [frameOf(from), frameOf(to)];
  return v => {
    const own = a.map(d => dot(d, v));
    return point3(i => own[0]! * b[0]![i] + own[1]! * b[1]![i] + own[2]! * b[2]![i]);
  };
}

/** Right-handed: two directions across, then the axis. */
function frameOf(axis: Point3): [Point3, Point3, Point3] {
  const { x } = basisOf(axis);
  return [x, cross(axis, x), axis];
}

/** Along the axis, the direction out of the other part. */
function awayFrom(mesh: TriangleMesh, host: TriangleMesh, axis: Point3): Point3 {
  const middle = (m: TriangleMesh) => {
    const { min, max } = boundsOf(m);
    return [0, 1, 2].reduce((sum, i) => sum + ((min[i]! + max[i]!) / 2) * axis[i]!, 0);
  };
  return middle(mesh) >= middle(host) ? axis : negated(axis);
}
