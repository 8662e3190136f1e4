import type { MateSurface } from '../../shape/mates';
import { sectionAtZ } from '../../shape/mesh/section';
import { cross, dot, moved, type Point2, type Point3, point3 } from '../../shape/vector';
import { frameOf, lowestOf, posed } from '../pose';
import { type GcodeFile, ROLES } from './file';
import type { Known, Match } from './match';
import type { Bed } from './on-bed';
import type { Thing } from './things';

/** What a sliced file makes of the surfaces that must fit: size, passes, supports on them, and their layers. Lengths mm. */

export interface MateInFile {
  surface: string;
  /** As it will be printed, null where neither an upright nor a level surface tells; and how it was drawn. */
  size: number | null;
  drawn: number;
  /** Passes beside it, one after the other. */
  passes: number;
  /** Supports stand on it. */
  supported: boolean;
  /** Some of its layers as they will be laid, from below. */
  layers: { z: number; lines: Float32Array; roles: Uint8Array }[];
}

/** An axis is upright within this: cosine of 2°. */
const UPRIGHT = 0.9994;
/** And level within this: sine of 2°. */
const LEVEL = 0.035;
/** A level bore is read off the layers about its axis, where its walls are steep: so far from it, of its radius. */
const STEEP = 0.6;
/** Flats may be wider above and below where they are measured: layers so near to it tell, mm. */
const AT_ITS_HEIGHT = 0.35;
/** Lines of a surface agree on its size within this, mm. */
const AGREE = 0.05;
/** So much of its length, about its middle, is the surface’s own for certain. */
const MIDDLE = 0.5;
/** Layers about it in which passes are counted. */
const UPRIGHT_LAYERS = 3;
/** Lines are looked for this near to where they should be, as a share of a line's width. */
const NEAR = 0.6;
/** At its ends a surface may have a lead-in: this share of its length is left out at each. */
const ENDS = 0.15;
/** The lowest layers are squeezed. */
const FIRST_LAYERS = 2;
/** Layers that are measured, and shown. */
const [MOST_MEASURED, MOST_SHOWN] = [10, 8];
/** Fewer lines than this tell no size. */
const LEAST_LINES = 4;
/** Passes that go round so much of a surface count. */
const LEAST_ROUND = 0.4;
const MOST_PASSES = 12;
/** Supports as near to a surface as this stand on it, mm. */
const TOUCHES = 0.8;

const [SUPPORT, INFILL] = [ROLES.indexOf('support'), ROLES.indexOf('infill')];

export function matesIn(file: GcodeFile, bed: Bed, match: Match, version: Known): MateInFile[] {
  const [thing] = bed.things;
  if (!thing) return [];
  const pose = { down: match.down, turn: 0 };
  const frame = frameOf(pose);
  const rise = -lowestOf(version.mesh, frame.up);
  const [a, b, c, d, e, f] = match.place;
  const place = (v: Point3): Point2 => {
    const [u, w] = [dot(v, frame.x), dot(v, frame.y)];
    return [a * u + b * w + c, d * u + e * w + f];
  };
  const det = a * e - b * d;
  const drawnAt = (x: number, y: number, z: number): Point3 => {
    const [u, w] = [(e * (x - c) - b * (y - f)) / det, (a * (y - f) - d * (x - c)) / det];
    const h = z / match.upright - rise;
    return point3(i => u * frame.x[i] + w * frame.y[i] + h * frame.up[i]);
  };
  const lying = posed(version.mesh, pose);
  const wallsAt = (z: number): Point2[][] =>
    sectionAtZ(lying, z / match.upright).map(loop =>
      loop.points.map(([u, w]): Point2 => [a * u + b * w + c, d * u + e * w + f]),
    );
  const cuts = thing.layers.map((layer, k) => ({
    layer,
    z: (layer.z + (thing.layers[k - 1]?.z ?? 0)) / 2,
  }));
  const supported = supportedIn(file, version.surfaces, drawnAt);
  return version.surfaces.map((surface, k): MateInFile => {
    const none = {
      surface: surface.mate,
      drawn: surface.size,
      supported: supported[k]!,
      size: null,
      passes: 0,
    };
    const { at, axis } = surface;
    const stands = Math.abs(dot(axis, frame.up)) > UPRIGHT;
    if (surface.kind !== 'round' && surface.kind !== 'flats') return { ...none, layers: [] };
    if (!stands) {
      const level = levelShape(surface, frame.up, place, match.scale);
      if (!level) return { ...none, layers: [] };
      const z = (dot(at, frame.up) + rise) * match.upright;
      return {
        ...none,
        ...levelMate(file, cuts, level, z, wallsAt, { half: match.half, lineWidth: bed.lineWidth }),
      };
    }
    // Its ends along the way up; the axis may look down.
    const along = dot(axis, frame.up) > 0 ? 1 : -1;
    const heights = [surface.from, surface.to].map(
      t => (dot(at, frame.up) + along * (t - dot(at, axis)) + rise) * match.upright,
    );
    const [low, high] = [Math.min(...heights), Math.max(...heights)];
    const centre = place(at);
    const across = surface.across && directionOf(surface.across, place);
    const layers = cuts.filter(
      ({ layer: l }, k) =>
        k >= FIRST_LAYERS && l.z > low + ENDS * (high - low) && l.z < high - ENDS * (high - low),
    );
    if (layers.length === 0) return { ...none, layers: [] };
    const shape: Shape = { surface, centre, across: across ?? null, scale: match.scale };
    const off = (match.scale * surface.size) / 2;
    const measured = spread(layers, MOST_MEASURED).map(cut => ({ ...cut, off }));
    const size = sizeOf(file, measured, shape, match.half, wallsAt);
    return {
      ...none,
      size,
      passes: size === null ? 0 : passesOf(file, measured, shape, match.half, bed.lineWidth),
      layers: spread(layers, MOST_SHOWN).map(({ layer }) => shownLayer(file, layer, shape)),
    };
  });
}

