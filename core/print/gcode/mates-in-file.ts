import { solved } from '../../quantity/linear';
import type { MateSurface } from '../../shape/mates';
import { dot, moved, type Point2, type Point3, point3 } from '../../shape/vector';
import { frameOf, lowestOf } from '../pose';
import { type GcodeFile, ROLES } from './file';
import type { Known, Match } from './match';
import type { Bed } from './on-bed';
import type { Thing } from './things';

/** What a sliced file makes of the surfaces that must fit: size, passes, supports on them, and their layers. Lengths mm. */

export interface MateInFile {
  surface: string;
  /** As it will be printed, null where only an upright surface could tell; and how it was drawn. */
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
    if (!stands || (surface.kind !== 'round' && surface.kind !== 'flats')) return { ...none, layers: [] };
    // Its ends along the way up; the axis may look down.
    const along = dot(axis, frame.up) > 0 ? 1 : -1;
    const heights = [surface.from, surface.to].map(
      t => (dot(at, frame.up) + along * (t - dot(at, axis)) + rise) * match.upright,
    );
    const [low, high] = [Math.min(...heights), Math.max(...heights)];
    const centre = place(at);
    const across = surface.across && directionOf(surface.across, place);
    const layers = thing.layers.filter(
      (l, k) => k >= FIRST_LAYERS && l.z > low + ENDS * (high - low) && l.z < high - ENDS * (high - low),
    );
    if (layers.length === 0) return { ...none, layers: [] };
    const shape: Shape = { surface, centre, across: across ?? null, scale: match.scale };
    const measured = spread(layers, MOST_MEASURED);
    const size = sizeOf(file, measured, shape, match.half);
    return {
      ...none,
      size,
      passes: size === null ? 0 : passesOf(file, measured, shape, match.half, bed.lineWidth),
      layers: spread(layers, MOST_SHOWN).map(l => shownLayer(file, l, shape)),
    };
  });
}

interface Shape {
  surface: MateSurface;
  /** In the file. */
  centre: Point2;
  /** Of flats: the way their width is measured, in the file, a unit vector. */
  across: Point2 | null;
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
  const { surface, centre, across, scale } = shape;
  const beside = (scale * surface.size) / 2 + 4;
  return Array.from(pieces).filter(i => {
    if (file.role[i] === INFILL || !runsAlong(shape, file, i)) return false;
    const [ax, ay, bx, by] = [file.x0[i]!, file.y0[i]!, file.x1[i]!, file.y1[i]!];
    if (across) {
      const along = (x: number, y: number) =>
        Math.abs(-(x - centre[0]) * across[1] + (y - centre[1]) * across[0]);
      if (Math.min(along(ax, ay), along(bx, by)) > beside) return false;
    }
    return Math.abs(offOf(shape, ax, ay) - off) < near && Math.abs(offOf(shape, bx, by) - off) < near;
  });
}

function sizeOf(file: GcodeFile, layers: readonly Layer[], shape: Shape, half: number): number | null {
  const { surface, scale } = shape;
  const into = intoPlastic(surface);
  const drawn = (scale * surface.size) / 2;
  const sizes = layers.flatMap(layer => {
    const lines = linesAt(file, layer, shape, drawn + into * half, NEAR * 2 * half);
    if (lines.length < LEAST_LINES && !shape.across) return [];
    const middle = shape.across ? flatsOf(file, lines, shape) : radiusOf(file, lines);
    return middle === null ? [] : [2 * (middle - into * half)];
  });
  sizes.sort((a, b) => a - b);
  return sizes[Math.floor(sizes.length / 2)] ?? null;
}

/** Radius of the circle through the ends of lines, least squares (Kåsa 1976). */
function radiusOf(file: GcodeFile, lines: readonly number[]): number | null {
  let [n, sx, sy, sxx, syy, sxy, sxz, syz, sz] = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  // About the first point: coordinates on the bed are large against a bore.
  const [ox, oy] = [file.x0[lines[0]!]!, file.y0[lines[0]!]!];
  for (const i of lines) {
    const [x, y] = [file.x0[i]! - ox, file.y0[i]! - oy];
    const z = x * x + y * y;
    n++;
    sx += x;
    sy += y;
    sxx += x * x;
    syy += y * y;
    sxy += x * y;
    sxz += x * z;
    syz += y * z;
    sz += z;
  }
  const found = solved(
    [
      [sxx, sxy, sx],
      [sxy, syy, sy],
      [sx, sy, n],
    ],
    [sxz, syz, sz],
  );
  if (!found) return null;
  const [a, b, c] = found as [number, number, number];
  return Math.sqrt(c + (a * a + b * b) / 4);
}

/** Half the width between lines on both sides of the middle, by their length; null where one side has none. */
function flatsOf(file: GcodeFile, lines: readonly number[], { centre, across }: Shape): number | null {
  const sides = [0, 0];
  const long = [0, 0];
  for (const i of lines) {
    const [x, y] = [(file.x0[i]! + file.x1[i]!) / 2, (file.y0[i]! + file.y1[i]!) / 2];
    const off = (x - centre[0]) * across![0] + (y - centre[1]) * across![1];
    const length = Math.hypot(file.x1[i]! - file.x0[i]!, file.y1[i]! - file.y0[i]!);
    const side = off < 0 ? 0 : 1;
    sides[side]! += length * Math.abs(off);
    long[side]! += length;
  }
  if (long[0]! < 1 || long[1]! < 1) return null;
  return (sides[0]! / long[0]! + sides[1]! / long[1]!) / 2;
}

/** Passes one beside the other from the surface into the plastic; infill ends them. */
function passesOf(
  file: GcodeFile,
  layers: readonly Layer[],
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
  const counts = layers.map(layer => {
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
