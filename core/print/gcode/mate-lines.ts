import type { MateSurface } from '../../shape/mates';
import { cross, dot, type Point2, type Point3, point3 } from '../../shape/vector';
import { gapTo } from '../../shape/within';
import { type GcodeFile, ROLES } from './file';
import type { Thing } from './things';

/** The lines of a sliced file beside a surface: the size that they give it, and how many run side by side. mm */

export type Layer = Thing['layers'][number];

/** A surface, by its walls on one layer. */
export interface Shape {
  surface: MateSurface;
  /** Its centre there, in the file. */
  centre: Point2;
  /** For straight walls: the direction across them, in the file, a unit vector. */
  across: Point2 | null;
  /** For straight walls: their lines pass this near to its centre, along them. */
  within?: number;
  /** For a round surface that leans: its direction in the file, and the cosine of its lean. */
  leans?: { way: Point2; cos: number };
  scale: number;
}

export interface Cut {
  layer: Layer;
  /** The height at which the layer was cut: half its thickness below its top. */
  z: number;
  shape: Shape;
  /** For straight walls: their distance from the centre there; for round ones the radius. */
  off: number;
}

/** Lines of a surface agree on its size within this, mm. */
const AGREE = 0.05;
/** Lines are searched this near to their place, as a share of a line's width. */
const NEAR = 0.6;
/** Fewer lines than this give no size. */
const LEAST_LINES = 4;
/** Passes that go round at least this share of a surface count. */
const LEAST_ROUND = 0.4;
const MOST_PASSES = 12;

const INFILL = ROLES.indexOf('infill');

/** Which side of the surface's edge the plastic is on: outside a hole, inside a peg. */
const intoPlastic = ({ side }: MateSurface): 1 | -1 => (side === 'inside' ? 1 : -1);

export function directionOf(way: Point3, place: (p: Point3) => Point2): Point2 {
  const [o, to] = [place([0, 0, 0]), place(way)];
  const [dx, dy] = [to[0] - o[0], to[1] - o[1]];
  const long = Math.hypot(dx, dy) || 1;
  return [dx / long, dy / long];
}

/** The shape of a round surface whose axis leans, around its centre. @param up in the drawing, a unit vector */
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

/** A surface along the bed, by its walls there; null where its layers cannot show its size. */
export function levelShape(
  surface: MateSurface,
  up: Point3,
  place: (p: Point3) => Point2,
  scale: number,
  { level: most, middle: share }: { level: number; middle: number },
): Shape | null {
  const { axis, at, kind } = surface;
  // Beside a level bore there are its two walls; for flats, those whose width is measured along the bed.
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
 * The position of a point beside the surface as drawn: `beside`, mm outwards along the bed, and how much the surface
 * grows for each mm that its wall moves outwards there. A round surface that leans is an ellipse on each layer.
 */
function standsAt({ shape, off }: Cut, x: number, y: number): { beside: number; grows: number; out: Point2 } {
  const { centre, across, leans, scale, surface } = shape;
  const radius = (scale * surface.size) / 2;
  const [dx, dy] = [x - centre[0], y - centre[1]];
  if (across) {
    const along = dx * across[0] + dy * across[1];
    // A sloping wall moves sideways by less than the surface grows.
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

/** Lines of a layer with both ends about this far beside the surface; for straight walls, only those beside it. */
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
    // Beyond it the wall continues at the same width, or nearly.
    return within === undefined || (Math.min(...ends) <= within && Math.max(...ends) >= -within);
  });
}

/**
 * A line of the surface is half its width away from the wall as drawn at that height; any further distance shows that
 * the surface is larger. Null where its lines do not agree: something else was found.
 * @param wallsAt the version as drawn, cut at a height of the file, in its place there
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

/** Passes side by side from the surface into the plastic, up to the infill. */
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
