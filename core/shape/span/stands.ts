import type { BuiltPart } from '../built-part';
import { facing } from '../mesh/mesh';
import { type RayTree, rayTreeOf } from '../mesh/rays';
import { foundNear, placesOn } from '../movers';
import { dot, lengthOfVector, moved, negated, type Point3, scaled } from '../vector';
import type { Span } from './span';

/** A size measured across facets is less than the drawn one by at most this, mm. */
const OFF_BY = 0.08;
/** And the angle between two facets by this, degrees. */
const TURNED_BY = 0.3;
/** Faces that face away from each other, or towards each other: cosine. */
const OPPOSITE = 0.98;
const PARALLEL = 0.9995;
const START = 0.01;

/** A number of the part as it is now, and the part with that number made larger. Lengths mm, angles in degrees. */
export interface Enlarged {
  size: number;
  by: number;
  angle: boolean;
  now: Pick<BuiltPart, 'whole'>;
  larger: Pick<BuiltPart, 'whole'>;
}

interface Moving {
  point: Point3;
  normal: Point3;
  way: number;
  /** The new position of a place when the number is larger. */
  looks: Point3;
}

/**
 * Where a number appears on the finished solid: two faces at that distance, or at that angle, which the number changes
 * one to one. Null where there are none.
 */
export function standsAt(enlarged: Enlarged): Span | null {
  const places = movingPlaces(enlarged);
  return enlarged.angle ? angleBetween(places, enlarged) : acrossOrBetween(places, enlarged);
}

/**
 * The place that a number moves farthest, with its direction: for a position, which is not a distance between two
 * faces.
 */
export function movedMost(enlarged: Enlarged): { at: Point3; along: Point3 } | null {
  const most = movingPlaces(enlarged).reduce<Moving | null>(
    (a, b) => (a && Math.abs(a.way) >= Math.abs(b.way) ? a : b),
    null,
  );
  if (!most || Math.abs(most.way / enlarged.by) < 0.02) return null;
  return { at: most.point, along: scaled(most.normal, Math.sign(most.way * enlarged.by)) };
}

function movingPlaces({ now, larger, by, angle }: Enlarged): Moving[] {
  const tree = rayTreeOf(larger.whole);
  // A degree moves places far from the hinge by more than its number says.
  const reach = angle ? 2 * by : by;
  return placesOn(now.whole).flatMap(place => {
    const found = foundNear(larger.whole, tree, place.point, place.normal, reach);
    if (!found) return [];
    const looks = facing(larger.whole, found.triangle);
    return [{ ...place, way: found.way, looks: scaled(looks, 1 / lengthOfVector(looks)) }];
  });
}

function acrossOrBetween(
  places: readonly Moving[],
  { size: signed, by, now, larger }: Enlarged,
): Span | null {
  const size = Math.abs(signed);
  const [before, after] = [rayTreeOf(now.whole), rayTreeOf(larger.whole)];
  const fits = (d: number, d1: number) => Math.abs(d - size) < OFF_BY && Math.abs(d1 - d - by) < OFF_BY;
  const found: Span[] = [];
  for (const { point, normal, way } of places) {
    if (way === 0) continue;
    const there = moved(point, normal, way);
    // A diameter: through the part, or through the air.
    for (const along of [negated(normal), normal]) {
      const [d, d1] = [acrossTo(now, before, point, along), acrossTo(larger, after, there, along)];
      if (d !== null && d1 !== null && fits(d, d1))
        found.push({ kind: 'length', size: d, from: point, to: moved(point, along, d) });
    }
    // A thickness, a gap or a step: two parallel faces, wherever they are.
    for (const other of places) {
      const turned = dot(normal, other.normal);
      if (Math.abs(turned) < PARALLEL) continue;
      const apart = dot(moved(other.point, point, -1), normal);
      if (fits(Math.abs(apart), Math.abs(apart + turned * other.way - way)))
        found.push({ kind: 'length', size: Math.abs(apart), from: point, to: moved(point, normal, apart) });
    }
  }
  return found.reduce<Span | null>((best, s) => (!best || sideways(s) > sideways(best) ? s : best), null);
}

/** From left to right it is easiest to see when a part is viewed from the front: a diameter may have any direction. */
const sideways = ({ from, to, size }: Span): number => Math.abs(to[0] - from[0]) / (size || 1);

const anglesOf = (a: Point3, b: Point3) => (Math.acos(Math.max(-1, Math.min(1, dot(a, b)))) * 180) / Math.PI;

/**
 * Two faces that the number turns against each other one to one: first those at the angle itself, or at its supplement
 * to 180°, since a taper is named by its side and a bend either way.
 */
function angleBetween(places: readonly Moving[], { size, by }: Enlarged): Span | null {
  const near = (a: number, b: number) => Math.abs(a - b) < TURNED_BY;
  let other: Span | null = null;
  for (const a of places)
    for (const b of places) {
      const turned = anglesOf(a.normal, b.normal);
      const grew = anglesOf(a.looks, b.looks) - turned;
      if (!near(Math.abs(grew), Math.abs(by))) continue;
      const between = 180 - turned;
      const span = { kind: 'angle' as const, from: a.point, to: b.point };
      if (near(turned, size) && near(grew, by)) return { ...span, size: turned };
      if (near(between, size) && near(-grew, by)) return { ...span, size: between };
      other ??= { ...span, size: between };
    }
  return other;
}

/** The distance to the face on the other side, mm; null where no face is opposite. */
function acrossTo(
  { whole }: Pick<BuiltPart, 'whole'>,
  tree: RayTree,
  point: Point3,
  along: Point3,
): number | null {
  const hit = tree.firstHit(moved(point, along, START), along);
  if (!hit) return null;
  const looks = facing(whole, hit.triangle);
  const facingBack = Math.abs(dot(looks, along)) / (lengthOfVector(looks) || 1);
  return facingBack > OPPOSITE ? hit.distance + START : null;
}
