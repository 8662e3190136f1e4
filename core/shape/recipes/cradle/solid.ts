import type { Body, Outline, PartKernel } from '../../kernels/kernel';
import { circle, polyline, rectangle } from '../../outline';
import type { Point3 } from '../../vector';
import type { Places } from '../define-recipe';
import { gripsEnds, type P } from './parameters';
import {
  alongSlab,
  footEdges,
  inSide,
  outOfBack,
  type Place,
  placeOf,
  rimOf,
  SIDE,
  type Sizes,
  sizesOf,
  wholeAt,
} from './sizes';

/** The channel in (x, out): back, sides, and lips whose undersides rise at 45° so that they print. */
export function profileOf(s: Sizes): Outline {
  const inner = s.width / 2;
  const outer = inner + s.wall;
  const top = s.back + s.thick;
  const rim = rimOf(s);
  // The lip's underside begins at the slab's face at its edge, and rises inwards.
  return polyline([
    [-outer, 0],
    [outer, 0],
    [outer, rim],
    [inner - s.lip, rim],
    [inner - s.lip, top + s.lip],
    [inner, top],
    [inner, s.back],
    [-inner, s.back],
    [-inner, top],
    [-inner + s.lip, top + s.lip],
    [-inner + s.lip, rim],
    [-outer, rim],
  ]);
}

const INTO = 0.5;

export function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  const place = placeOf(s);
  const outer = s.width / 2 + s.wall;
  const face = outOfBack(place);
  // From the open end at +high down to the stop below 0.
  let body = kernel.extrude(profileOf(s), -s.high, s.high + s.stop, alongSlab(place));
  body = kernel.fuse(body, kernel.extrude(rectangle(-outer, -s.stop, outer, 0), 0, rimOf(s), face));
  if (s.foot) body = withFoot(body, s, place, kernel);
  if (s.window > 0) {
    // On a foot the opening for the plug continues through the support of the floor.
    const below = s.foot ? s.stop + rimOf(s) : s.stop + 1;
    const way = rectangle(-s.window / 2, -below, s.window / 2, INTO);
    body = kernel.cut(body, kernel.extrude(way, s.back, rimOf(s), face));
  }
  for (const { side, from, to } of s.gaps) {
    const [a, b] = [side * (s.width / 2 - s.lip - 0.5), side * (outer + 1)];
    const open = rectangle(Math.min(a, b), from, Math.max(a, b), to);
    body = kernel.cut(body, kernel.extrude(open, s.back, rimOf(s), face));
  }
  for (const at of screwsAt(s)) body = kernel.cut(body, kernel.extrude(circle(at, s.screw), -1, s.back + 2));
  return body;
}

/** A plate on the bed, a support for the floor on it, and a rib behind the back. */
function withFoot(body: Body, s: Sizes, place: Place, kernel: PartKernel): Body {
  const outer = s.width / 2 + s.wall;
  const { thickness } = s.foot!;
  const { front, back } = footEdges(s);
  const into = Math.min(s.back / 2, 1);
  const [p1, p2] = [inSide(place, -s.stop + INTO, into), inSide(place, -s.stop + INTO, rimOf(s) - INTO)];
  const floor = polyline([[p2[0], thickness / 2], [p1[0], thickness / 2], p1, p2]);
  let all = kernel.fuse(body, kernel.extrude(rectangle(-outer, front, outer, back), 0, thickness));
  all = kernel.fuse(all, kernel.extrude(floor, -outer, 2 * outer, SIDE));
  const high = inSide(place, 0.6 * s.high, into);
  // A leaning back has room for a rib below it.
  if (high[0] - p1[0] < 2) return all;
  const rib = polyline([[p1[0], thickness / 2], [high[0], thickness / 2], high, p1]);
  const half = Math.max(3, s.width / 8);
  return kernel.fuse(all, kernel.extrude(rib, -half, 2 * half, SIDE));
}

export function screwsAt(s: Sizes): [number, number][] {
  if (s.screw === 0) return [];
  return [
    [0, s.high * 0.25],
    [0, s.high * 0.75],
  ];
}

/** This near to the side the lip's slope has hardly risen, mm. */
const THICK_AT = 0.002;

export type Mate = 'width' | 'ends' | 'thickness';

export function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  const { at, up, out } = placeOf(s);
  const y = wholeAt(s) ?? s.high / 2;
  const point = (x: number, off: number): Point3 => [
    at[0] + x,
    at[1] + y * up[1] + off * out[1],
    at[2] + y * up[2] + off * out[2],
  ];
  const base = at[1] * up[1] + at[2] * up[2];
  const common = {
    kind: 'flats' as const,
    axis: up,
    from: base,
    to: base + s.high,
  };
  const middle = s.back + s.thick / 2;
  return {
    width: gripsEnds(p) ? null : { ...common, at: point(0, middle), across: [1, 0, 0] },
    ends: gripsEnds(p) ? { ...common, at: point(0, middle), across: [1, 0, 0] } : null,
    // Under the lips, where back and face are opposite each other.
    thickness: { ...common, at: point(s.width / 2 - THICK_AT, middle), across: out },
  };
}
