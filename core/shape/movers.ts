import type { BuiltPart } from './built-part';
import { facing, type TriangleMesh } from './mesh/mesh';
import { RayTree } from './mesh/rays';
import type { Parameters } from './recipes/parameters';
import type { Place } from './vector';
import { dot, lengthOfVector, moved, negated, type Point3, point3, scaled } from './vector';

/** The part with one of its numbers changed, and everything that depends on it. */
export interface Nudge {
  name: string;
  /** mm, or degrees of an angle. */
  by: number;
  parameters: Parameters;
}

/** A number that moves the surface at a place. */
export interface Mover {
  name: string;
  /** How far the surface moves outwards per mm or degree of the number, mm. */
  rate: number;
  /** The share of the whole surface that it moves. */
  share: number;
  /** Surfaces that must fit and change their size with it. */
  disturbs: string[];
}

type Built = Pick<BuiltPart, 'mesh' | 'mates'>;

/** A surface that moves less than this per mm or degree does not follow that number. */
const LEAST_RATE = 0.02;
/** A hit belongs to the pressed surface if its normal agrees: cosine. */
const LOOKS_ALIKE = 0.5;
/** The surface is searched this far to both sides, mm, and for a large nudge this many times as far. */
const LEAST_REACH = 2;
const REACH = 4;
/** Rays start this far from the place, so that an unmoved surface is met, mm. */
const OFF_IT = 0.01;
/** Number of sample places on the whole part. */
const SAMPLES = 60;
/** A number that moves the place by less than this share of the strongest is not the one that is meant. */
const WEAK = 0.25;
/** A mate that changes by less is not affected, mm. */
const DISTURBED = 0.02;

/**
 * The numbers that move the surface at a place. The part is built with each of them slightly larger, and the new
 * position of the surface shows how far it moves. The most local numbers come first, those that hardly move it after
 * them, and those that change what must fit last.
 * @param build the part with other numbers; null where it cannot be built, or time has run out
 */
export function moversAt(
  { point, normal }: Place,
  now: Built,
  nudges: readonly Nudge[],
  build: (parameters: Parameters) => Built | null,
): Mover[] {
  const n = scaled(normal, 1 / (lengthOfVector(normal) || 1));
  const samples = placesOn(now.mesh);
  const movers = nudges.flatMap(({ name, by, parameters }): Mover[] => {
    const then = by === 0 ? null : build(parameters);
    if (!then) return [];
    const tree = new RayTree(then.mesh);
    const went = wentTo(then.mesh, tree, point, n, by);
    if (went === null || Math.abs(went / by) < LEAST_RATE) return [];
    const others = samples.filter(s => {
      const way = wentTo(then.mesh, tree, s.point, s.normal, by);
      return way === null || Math.abs(way / by) >= LEAST_RATE;
    });
    return [
      { name, rate: went / by, share: others.length / samples.length, disturbs: disturbedBy(now, then) },
    ];
  });
  const strongest = Math.max(...movers.map(m => Math.abs(m.rate)));
  const isWeak = (m: Mover) => Number(Math.abs(m.rate) < WEAK * strongest);
  return movers.sort(
    (a, b) => a.disturbs.length - b.disturbs.length || isWeak(a) - isWeak(b) || a.share - b.share,
  );
}

/** The new position of the surface at a place. */
export interface FoundNear {
  point: Point3;
  triangle: number;
  /** Outwards, mm. */
  way: number;
}

type Asked = [mesh: TriangleMesh, tree: RayTree, point: Point3, normal: Point3, by: number];

/** The surface that was at a place, searched along its normal; null where it is no longer there. */
export function foundNear(...[mesh, tree, point, n, by]: Asked): FoundNear | null {
  const reach = Math.max(LEAST_REACH, REACH * Math.abs(by));
  const found = [1, -1].flatMap((side): FoundNear[] => {
    const along = side > 0 ? n : negated(n);
    const hit = tree.firstHit(moved(point, along, -OFF_IT), along);
    if (!hit || hit.distance - OFF_IT > reach) return [];
    const looks = facing(mesh, hit.triangle);
    if (dot(looks, n) < LOOKS_ALIKE * lengthOfVector(looks)) return [];
    const way = side * (hit.distance - OFF_IT);
    return [{ point: moved(point, n, way), triangle: hit.triangle, way }];
  });
  return found.reduce<FoundNear | null>((a, b) => (!a || Math.abs(b.way) < Math.abs(a.way) ? b : a), null);
}

/** How far the surface at a place has moved outwards, mm; null where it is no longer there. */
export const wentTo = (...place: Asked): number | null => foundNear(...place)?.way ?? null;

/** Places spread evenly over the surface by area, with their normals. */
export function placesOn(mesh: TriangleMesh): Place[] {
  const count = mesh.triangles.length / 3;
  const areas = Array.from({ length: count }, (_, t) => lengthOfVector(facing(mesh, t)));
  const total = areas.reduce((sum, a) => sum + a, 0);
  const samples: Place[] = [];
  let passed = 0;
  for (let t = 0; t < count; t++) {
    passed += areas[t]!;
    const due = Math.floor((passed / total) * SAMPLES + 0.5) - samples.length;
    if (due <= 0) continue;
    const corner = (c: number): Point3 => point3(i => mesh.positions[3 * mesh.triangles[3 * t + c]! + i]!);
    const [a, b, d] = [corner(0), corner(1), corner(2)];
    const sample = {
      point: point3(i => (a[i] + b[i] + d[i]) / 3),
      normal: scaled(facing(mesh, t), 1 / areas[t]!),
    };
    // A large triangle gets as many places as its area deserves.
    samples.push(...Array.from({ length: due }, () => sample));
  }
  return samples;
}

/** Surfaces that must fit and differ in size between the two. */
export const disturbedBy = (now: Pick<Built, 'mates'>, then: Pick<Built, 'mates'>): string[] =>
  now.mates.flatMap(mate => {
    const other = then.mates.find(m => m.id === mate.id);
    return other && Math.abs(other.size - mate.size) < DISTURBED ? [] : [mate.id];
  });