interface Shape {
  surface: MateSurface;
  /** In the file. */
  centre: Point2;
  /** Of flats: the way their width is measured, in the file, a unit vector. */
  across: Point2 | null;
  /** Of a level one: its lines pass so near to its middle, along them. */
  within?: number;
  scale: number;
}

type Layer = Thing['layers'][number];

const spread = <T>(all: readonly T[], most: number): T[] =>
  all.length <= most
    ? [...all]
    : Array.from({ length: most }, (_, i) => all[Math.round((i * (all.length - 1)) / (most - 1))]!);

function directionOf(way: Point3, place: (p: Point3) => Point2): Point2 {
  const [o, to] = [place([0, 0, 0]), place(way)];
  const [dx, dy] = [to[0] - o[0], to[1] - o[1]];
  const long = Math.hypot(dx, dy) || 1;
  return [dx / long, dy / long];
}

/** Which way the plastic is from the surface's edge: outwards of a hole, inwards of a peg. */
const intoPlastic = ({ side }: MateSurface): 1 | -1 => (side === 'inside' ? 1 : -1);

/** How far a point lies from the middle of the surface, as its size is measured: radius, or half a width. */
const offOf = ({ centre, across }: Shape, x: number, y: number): number => {
  const [dx, dy] = [x - centre[0], y - centre[1]];
  return across ? Math.abs(dx * across[0] + dy * across[1]) : Math.hypot(dx, dy);
};

/** Whether a line runs along the surface and not across it. */
function runsAlong({ centre, across }: Shape, file: GcodeFile, i: number): boolean {
  const [ax, ay, bx, by] = [file.x0[i]!, file.y0[i]!, file.x1[i]!, file.y1[i]!];
  const long = Math.hypot(bx - ax, by - ay);
  if (long < 1e-6) return false;
  const n = across ?? [(ax + bx) / 2 - centre[0], (ay + by) / 2 - centre[1]];
  const out = Math.hypot(n[0], n[1]) || 1;
  return Math.abs((bx - ax) * n[0] + (by - ay) * n[1]) < 0.3 * long * out;
}

