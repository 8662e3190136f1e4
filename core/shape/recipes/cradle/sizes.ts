import type { Frame, Point3 } from '../../vector';
import { gripsEnds, type P } from './parameters';

/**
 * A cradle for a slab such as a display: a channel that holds it at both sides and below and leaves its face free. A
 * wall cradle is printed on its back; one with a foot is printed upright, leaning back.
 */
export const onFoot = (p: P) => p.stand === 'foot';

/** A stretch of a side that stays open, from the floor up. */
export interface Gap {
  side: -1 | 1;
  from: number;
  to: number;
  parameter: 'clearLeft' | 'clearRight';
}

export interface Sizes {
  width: number;
  thick: number;
  high: number;
  wall: number;
  back: number;
  lip: number;
  stop: number;
  window: number;
  screw: number;
  gaps: Gap[];
  foot: { lean: number; front: number; behind: number; thickness: number } | null;
}

export function sizesOf(p: P): Sizes {
  const gap = (name: 'Left' | 'Right', side: -1 | 1): Gap[] => {
    const [from, long] = [p[`clear${name}From`], p[`clear${name}`]];
    return long > 0 ? [{ side, from, to: from + long, parameter: `clear${name}` }] : [];
  };
  return {
    width: gripsEnds(p) ? p.pocketHeight : p.pocketWidth,
    thick: p.pocketThickness,
    high: p.height,
    wall: p.wall,
    back: p.back,
    lip: p.lip,
    stop: p.stop,
    window: p.window,
    screw: onFoot(p) ? 0 : p.screwHole / 2,
    gaps: [...gap('Left', -1), ...gap('Right', 1)],
    foot: onFoot(p)
      ? {
          lean: p.lean,
          front: p.footFront,
          behind: p.footBehind,
          thickness: p.footThickness,
        }
      : null,
  };
}

/** Top of the lips over the back. */
export const rimOf = (s: Sizes) => s.back + s.thick + s.lip + 1.2;

/** The cradle's frame: `up` the slab, and `out` from its back, with the upper face of its floor at the origin. */
export interface Place {
  at: Point3;
  up: Point3;
  out: Point3;
}

/** mm; the foot is never thinner than three times this. */
export const SUNK = 0.5;

export function placeOf(s: Sizes): Place {
  if (!s.foot) return { at: [0, 0, 0], up: [0, 1, 0], out: [0, 0, 1] };
  const a = (s.foot.lean * Math.PI) / 180;
  const [c, sin] = [Math.cos(a), Math.sin(a)];
  // The floor's lowest edge, at the back, is sunk into the foot: edges that only touch make no solid.
  return { at: [0, 0, s.foot.thickness + s.stop * c - SUNK], up: [0, sin, c], out: [0, -c, sin] };
}

const minus = ([x, y, z]: Point3): Point3 => [-x, -y, -z];

/** Outlines in (x, out), extruded down the slab. */
export const alongSlab = ({ at, up }: Place): Frame => ({ at, x: [1, 0, 0], up: minus(up) });
/** Outlines in (x, up the slab), extruded out from the back. */
export const outOfBack = ({ at, out }: Place): Frame => ({ at, x: [1, 0, 0], up: out });
/** Outlines in (towards the back, up), extruded to the left. */
export const SIDE: Frame = { at: [0, 0, 0], x: [0, 1, 0], up: [1, 0, 0] };

/** A point of the cradle in the plane of its side: (y, z). */
export const inSide = ({ at, up, out }: Place, along: number, off: number): [number, number] => [
  at[1] + along * up[1] + off * out[1],
  at[2] + along * up[2] + off * out[2],
];

export const footEdges = (s: Sizes): { front: number; back: number } => {
  const place = placeOf(s);
  const [front] = inSide(place, -s.stop, rimOf(s));
  const [back] = inSide(place, -s.stop, 0);
  return { front: front - s.foot!.front, back: back + s.foot!.behind };
};

/** A height at which both sides are whole, so that the slab can be measured there. */
export function wholeAt(s: Sizes): number | null {
  for (let i = 0; i <= 37; i++) {
    // From the middle outwards.
    const y = s.high * (0.5 + (i % 2 ? -1 : 1) * Math.ceil(i / 2) * 0.0235);
    if (s.gaps.every(g => y < g.from - 0.2 || y > g.to + 0.2)) return y;
  }
  return null;
}
