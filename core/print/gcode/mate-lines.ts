import type { MateSurface } from '../../shape/mates';
import { cross, dot, type Point2, type Point3, point3 } from '../../shape/vector';
import { gapTo } from '../../shape/within';
import { type GcodeFile, ROLES } from './file';
import type { Thing } from './things';

/** The lines of a sliced file that lie beside a surface: how large they make it, and how many lie side by side. mm */

export type Layer = Thing['layers'][number];

/** A surface as its walls run on one layer. */
export interface Shape {
  surface: MateSurface;
  /** Its middle there, in the file. */
  centre: Point2;
  /** Where its walls are straight there: the way across them, in the file, a unit vector. */
  across: Point2 | null;
  /** Of straight ones: their lines pass so near to its middle, along them. */
  within?: number;
  /** Of a round one that leans: which way, in the file, and the cosine of how far. */
  leans?: { way: Point2; cos: number };
  scale: number;
}

export interface Cut {
  layer: Layer;
  /** The height at which it was cut: half of its own below its top. */
  z: number;
  shape: Shape;
  /** Of straight walls: how far they lie from the middle there; of round ones the radius. */
  off: number;
}

/** Lines of a surface agree on its size within this, mm. */
const AGREE = 0.05;
/** Lines are looked for this near to where they should be, as a share of a line's width. */
const NEAR = 0.6;
/** Fewer lines than this tell no size. */
const LEAST_LINES = 4;
/** Passes that go round so much of a surface count. */
const LEAST_ROUND = 0.4;
const MOST_PASSES = 12;

const INFILL = ROLES.indexOf('infill');

/** Which way the plastic is from the surface's edge: outwards of a hole, inwards of a peg. */
const intoPlastic = ({ side }: MateSurface): 1 | -1 => (side === 'inside' ? 1 : -1);

export function directionOf(way: Point3, place: (p: Point3) => Point2): Point2 {
  const [o, to] = [place([0, 0, 0]), place(way)];
  const [dx, dy] = [to[0] - o[0], to[1] - o[1]];
  const long = Math.hypot(dx, dy) || 1;
  return [dx / long, dy / long];
}

/** The shape of a round surface whose axis leans, about its middle. @param up in the drawing, a unit vector */
export function leaningShape(
  surface: MateSurface,
  up: Point3,
  place: (p: Point3) => Point2,
  scale: number,
): Shape {
  const rises = dot(surface.axis, up);
  const level = point3(i => surface.axis[i] - rises * up[i]);
  return {
    surface,
    centre: place(surface.at),
    across: null,
    leans: { way: directionOf(level, place), cos: Math.abs(rises) },
    scale,
  };
}

/** A surface that lies along the bed, as its walls run there; null where its layers cannot tell its size. */
export function levelShape(
  surface: MateSurface,
  up: Point3,
  place: (p: Point3) => Point2,
  scale: number,
  { level: most, middle: share }: { level: number; middle: number },
): Shape | null {
  const { axis, at, kind } = surface;
  // Across a level bore there are its two walls; of flats, those whose width is measured along the bed.
  const across = kind === 'round' ? cross(axis, up) : surface.across!;
  const level = kind === 'round' ? Math.abs(dot(axis, up)) : Math.abs(dot(across, up));
  if (level > most) return null;
  const middle = dot(at, axis);
  const long = Math.max(Math.abs(surface.from - middle), Math.abs(surface.to - middle));
  return {
    surface,
    centre: place(at),
    across: directionOf(across, place),
    within: scale * share * long,
    scale,
  };
}

/**
 * Where a point lies beside the surface as it is drawn: `beside`, mm outwards along the bed, and how much a surface
 * grows for each mm that its wall moves outwards there. A round one that leans is an ellipse on each layer.
 */
function standsAt({ shape, off }: Cut, x: number, y: number): { beside: number; grows: number; out: Point2 } {
  const { centre, across, leans, scale, surface } = shape;
  const radius = (scale * surface.size) / 2;
  const [dx, dy] = [x - centre[0], y - centre[1]];
  if (across) {
    const along = dx * across[0] + dy * across[1];
    // A sloping wall goes sideways by less than the surface grows.
    return { beside: Math.abs(along) - off, grows: off / radius, out: across };
  }
  if (!leans) {
    const far = Math.hypot(dx, dy);
    return { beside: far - off, grows: 1, out: [dx, dy] };
  }
  const { way, cos } = leans;
  const [u, v] = [dx * way[0] + dy * way[1], dy * way[0] - dx * way[1]];
  const far = Math.hypot(cos * u, v) || 1;
  const slope: Point2 = [(cos * cos * u) / far, v / far];
  const grows = Math.hypot(slope[0], slope[1]);
  return {
    beside: (far - radius) / grows,
    grows,
    out: [slope[0] * way[0] - slope[1] * way[1], slope[0] * way[1] + slope[1] * way[0]],
  };
}

