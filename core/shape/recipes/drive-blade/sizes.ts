import type { MateSurface } from '../../mates';
import { lengthOf, type Parameters } from '../parameters';

/**
 * A drive key: sections in series on the axis z. From the bed up: a head to turn it by, or a second tip; a round
 * shank that runs in a bore, with a rib along it if it has one; a second round section; and the tip. Lengths mm.
 */
export const tipIs =
  (...names: string[]) =>
  (p: Parameters) =>
    names.includes(String(p.tip));
export const isBlade = tipIs('blade');
export const isFork = tipIs('fork');
/** The other end is a tip of its own instead of a head. */
export const bothTips = (p: Parameters) => p.headShape === 'blade' || p.headShape === 'square';
export const hasHead = (p: Parameters) => !bothTips(p);
export const hasStep = (p: Parameters) => p.stepped === true;
export const hasRib = (p: Parameters) => p.rib === true;
export const hasSocket = (p: Parameters) => hasHead(p) && p.socket !== 'none';

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
  /** Radius and extent of the shank, and how high the cone at its root is. */
  shank: { r: number; from: number; to: number; cone: number };
  step: { r: number; from: number; to: number } | null;
  rib: { wide: number; out: number; from: number; to: number } | null;
  top: number;
}

const SIDES = { blade: 2, slot: 2, square: 4, hexagon: 6 } as const;

export function sizesOf(p: Parameters): Sizes {
  const of = (name: string) => lengthOf(p, name);
  const prism = (kind: keyof typeof SIDES, thick: number, wide: number, from: number, to: number): Prism => ({
    sides: SIDES[kind],
    thick,
    wide: kind === 'blade' ? wide : thick,
    from,
    to,
  });
  const base = bothTips(p) ? of('tipLengthB') : of('headHeight');
  const r = of('shank') / 2;
  const to = base + of('shankLength');
  const half = of('head') / 2;
  // A cone at the root of the shank: where a turning load would crack a sharp corner.
  const cone = hasHead(p) ? Math.max(0, Math.min(half - r, of('shankLength')) * 0.5) : 0;
  const step = hasStep(p) ? { r: of('stepAcross') / 2, from: to, to: to + of('stepLength') } : null;
  const root = step ? step.to : to;
  const top = root + of('tipLength');
  const long = Math.min(of('ribLength'), of('shankLength'));
  return {
    tip: isFork(p)
      ? null
      : prism(p.tip as 'blade' | 'square' | 'hexagon', of('thickness'), of('bladeWidth'), root, top),
    fork: isFork(p) ? { slot: of('forkSlot'), from: root, to: top } : null,
    other: bothTips(p)
      ? prism(p.headShape as 'blade' | 'square', of('thicknessB'), of('bladeWidthB'), 0, base)
      : null,
    head: bothTips(p) ? null : { across: of('head'), to: base, hex: p.headShape === 'hexagon' },
    socket: hasSocket(p)
      ? {
          sides: SIDES[p.socket as 'slot' | 'square' | 'hexagon'],
          across: of('socketSize'),
          long: of('socketLong'),
          deep: of('socketDepth'),
        }
      : null,
    shank: { r, from: base, to, cone },
    step,
    rib: hasRib(p) ? { wide: of('ribWidth'), out: of('ribOut'), from: to - long, to } : null,
    top,
  };
}

const Z = [0, 0, 1] as const;

export function surfaces(p: Parameters): MateSurface[] {
  const s = sizesOf(p);
  const prism = (mate: string, { sides, thick, from, to }: Prism): MateSurface => ({
    mate,
    side: 'outside',
    kind: 'flats',
    size: thick,
    at: [0, 0, (from + to) / 2],
    axis: Z,
    // A hexagon has a flat on its right, a blade its flats in front and behind.
    across: sides === 6 ? [1, 0, 0] : [0, 1, 0],
    flats: sides,
    from,
    to,
  });
  // Round all about only where no rib is on it.
  const [low, high] = [s.shank.from + s.shank.cone, s.rib ? s.rib.from : s.shank.to];
  const found: MateSurface[] = [
    {
      mate: 'shank',
      side: 'outside',
      kind: 'round',
      size: 2 * s.shank.r,
      at: [0, 0, (low + high) / 2],
      axis: Z,
      from: low,
      to: high,
    },
  ];
  if (s.tip) found.push(prism('tip', s.tip));
  if (s.other) found.push(prism('tipB', s.other));
  if (s.fork) {
    const { slot, from, to } = s.fork;
    found.push({
      mate: 'fork',
      side: 'inside',
      kind: 'flats',
      size: slot,
      at: [0, 0, (from + to) / 2],
      axis: Z,
      across: [0, 1, 0],
      flats: 2,
      from,
      to,
    });
  }
  if (s.rib) {
    const { wide, out, from, to } = s.rib;
    found.push({
      mate: 'rib',
      side: 'outside',
      kind: 'flats',
      size: wide,
      at: [s.shank.r + out / 2, 0, (from + to) / 2],
      axis: Z,
      across: [0, 1, 0],
      flats: 2,
      from,
      to,
    });
  }
  if (s.socket) {
    const { sides, across, deep } = s.socket;
    found.push({
      mate: 'socket',
      side: 'inside',
      kind: 'flats',
      size: across,
      at: [0, 0, deep / 2],
      axis: Z,
      across: sides === 6 ? [1, 0, 0] : [0, 1, 0],
      flats: sides,
      from: 0,
      to: deep,
    });
  }
  return found;
}
