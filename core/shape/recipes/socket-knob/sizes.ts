import type { Outline } from '../../kernels/kernel';
import { circle, flattened, Path, polygon } from '../../outline';
import type { Point2 } from '../../vector';
import type { P } from './parameters';

/**
 * A knob on a shaft or bolt head: its socket opens downwards on the bed and may go right through. The grip is round or
 * has lobes; a set screw may hold it. The axis is z.
 */
type Shape = 'hexagon' | 'square' | 'round' | 'dee' | 'two-flats' | 'key';
export const shapeOf = (p: P) => p.socket as Shape;
export const isRound = (p: P) => shapeOf(p) !== 'hexagon' && shapeOf(p) !== 'square';
export const hasKey = (p: P) => shapeOf(p) === 'key';
export const hasFlats = (p: P) => shapeOf(p) !== 'round' && !hasKey(p);
export const hasFlutes = (p: P) => p.grip === 'flutes';

export interface Sizes {
  shape: Shape;
  flats: number;
  round: number;
  depth: number;
  through: boolean;
  grip: number;
  height: number;
  lobes: number;
  hub: number;
  flutes: { count: number; depth: number } | null;
  /** Slot for a key: its width, and how far its floor lies beyond the shaft. */
  key: { width: number; over: number } | null;
}

export function sizesOf(p: P): Sizes {
  return {
    shape: shapeOf(p),
    flats: hasFlats(p) ? p.socketFlats : 0,
    round: isRound(p) ? p.socketRound : 0,
    depth: p.socketDepth,
    through: p.through,
    grip: p.gripDiameter / 2,
    height: p.height,
    lobes: p.grip === 'lobes' ? p.lobes : 0,
    hub: p.grip === 'lobes' ? p.gripDiameter * 0.36 : p.gripDiameter / 2,
    flutes: hasFlutes(p) ? { count: p.flutes, depth: p.fluteDepth } : null,
    key: hasKey(p) ? { width: p.keyWidth, over: p.overKey - p.socketRound } : null,
  };
}

/** Farthest corner of the socket from the axis. */
export function reachOf({ shape, flats, round, key }: Sizes): number {
  if (key) return Math.hypot(round / 2 + key.over, key.width / 2);
  if (shape === 'hexagon') return flats / 2 / Math.cos(Math.PI / 6);
  if (shape === 'square') return flats / Math.SQRT2;
  return round / 2;
}

export function socketOf(s: Sizes): Outline {
  switch (s.shape) {
    case 'hexagon':
      return polygon(6, s.flats);
    case 'square':
      return polygon(4, s.flats);
    case 'round':
      return circle([0, 0], s.round / 2);
    case 'key':
      return keyed(s.round / 2, s.key!);
    default:
      return flattened(s.round, s.flats, s.shape === 'two-flats');
  }
}

/** A bore with a slot for a key at the right: its overall size is the bore plus the height of the key. */
function keyed(radius: number, { width, over }: NonNullable<Sizes['key']>): Outline {
  const half = width / 2;
  const mouth = Math.sqrt(Math.max(0, radius * radius - half * half));
  return new Path([mouth, half])
    .arc([mouth, -half], [-radius, 0])
    .to([radius + over, -half])
    .to([radius + over, half])
    .close();
}

/** Half of a flute's angle is a quarter of its share of the rim. */
function fluted(radius: number, { count, depth }: NonNullable<Sizes['flutes']>): Outline {
  const on = (r: number, turns: number): Point2 => {
    const a = (2 * Math.PI * turns) / count;
    return [r * Math.cos(a), r * Math.sin(a)];
  };
  const path = new Path(on(radius, 0.25));
  for (let i = 0; i < count; i++) {
    path.arc(on(radius, i + 0.75), on(radius, i + 0.5));
    path.arc(on(radius, i + 1.25), on(radius - depth, i + 1));
  }
  return path.close();
}

/** A circle, with or without flutes, or lobes whose arcs bulge out between waists on the hub's circle. */
export function gripOf(s: Sizes): Outline {
  if (s.flutes) return fluted(s.grip, s.flutes);
  if (s.lobes === 0) return circle([0, 0], s.grip);
  const at = (i: number, radius: number): Point2 => {
    const a = (Math.PI * i) / s.lobes;
    return [radius * Math.cos(a), radius * Math.sin(a)];
  };
  const waist = s.hub * 0.9;
  const joint = lobeJoint(s.grip, s.hub, waist, Math.PI / s.lobes);
  const path = new Path(at(-joint.turn, joint.radius));
  for (let i = 0; i < s.lobes; i++) {
    // Out over the tip, then in through the waist.
    path.arc(at(2 * i + joint.turn, joint.radius), at(2 * i, s.grip));
    path.arc(at(2 * i + 2 - joint.turn, joint.radius), at(2 * i + 1, waist));
  }
  return path.close();
}

/**
 * Where a lobe's tip meets the waist next to it tangentially, so that the edges around it can be rounded. The tip's
 * circle goes through the hub half way to the waist.
 * @param step from a tip to the waist beside it, radians
 * @returns radius, mm, and turn from the tip in steps
 */
function lobeJoint(grip: number, hub: number, waist: number, step: number): { radius: number; turn: number } {
  const half: Point2 = [hub * Math.cos(step / 2), hub * Math.sin(step / 2)];
  // About a point on the tip's own axis, as far from the tip as from there.
  const middle = (grip ** 2 - half[0] ** 2 - half[1] ** 2) / (2 * (grip - half[0]));
  const tip = grip - middle;
  // (tip + hollow)² = middle² + (waist + hollow)² − 2 middle (waist + hollow) cos step, solved for the hollow's radius.
  const hollow =
    (tip ** 2 - middle ** 2 - waist ** 2 + 2 * middle * waist * Math.cos(step)) /
    (2 * (waist - middle * Math.cos(step) - tip));
  if (!(hollow > 0)) return { radius: hub, turn: 0.5 };
  const centre: Point2 = [(waist + hollow) * Math.cos(step), (waist + hollow) * Math.sin(step)];
  const share = tip / (tip + hollow);
  const [x, y] = [middle + share * (centre[0] - middle), share * centre[1]];
  return { radius: Math.hypot(x, y), turn: Math.atan2(y, x) / step };
}

/** A D's flat and its far side are centred on a middle of their own. */
export const middleOf = (s: Sizes) => (s.shape === 'dee' ? (s.flats - s.round) / 2 : 0);