/** Whether a line runs along the surface and not across it. */
function runsAlong(cut: Cut, file: GcodeFile, i: number): boolean {
  const [ax, ay, bx, by] = [file.x0[i]!, file.y0[i]!, file.x1[i]!, file.y1[i]!];
  const long = Math.hypot(bx - ax, by - ay);
  if (long < 1e-6) return false;
  const { out: n } = standsAt(cut, (ax + bx) / 2, (ay + by) / 2);
  const out = Math.hypot(n[0], n[1]) || 1;
  return Math.abs((bx - ax) * n[0] + (by - ay) * n[1]) < 0.3 * long * out;
}

/** Lines of a layer whose both ends lie about so far beside the surface; of straight walls only beside it. */
function linesAt(file: GcodeFile, cut: Cut, beside: number, near: number): number[] {
  const { layer, shape } = cut;
  const { surface, centre, across, scale, within } = shape;
  const reach = (scale * surface.size) / 2 + 4;
  return Array.from(layer.pieces).filter(i => {
    const [ax, ay, bx, by] = [file.x0[i]!, file.y0[i]!, file.x1[i]!, file.y1[i]!];
    if (file.role[i] === INFILL) return false;
    if (Math.abs(standsAt(cut, ax, ay).beside - beside) >= near) return false;
    if (Math.abs(standsAt(cut, bx, by).beside - beside) >= near) return false;
    if (!runsAlong(cut, file, i)) return false;
    if (!across) return true;
    const along = (x: number, y: number) => -(x - centre[0]) * across[1] + (y - centre[1]) * across[0];
    const ends = [along(ax, ay), along(bx, by)] as const;
    if (Math.min(...ends.map(Math.abs)) > reach && ends[0] * ends[1] > 0) return false;
    // A wall beyond it goes on as wide, or nearly.
    return within === undefined || (Math.min(...ends) <= within && Math.max(...ends) >= -within);
  });
}

/**
 * A line of the surface lies half of its width beside the wall as it is drawn at that height, or the surface is larger
 * by the rest. Null where its lines do not agree: something else was looked at.
 * @param wallsAt the version as drawn, cut at a height of the file, where it lies there
 */
export function sizeOf(
  file: GcodeFile,
  cuts: readonly Cut[],
  half: number,
  wallsAt: (z: number) => Point2[][],
): number | null {
  const sizes = cuts.flatMap(cut => {
    const { surface, scale } = cut.shape;
    const into = intoPlastic(surface);
    const lines = linesAt(file, cut, into * half, NEAR * 2 * half);
    if (lines.length === 0) return [];
    const walls = wallsAt(cut.z);
    return lines.flatMap(i => {
      const middle: Point2 = [(file.x0[i]! + file.x1[i]!) / 2, (file.y0[i]! + file.y1[i]!) / 2];
      const { grows } = standsAt(cut, ...middle);
      const off = Math.min(...walls.map(loop => gapTo(middle, loop))) - half;
      // No wall was drawn there: it is a line of something else.
      if (Math.abs(off) > NEAR * 2 * half) return [];
      return [scale * surface.size + 2 * into * off * grows];
    });
  });
  sizes.sort((a, b) => a - b);
  const at = (share: number) => sizes[Math.floor(share * (sizes.length - 1))]!;
  return sizes.length >= LEAST_LINES && at(0.8) - at(0.2) < AGREE ? at(0.5) : null;
}

/** Passes one beside the other from the surface into the plastic; infill ends them. */
export function passesOf(file: GcodeFile, cuts: readonly Cut[], half: number, width: number): number {
  const counts = cuts.map(cut => {
    const into = intoPlastic(cut.shape.surface);
    const lengthAt = (k: number) =>
      linesAt(file, cut, into * (half + k * width), 0.3 * width).reduce(
        (sum, i) => sum + Math.hypot(file.x1[i]! - file.x0[i]!, file.y1[i]! - file.y0[i]!),
        0,
      );
    const round = lengthAt(0);
    let k = 1;
    while (k < MOST_PASSES && round > 0 && lengthAt(k) > LEAST_ROUND * round) k++;
    return k;
  });
  counts.sort((a, b) => a - b);
  return counts[Math.floor(counts.length / 2)] ?? 0;
}
