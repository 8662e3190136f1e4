import { areaOfCurves, type Curve } from '../shape/curve';
import { curvesOfParted, partedAgain, partedInto } from '../shape/lines-and-arcs/lines-and-arcs';
import type { Parted } from '../shape/lines-and-arcs/pieces';
import type { Point2 } from '../shape/vector';
import { distance2 } from '../shape/vector';
import type { Camera, Projection } from './camera/camera';
import { type Contact, placesOf, standsAt, type Thickness } from './contact';
import type { EdgePoint } from './find/edge-points';

/** One closed line of the object in its true place, seen from above, y up. Lengths mm. */
export interface TracedLoop {
  hole: boolean;
  curves: Curve[];
  parted: Parted;
  /** From the plane's y down to the outline's y up: a rotation or a reflection about the origin. */
  turned: Turning;
  /** Points of `parted`, as seen in the picture. */
  edges: readonly EdgePoint[];
  contacts: readonly Contact[];
  /** Scatter of its points about each piece; for a circle one number. */
  rms: number[];
  /** Share of the line with a clear edge. */
  seen: number;
}

/** The map from edges to places: the camera, or a scanner's scale. */
export type Turning = (p: Point2) => Point2;
export type Placing = (edges: readonly EdgePoint[], contacts: readonly Contact[]) => Point2[];

export const placingBy =
  (camera: Camera, thickness: Thickness): Placing =>
  (edges, contacts) =>
    placesOf(edges, contacts, camera, thickness).map(p => upwards(p!));

/** The reverse: where a place of the outline appears. */
export const shownBy =
  (project: Projection, thickness: Thickness) =>
  ([x, y]: Point2, contact: Contact): Point2 =>
    project(x, -y, standsAt(contact, thickness));

/** y down the sheet becomes y up: the hand stays, since it is the same plane from the same side. */
export const upwards = ([x, y]: Point2): Point2 => [x, -y];

/** The fewest points of a line. */
const LEAST = 12;

/** @param points along the line; null where no edge is clear */
export function loopOf(
  hole: boolean,
  points: readonly (EdgePoint | null)[],
  contacts: readonly (Contact | null)[],
  place: Placing,
  turned: Turning,
  tolerance: number,
): TracedLoop | null {
  const kept = points.flatMap((p, i) => {
    const contact = contacts[i];
    return p && contact && contact !== 'corner' ? [{ edge: p, contact }] : [];
  });
  if (kept.length < LEAST) return null;
  const places = place(
    kept.map(k => k.edge),
    kept.map(k => k.contact),
  );
  const ofPlace = new Map(places.map((p, i) => [p, kept[i]!]));
  const parted = partedInto(places, true, tolerance);
  const curves = curvesOfParted(parted);
  if (curves.length === 0) return null;
  const inOrder = parted.points.map(p => ofPlace.get(p)!);
  return {
    hole,
    curves,
    parted,
    turned,
    edges: inOrder.map(k => k.edge),
    contacts: inOrder.map(k => k.contact),
    rms: scatterOf(parted, curves),
    seen: kept.length / points.length,
  };
}

/** The same line with edges seen by another camera, or moved outwards by given amounts at each point, mm. */
export function loopAgain(
  loop: TracedLoop,
  place: Placing | null,
  across: ((point: number) => number) | null = null,
): Parted {
  const places = place ? place(loop.edges, loop.contacts) : loop.parted.points;
  const moved = across
    ? places.map((p, i): Point2 => {
        const by = across(i);
        const out = loop.turned(loop.edges[i]!.out);
        return [p[0] + by * out[0], p[1] + by * out[1]];
      })
    : places;
  return partedAgain(loop.parted, moved);
}

/** How far points scatter about each piece, mm; of a circle one number. */
export function scatterOf({ points, pieces }: Parted, curves: readonly Curve[]): number[] {
  const root = (all: readonly number[]) =>
    Math.sqrt(all.reduce((s, d) => s + d * d, 0) / Math.max(1, all.length));
  if (pieces === 'circle') {
    const { centre, radius } = curves[0]!.arc!;
    return [root(points.map(p => distance2(p, centre) - radius))];
  }
  return pieces.map(p => {
    const [from, to] = p.own ?? [p.from + 2, Math.max(p.from + 2, p.to - 2)];
    const own = points.slice(from, to + 1);
    return root(
      own.map(q =>
        p.kind === 'arc'
          ? distance2(q, p.centre) - p.radius
          : p.way[0] * (q[1] - p.at[1]) - p.way[1] * (q[0] - p.at[0]),
      ),
    );
  });
}

/** A loop as a round hole or disc, if it is one: all its arcs have one centre. */
export function circleOf(curves: readonly Curve[]): { centre: Point2; diameter: number } | null {
  const [first] = curves;
  if (!first?.arc) return null;
  const { centre, radius } = first.arc;
  const same = curves.every(
    c =>
      c.arc &&
      distance2(c.arc.centre, centre) < 0.02 * radius &&
      Math.abs(c.arc.radius - radius) < 0.02 * radius,
  );
  return same &&
    Math.abs(Math.abs(areaOfCurves(curves)) - Math.PI * radius * radius) < 0.05 * Math.PI * radius * radius
    ? { centre, diameter: 2 * radius }
    : null;
}
