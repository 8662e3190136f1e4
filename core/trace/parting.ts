import { curvesOfParted } from '../shape/lines-and-arcs/lines-and-arcs';
import type { Parted } from '../shape/lines-and-arcs/pieces';
import {
  asKind,
  cutAt,
  joined,
  piecedOf,
  type Reparting,
  rounded,
  takenOut,
} from '../shape/lines-and-arcs/reparted';
import { distance2, type Point2 } from '../shape/vector';
import { loopAgain, type Placing, scatterOf, type TracedLoop } from './outline';
import type { TracedPlane } from './trace-plane';

/**
 * The maker's corrections of a piece of the outline, or of a corner, each at a place in the picture (px), so that they
 * stay valid when the photo is read differently: its kind, or its height above the sheet, mm.
 */
export type Said = { at: Point2 } & ({ as: Reparting } | { as: 'height'; height: number });

/** A loop is meant where it appears this near to the place, in px and as a share of its whole size. */
const NEAR = 0.08;

/**
 * The outline with all corrections, in order.
 * @returns also which corrections no longer fit it, by their places in the list
 */
export function partedAsSaid(
  { loops, place }: Pick<TracedPlane, 'loops' | 'place'>,
  said: readonly Said[],
): { loops: readonly TracedLoop[]; lost: number[] } {
  const lost: number[] = [];
  const now = said.reduce<readonly TracedLoop[]>((before, one, i) => {
    const next = withSaid(before, one, place);
    if (!next) lost.push(i);
    return next ?? before;
  }, loops);
  return { loops: now, lost };
}

function withSaid(loops: readonly TracedLoop[], said: Said, place: Placing): TracedLoop[] | null {
  const { at } = said;
  const near = loops.map(loop => nearestPoint(loop, at));
  const which = near.reduce((best, n, i) => (n.far < near[best]!.far ? i : best), 0);
  const loop = loops[which];
  if (!loop || near[which]!.far > NEAR * extentOf(loop)) return null;
  const next = said.as === 'height' ? standing(loop, at, said.height, place) : changed(loop, said.as, at);
  return next && loops.map((l, i) => (i === which ? next : l));
}

/** A piece, or a whole circle, whose edge is at another height. */
function standing(loop: TracedLoop, at: Point2, height: number, place: Placing): TracedLoop {
  const { parted } = loop;
  const nearest = nearestPoint(loop, at).point;
  const { from, to } =
    parted.pieces === 'circle'
      ? { from: 0, to: parted.points.length - 1 }
      : (parted.pieces.find(p => nearest >= p.from && nearest <= p.to) ?? { from: 0, to: -1 });
  const contacts = loop.contacts.map((c, i) => (i >= from && i <= to ? height : c));
  return laidAgain({ ...loop, contacts }, loopAgain({ ...loop, contacts }, place));
}

function laidAgain(loop: TracedLoop, parted: Parted): TracedLoop {
  const curves = curvesOfParted(parted);
  return { ...loop, parted, curves, rms: scatterOf(parted, curves) };
}

function changed(raw: TracedLoop, as: Reparting, at: Point2): TracedLoop | null {
  const whole = piecedOf(raw.parted);
  if (!whole) return null;
  const between = as === 'join' || as === 'round';
  // Both neighbours of the changed piece must follow each other in the list: the loop begins on its other side.
  const joints = whole.pieces.map(p => p.from);
  const opposite = joints.reduce((a, b) => (farFrom(raw, b, at) > farFrom(raw, a, at) ? b : a), joints[0]!);
  const loop = begunAt({ ...raw, parted: whole }, opposite);
  const line = piecedOf(loop.parted);
  if (!line) return null;
  const ends = line.pieces.map(p => farFrom(loop, p.to, at));
  const nearest = nearestPoint(loop, at).point;
  const i = between
    ? ends.slice(0, -1).reduce((best, far, k) => (far < ends[best]! ? k : best), 0)
    : line.pieces.findIndex(p => nearest >= p.from && nearest <= p.to);
  const parted = i < 0 ? null : repart(line, as, i, nearest);
  return parted && laidAgain(loop, parted);
}

function repart(
  line: NonNullable<ReturnType<typeof piecedOf>>,
  as: Reparting,
  i: number,
  at: number,
): Parted | null {
  switch (as) {
    case 'line':
    case 'arc':
      return asKind(line, i, as);
    case 'cut':
      return cutAt(line, i, at);
    case 'join':
      return joined(line, i);
    case 'round':
      return rounded(line, i);
    case 'out':
      return takenOut(line, i);
  }
}

/** The same closed loop from another of its joints. */
function begunAt(loop: TracedLoop, start: number): TracedLoop {
  const { parted } = loop;
  if (start === 0 || parted.pieces === 'circle') return loop;
  const count = parted.points.length - 1;
  const from = <T>(list: readonly T[]): T[] => [...list.slice(start, -1), ...list.slice(0, start + 1)];
  const turned = (k: number) => (k >= start ? k - start : k - start + count);
  const first = parted.pieces.findIndex(p => p.from === start);
  const pieces = [...parted.pieces.slice(first), ...parted.pieces.slice(0, first)].map(p => {
    const begins = turned(p.from);
    const by = begins - p.from;
    return {
      ...p,
      from: begins,
      to: p.to + by,
      ...(p.own ? { own: [p.own[0] + by, p.own[1] + by] as const } : {}),
    };
  });
  return {
    ...loop,
    parted: { ...parted, points: from(parted.points), pieces },
    edges: from(loop.edges),
    contacts: from(loop.contacts),
  };
}

const farFrom = (loop: TracedLoop, point: number, at: Point2): number =>
  distance2(loop.edges[point]!.seen, at);

function nearestPoint(loop: TracedLoop, at: Point2): { point: number; far: number } {
  let best = { point: 0, far: Infinity };
  for (let point = 0; point < loop.edges.length; point++) {
    const far = farFrom(loop, point, at);
    if (far < best.far) best = { point, far };
  }
  return best;
}

/** px */
function extentOf({ edges }: TracedLoop): number {
  const across = (k: 0 | 1) => {
    const all = edges.map(e => e.seen[k]);
    return Math.max(...all) - Math.min(...all);
  };
  return Math.max(across(0), across(1));
}