/** Lines of a layer whose both ends lie about so far from the middle; of flats only beside it. */
function linesAt(file: GcodeFile, { pieces }: Layer, shape: Shape, off: number, near: number): number[] {
  const { surface, centre, across, scale, within } = shape;
  const beside = (scale * surface.size) / 2 + 4;
  return Array.from(pieces).filter(i => {
    if (file.role[i] === INFILL || !runsAlong(shape, file, i)) return false;
    const [ax, ay, bx, by] = [file.x0[i]!, file.y0[i]!, file.x1[i]!, file.y1[i]!];
    if (across) {
      const along = (x: number, y: number) => -(x - centre[0]) * across[1] + (y - centre[1]) * across[0];
      const ends = [along(ax, ay), along(bx, by)] as const;
      if (Math.min(...ends.map(Math.abs)) > beside && ends[0] * ends[1] > 0) return false;
      // A wall beyond it goes on as wide, or nearly.
      if (within !== undefined && (Math.min(...ends) > within || Math.max(...ends) < -within)) return false;
    }
    return Math.abs(offOf(shape, ax, ay) - off) < near && Math.abs(offOf(shape, bx, by) - off) < near;
  });
}

/** A layer with the height at which it was cut: half of its own below its top. */
interface Cut {
  layer: Layer;
  z: number;
  /** How far the surface lies from its middle there, mm. */
  off: number;
}

/**
 * A line of the surface lies half of its width beside the wall as it is drawn at that height, or the surface is larger
 * by the rest. Null where its lines do not agree: something else was looked at.
 * @param wallsAt the version as drawn, cut at a height of the file, where it lies there
 */
function sizeOf(
  file: GcodeFile,
  cuts: readonly Cut[],
  shape: Shape,
  half: number,
  wallsAt: (z: number) => Point2[][],
): number | null {
  const { surface, scale } = shape;
  const into = intoPlastic(surface);
  const radius = (scale * surface.size) / 2;
  const sizes = cuts.flatMap(({ layer, z, off }) => {
    const lines = linesAt(file, layer, shape, off + into * half, NEAR * 2 * half);
    if (lines.length === 0) return [];
    const walls = wallsAt(z);
    return lines.map(i => {
      const middle: Point2 = [(file.x0[i]! + file.x1[i]!) / 2, (file.y0[i]! + file.y1[i]!) / 2];
      // A sloping wall goes sideways by less than the surface grows.
      return 2 * radius + (2 * into * (toWalls(walls, middle) - half) * off) / radius;
    });
  });
  sizes.sort((a, b) => a - b);
  const at = (share: number) => sizes[Math.floor(share * (sizes.length - 1))]!;
  return sizes.length >= LEAST_LINES && at(0.8) - at(0.2) < AGREE ? at(0.5) : null;
}

/** A surface that lies along the bed, as its walls run there; null where its layers cannot tell its size. */
function levelShape(
  surface: MateSurface,
  up: Point3,
  place: (p: Point3) => Point2,
  scale: number,
): Shape | null {
  const { axis, at, kind } = surface;
  // Across a level bore there are its two walls; of flats, those whose width is measured along the bed.
  const across = kind === 'round' ? cross(axis, up) : surface.across!;
  const level = kind === 'round' ? Math.abs(dot(axis, up)) : Math.abs(dot(across, up));
  if (level > LEVEL) return null;
  const middle = dot(at, axis);
  const long = Math.max(Math.abs(surface.from - middle), Math.abs(surface.to - middle));
  return {
    surface,
    centre: place(at),
    across: directionOf(across, place),
    within: scale * MIDDLE * long,
    scale,
  };
}

/** @param axisAt how high its axis is in the file, mm */
function levelMate(
  file: GcodeFile,
  cuts: readonly Omit<Cut, 'off'>[],
  shape: Shape,
  axisAt: number,
  wallsAt: (z: number) => Point2[][],
  { half, lineWidth }: { half: number; lineWidth: number },
): Pick<MateInFile, 'size' | 'passes' | 'layers'> {
  const { surface, scale } = shape;
  const round = surface.kind === 'round';
  const radius = (scale * surface.size) / 2;
  const near = cuts.flatMap(({ layer, z }, k) => {
    const rise = z - axisAt;
    if (k < FIRST_LAYERS || Math.abs(rise) >= (round ? STEEP * radius : AT_ITS_HEIGHT)) return [];
    return [{ layer, z, rise, off: round ? Math.sqrt(radius ** 2 - rise ** 2) : radius }];
  });
  const size = sizeOf(file, spread(near, MOST_MEASURED), shape, half, wallsAt);
  // About the axis the walls are upright: passes lie side by side there.
  const upright = near.toSorted((a, b) => Math.abs(a.rise) - Math.abs(b.rise)).slice(0, UPRIGHT_LAYERS);
  return {
    size,
    passes: size === null ? 0 : passesOf(file, upright, shape, half, lineWidth),
    layers: spread(near, MOST_SHOWN).map(({ layer }) => shownLayer(file, layer, shape)),
  };
}

