import type { Places, SurfacePlace } from '../define-recipe';
import type { P } from './parameters';

/**
 * A drive key: sections in series on the axis z. From the bed up: a head to turn it by, or a second tip; a round shank
 * that runs in a bore, with a rib along it if it has one; a second round section; and the tip. Lengths mm.
 */
export const tipIs =
  (...names: P['tip'][]) =>
  (p: P) =>
    names.includes(p.tip);
export const isBlade = tipIs('blade');
export const isFork = tipIs('fork');
/** The other end is a tip instead of a head. */
export const bothTips = (p: P) => p.headShape === 'blade' || p.headShape === 'square';
export const hasHead = (p: P) => !bothTips(p);
export const hasStep = (p: P) => p.stepped;
export const hasRib = (p: P) => p.rib;
export const hasSocket = (p: P) => hasHead(p) && p.socket !== 'none';

/** A prism on the axis, by its width across flats; a blade is wider the other way. */
export interface Prism {
  sides: 2 | 4 | 6;
  thick: number;
  wide: number;
  from: number;
  to: number;
}

export interface Sizes {
  /** Null where the tip is a fork: a slot across a round end. */
  tip: Prism | null;
  fork: { slot: number; from: number; to: number } | null;
  other: Prism | null;
  head: { across: number; to: number; hex: boolean } | null;
  socket: { sides: 2 | 4 | 6; across: number; long: number; deep: number } | null;
  /** Radius and extent of the shank, and the height of the cone at its root. */
  shank: { r: number; from: number; to: number; cone: number };
  step: { r: number; from: number; to: number } | null;
  rib: { wide: number; out: number; from: number; to: number } | null;
  top: number;
}

const SIDES = { blade: 2, slot: 2, square: 4, hexagon: 6 } as const;

export function sizesOf(p: P): Sizes {
  const prism = (kind: keyof typeof SIDES, thick: number, wide: number, from: number, to: number): Prism => ({
    sides: SIDES[kind],
    thick,
    wide: kind === 'blade' ? wide : thick,
    from,
    to,
  });
  const base = bothTips(p) ? p.tipLengthB : p.headHeight;
  const r = p.shank / 2;
  const to = base + p.shankLength;
  const half = p.head / 2;
  // A cone at the root of the shank, where a torque would crack a sharp corner.
  const cone = hasHead(p) ? Math.max(0, Math.min(half - r, p.shankLength) * 0.5) : 0;
  const step = hasStep(p) ? { r: p.stepAcross / 2, from: to, to: to + p.stepLength } : null;
  const root = step ? step.to : to;
  const top = root + p.tipLength;
  const long = Math.min(p.ribLength, p.shankLength);
  return {
    tip: isFork(p) ? null : prism(p.tip as Exclude<P['tip'], 'fork'>, p.thickness, p.bladeWidth, root, top),
    fork: isFork(p) ? { slot: p.forkSlot, from: root, to: top } : null,
    other: bothTips(p)
      ? prism(p.headShape as 'blade' | 'square', p.thicknessB, p.bladeWidthB, 0, base)
      : null,
    head: bothTips(p) ? null : { across: p.head, to: base, hex: p.headShape === 'hexagon' },
    socket: hasSocket(p)
      ? {
          sides: SIDES[p.socket as 'slot' | 'square' | 'hexagon'],
          across: p.socketSize,
          long: p.socketLong,
          deep: p.socketDepth,
        }
      : null,
    shank: { r, from: base, to, cone },
    step,
    rib: hasRib(p) ? { wide: p.ribWidth, out: p.ribOut, from: to - long, to } : null,
    top,
  };
}

const Z = [0, 0, 1] as const;

/** Its mates; `rib` and `socket` are also parameters, with another meaning. */
export type Mate = 'tip' | 'fork' | 'shank' | 'rib' | 'tipB' | 'socket';

export function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  const flats = (from: number, to: number, sides: Prism['sides'] = 2): SurfacePlace => ({
    kind: 'flats',
    at: [0, 0, (from + to) / 2],
    axis: Z,
    // A hexagon has a flat on its right, a blade its flats in front and behind.
    across: sides === 6 ? [1, 0, 0] : [0, 1, 0],
    flats: sides,
    from,
    to,
  });
  const { tip, fork, other, rib, socket } = s;
  // Only where it has no rib is it round all about.
  const [low, high] = [s.shank.from + s.shank.cone, rib ? rib.from : s.shank.to];
  return {
    tip: tip && flats(tip.from, tip.to, tip.sides),
    fork: fork && flats(fork.from, fork.to),
    shank: { kind: 'round', at: [0, 0, (low + high) / 2], axis: Z, from: low, to: high },
    rib: rib && {
      ...flats(rib.from, rib.to),
      at: [s.shank.r + rib.out / 2, 0, (rib.from + rib.to) / 2],
    },
    tipB: other && flats(other.from, other.to, other.sides),
    socket: socket && flats(0, socket.deep, socket.sides),
  };
}
