import type { Outline } from '../../kernels/kernel';
import { Path, polyline } from '../../outline';
import type { Frame, Point2 } from '../../vector';
import type { Places } from '../define-recipe';
import type { P } from './parameters';

/**
 * A hinge leaf: a plate on the bed, a barrel along its edge with a bore for the pin, and screw holes; optionally a
 * second plate at an angle, and a barrel divided into knuckles. Or a lug: an eye on a new base. The pin runs along y, x
 * is to the right, z up. Lengths mm, angles degrees.
 */
export const isLug = (p: P) => p.style === 'lug';
export const isLeaf = (p: P) => !isLug(p);
export const hasKnuckles = (p: P) => isLeaf(p) && p.barrel === 'knuckles';
export const hasSecond = (p: P) => isLeaf(p) && p.second;

export interface Sizes {
  pin: number;
  /** Radius of the barrel, or of the lug's eye. */
  barrel: number;
  plate: number;
  /** From the pin to the plate's end. */
  reach: number;
  long: number;
  /** Height of the pin over the bed. */
  axis: number;
  screw: number;
  holes: number;
  /** Room between knuckles, and where each begins and ends along the pin. */
  knuckles: { gap: number; at: [number, number][] } | null;
  second: { angle: number; reach: number } | null;
  /** The lug's base along x and along the pin, and the fillet at its root. */
  base: { long: number; wide: number; root: number } | null;
}

export function sizesOf(p: P): Sizes {
  const pin = p.pinBore / 2;
  const barrel = pin + p.wall;
  const long = p.length;
  return {
    pin,
    barrel,
    plate: p.plate,
    reach: p.reach,
    long,
    axis: isLug(p) ? p.pinHeight : barrel + p.rise,
    screw: p.screwHole / 2,
    holes: p.holes,
    knuckles: hasKnuckles(p) ? knucklesOf(long, p.knuckles, p.gap) : null,
    second: hasSecond(p) ? { angle: p.angle, reach: p.reachB } : null,
    base: isLug(p) ? { long: p.baseLong, wide: p.baseWide, root: p.root } : null,
  };
}

function knucklesOf(long: number, count: number, gap: number) {
  const wide = (long - (count - 1) * gap) / count;
  const at = Array.from({ length: count }, (_, i): [number, number] => {
    const from = -long / 2 + i * (wide + gap);
    return [from, from + wide];
  });
  return { gap, at };
}

/** Extruded along the pin: drawn in (x, z). */
export const ALONG: Frame = { at: [0, 0, 0], x: [1, 0, 0], up: [0, -1, 0] };

/** The barrel about x = 0 with its foot down to the bed, the plate off to the right. */
export function leafOutline(s: Sizes): Outline {
  return new Path([-s.barrel, 0])
    .to([s.reach, 0])
    .to([s.reach, s.plate])
    .to([s.barrel, s.plate])
    .to([s.barrel, s.axis])
    .arc([-s.barrel, s.axis], [0, s.axis + s.barrel])
    .close();
}

/** Across the pin's axis from the first plate to the second: half the angle between them. */
const mirrorLine = (angle: number): Point2 => {
  const a = (angle / 2) * (Math.PI / 180);
  return [Math.cos(a), Math.sin(a)];
};

/** A point relative to the pin, mirrored onto the second plate's side. */
function mirrored([x, z]: Point2, [c, s]: Point2): Point2 {
  const along = x * c + z * s;
  return [2 * along * c - x, 2 * along * s - z];
}

/** The second plate and its web to the pin: the first one mirrored about half the angle between them. */
export function secondOutline(s: Sizes): Outline {
  const { angle, reach } = s.second!;
  const line = mirrorLine(angle);
  const corners: Point2[] = [
    [0, -s.axis],
    [reach, -s.axis],
    [reach, s.plate - s.axis],
    [s.barrel, s.plate - s.axis],
    [s.barrel, 0],
    [0, 0],
  ];
  // When mirrored they run the other way round.
  return polyline(
    corners
      .map(q => mirrored(q, line))
      .map(([x, z]): Point2 => [x, z + s.axis])
      .reverse(),
  );
}

/** A frame on the second plate's outer face, at a distance from the pin and a position along it. */
export function onSecond(s: Sizes, out: number, y: number): Frame {
  const { angle } = s.second!;
  const line = mirrorLine(angle);
  const [x, z] = mirrored([out, -s.axis], line);
  const [ux, uz] = mirrored([0, 1], line);
  return { at: [x, y, z + s.axis], x: [0, 1, 0], up: [ux, 0, uz] };
}

/** The lug's eye on its base, with fillets at the root. */
export function lugOutline(s: Sizes): Outline {
  const { long, root } = s.base!;
  const k = root * (1 - Math.SQRT1_2);
  return new Path([-long / 2, 0])
    .to([long / 2, 0])
    .to([long / 2, s.plate])
    .to([s.barrel + root, s.plate])
    .arc([s.barrel, s.plate + root], [s.barrel + k, s.plate + k])
    .to([s.barrel, s.axis])
    .arc([-s.barrel, s.axis], [0, s.axis + s.barrel])
    .to([-s.barrel, s.plate + root])
    .arc([-s.barrel - root, s.plate], [-s.barrel - k, s.plate + k])
    .to([-long / 2, s.plate])
    .close();
}

/** Holes through the face on the bed: (x, y). */
export function holesAt(s: Sizes): Point2[] {
  if (s.base) {
    const x = (s.barrel + s.base.root + s.base.long / 2) / 2;
    // One on either side, or two on either side along the pin.
    const rows = Math.ceil(s.holes / 2);
    return Array.from({ length: s.holes }, (_, i): Point2 => {
      const row = Math.floor(i / 2);
      return [i % 2 === 0 ? -x : x, s.base!.wide * ((row + 0.5) / rows - 0.5)];
    });
  }
  const x = (s.barrel + s.reach) / 2;
  return Array.from({ length: s.holes }, (_, i): Point2 => [x, s.long * ((i + 0.5) / s.holes - 0.5)]);
}

export type Mate = 'pin' | 'gap';

export function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  const first = s.knuckles?.at[0] ?? [-s.long / 2, s.long / 2];
  const radius = (s.pin + s.barrel) / 2;
  const { knuckles } = s;
  return {
    pin: {
      kind: 'round',
      at: [0, (first[0] + first[1]) / 2, s.axis],
      axis: [0, 1, 0],
      from: -s.long / 2,
      to: s.long / 2,
    },
    gap: knuckles && {
      kind: 'flats',
      at: [0, (knuckles.at[0]![1] + knuckles.at[1]![0]) / 2, s.axis + radius],
      axis: [0, 0, 1],
      across: [0, 1, 0],
      flats: 2,
      from: s.axis,
      to: s.axis + s.barrel,
    },
  };
}