/** From a point to the nearest wall of a section, mm. */
function toWalls(walls: readonly Point2[][], [x, y]: Point2): number {
  let least = Infinity;
  for (const points of walls)
    points.forEach(([ax, ay], i) => {
      const [bx, by] = points[(i + 1) % points.length]!;
      const [dx, dy] = [bx - ax, by - ay];
      const long = dx * dx + dy * dy || 1;
      const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / long));
      least = Math.min(least, Math.hypot(ax + t * dx - x, ay + t * dy - y));
    });
  return least;
}

/** Passes one beside the other from the surface into the plastic; infill ends them. */
function passesOf(
  file: GcodeFile,
  cuts: readonly Pick<Cut, 'layer'>[],
  shape: Shape,
  half: number,
  width: number,
): number {
  const { surface, scale } = shape;
  const into = intoPlastic(surface);
  const drawn = (scale * surface.size) / 2;
  const lengthAt = (layer: Layer, k: number) =>
    linesAt(file, layer, shape, drawn + into * (half + k * width), 0.3 * width).reduce(
      (sum, i) => sum + Math.hypot(file.x1[i]! - file.x0[i]!, file.y1[i]! - file.y0[i]!),
      0,
    );
  const counts = cuts.map(({ layer }) => {
    const round = lengthAt(layer, 0);
    let k = 1;
    while (k < MOST_PASSES && round > 0 && lengthAt(layer, k) > LEAST_ROUND * round) k++;
    return k;
  });
  counts.sort((a, b) => a - b);
  return counts[Math.floor(counts.length / 2)] ?? 0;
}

/** By surface, whether supports reach it anywhere between its ends. @param drawnAt from the file to where it is drawn */
function supportedIn(
  file: GcodeFile,
  surfaces: readonly MateSurface[],
  drawnAt: (x: number, y: number, z: number) => Point3,
): boolean[] {
  const found = surfaces.map(() => false);
  if (!file.role.includes(SUPPORT)) return found;
  for (const { z, from, to } of file.layers)
    for (let i = from; i < to; i++) {
      if (file.role[i] !== SUPPORT) continue;
      const p = drawnAt((file.x0[i]! + file.x1[i]!) / 2, (file.y0[i]! + file.y1[i]!) / 2, z);
      surfaces.forEach((surface, k) => {
        if (!found[k] && touches(surface, p)) found[k] = true;
      });
    }
  return found;
}

function touches({ at, axis, across, size, from, to }: MateSurface, p: Point3): boolean {
  const along = dot(p, axis);
  if (along < from || along > to) return false;
  const off = moved(p, at, -1);
  const side = dot(off, axis);
  const out = Math.hypot(...moved(off, axis, -side));
  // Of flats what lies beside them is another part of the part.
  if (across && out > size / 2 + TOUCHES + 4) return false;
  return Math.abs((across ? Math.abs(dot(off, across)) : out) - size / 2) < TOUCHES;
}

/** A layer about the surface, its lines from the surface's middle. */
function shownLayer(
  file: GcodeFile,
  { z, pieces }: Layer,
  { surface, centre, scale }: Shape,
): MateInFile['layers'][number] {
  const reach = (scale * surface.size) / 2 + 6;
  const near = Array.from(pieces).filter(i =>
    [
      [file.x0[i]!, file.y0[i]!],
      [file.x1[i]!, file.y1[i]!],
    ].some(([x, y]) => Math.max(Math.abs(x! - centre[0]), Math.abs(y! - centre[1])) < reach),
  );
  const lines = new Float32Array(4 * near.length);
  const roles = new Uint8Array(near.length);
  near.forEach((i, k) => {
    lines.set(
      [file.x0[i]! - centre[0], file.y0[i]! - centre[1], file.x1[i]! - centre[0], file.y1[i]! - centre[1]],
      4 * k,
    );
    roles[k] = file.role[i]!;
  });
  return { z, lines, roles };
}
