import type { MateSurface } from '../../shape/mates';
import { sectionAtZ } from '../../shape/mesh/section';
import { dot, moved, type Point2, type Point3, point3 } from '../../shape/vector';
import { frameOf, lowestOf, posed } from '../pose';
import { type GcodeFile, ROLES } from './file';
import type { Known, Match } from './match';
import { heightOf } from './mate-height';
import {
  type Cut,
  directionOf,
  type Layer,
  leaningShape,
  levelShape,
  passesOf,
  type Shape,
  sizeOf,
} from './mate-lines';
import type { Bed } from './on-bed';

/**
 * How a sliced file will print the surfaces that must fit: size, passes, supports on them, and their layers. Lengths
 * mm.
 */

export interface MateInFile {
  surface: string;
  /** The size as it will be printed, null where its lines do not show it; and as drawn. */
  size: number | null;
  drawn: number;
  /** Its flats lie one above the other: its size is a whole number of layers. */
  inLayers?: true;
  /** Passes side by side along it. */
  passes: number;
  /** Supports stand on it. */
  supported: boolean;
  /** Some of its layers as they will be printed, from below. */
  layers: { z: number; lines: Float32Array; roles: Uint8Array }[];
}

/** An axis is upright within this: cosine of 2°. */
const UPRIGHT = 0.9994;
/** And level within this: sine of 2°. */
const LEVEL = 0.035;
/** With a larger lean, walls are steps: cosine of 50°. */
const STEEPEST = 0.64;
/**
 * A level bore is measured on the layers around its axis, where its walls are steep: this far from it, as a share of
 * its radius.
 */
const STEEP = 0.6;
/** Flats may be wider above and below the place where they are measured: layers this near to it count, mm. */
const AT_ITS_HEIGHT = 0.35;
/** This share of its length, around its middle, certainly belongs to the surface. */
const MIDDLE = 0.5;
/** Layers around its middle in which passes are counted. */
const UPRIGHT_LAYERS = 3;
/** A surface may have a lead-in: this share of its length is left out at each end. */
const ENDS = 0.15;
/** The lowest layers are squeezed. */
const FIRST_LAYERS = 2;
/** How many layers are measured, and shown. */
const [MOST_MEASURED, MOST_SHOWN] = [10, 8];
/** In a scaled file heights differ from the drawn ones. */
const NOT_SCALED = 0.004;
/** Supports this near to a surface count as standing on it, mm. */
const TOUCHES = 0.8;

const SUPPORT = ROLES.indexOf('support');

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
  const heightAt = (v: Point3): number => (dot(v, frame.up) + rise) * match.upright;
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
  const layers = thing.layers
    .map((layer, k) => ({ layer, z: (layer.z + (thing.layers[k - 1]?.z ?? 0)) / 2 }))
    .slice(FIRST_LAYERS);
  const { half } = match;
  const { lineWidth } = bed;
  const supported = supportedIn(file, version.surfaces, drawnAt);
  return version.surfaces.map((surface, k): MateInFile => {
    const { mate, size: drawn, kind } = surface;
    const none = { surface: mate, drawn, supported: supported[k]!, size: null, passes: 0, layers: [] };
    if (kind !== 'round' && kind !== 'flats') return none;
    if (kind === 'flats' && Math.abs(dot(surface.across!, frame.up)) > UPRIGHT) {
      const size =
        Math.abs(match.upright - 1) < NOT_SCALED
          ? heightOf(file, thing.layers, surface, lineWidth, place, heightAt)
          : null;
      return size === null ? none : { ...none, size, inLayers: true };
    }
    const upright = Math.abs(dot(surface.axis, frame.up));
    const where = { layers, place, heightAt, up: frame.up, scale: match.scale };
    const { measured, counted, shown } =
      upright > UPRIGHT
        ? uprightCuts(surface, where)
        : (levelCuts(surface, where) ?? leaningCuts(surface, where));
    if (measured.length === 0) return none;
    const size = sizeOf(file, measured, half, wallsAt);
    return {
      ...none,
      size,
      passes: size === null ? 0 : passesOf(file, counted, half, lineWidth),
      layers: shown.map(cut => shownLayer(file, cut)),
    };
  });
}

/** The pose of a version in the file. */
interface Where {
  layers: readonly { layer: Layer; z: number }[];
  place(p: Point3): Point2;
  heightAt(p: Point3): number;
  up: Point3;
  scale: number;
}

/** The layers that show a surface's size, those in which its passes are counted, and those that are shown. */
interface Cuts {
  measured: Cut[];
  counted: Cut[];
  shown: Cut[];
}

const cutsOf = (all: readonly Cut[], counted?: readonly Cut[]): Cuts => {
  const measured = spread(all, MOST_MEASURED);
  return { measured, counted: [...(counted ?? measured)], shown: spread(all, MOST_SHOWN) };
};

const spread = <T>(all: readonly T[], most: number): T[] =>
  all.length <= most
    ? [...all]
    : Array.from({ length: most }, (_, i) => all[Math.round((i * (all.length - 1)) / (most - 1))]!);

function uprightCuts(surface: MateSurface, { layers, place, heightAt, scale }: Where): Cuts {
  const { at, axis } = surface;
  // Its ends along the way up; its axis may point down.
  const heights = [surface.from, surface.to].map(t => heightAt(moved(at, axis, t - dot(at, axis))));
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const across = surface.across ? directionOf(surface.across, place) : null;
  const shape: Shape = { surface, centre: place(at), across, scale };
  const off = (scale * surface.size) / 2;
  return cutsOf(
    layers.flatMap(({ layer, z }) =>
      layer.z > low + ENDS * (high - low) && layer.z < high - ENDS * (high - low)
        ? [{ layer, z, shape, off }]
        : [],
    ),
  );
}

/** Null where it does not lie along the bed. */
function levelCuts(surface: MateSurface, { layers, place, heightAt, up, scale }: Where): Cuts | null {
  const shape = levelShape(surface, up, place, scale, { level: LEVEL, middle: MIDDLE });
  if (!shape) return null;
  const round = surface.kind === 'round';
  const radius = (scale * surface.size) / 2;
  const axisAt = heightAt(surface.at);
  const near = layers.flatMap(({ layer, z }) => {
    const rise = z - axisAt;
    if (Math.abs(rise) >= (round ? STEEP * radius : AT_ITS_HEIGHT)) return [];
    return [{ layer, z, shape, rise, off: round ? Math.sqrt(radius ** 2 - rise ** 2) : radius }];
  });
  // Around the axis the walls are upright: passes run side by side there.
  const upright = near.toSorted((a, b) => Math.abs(a.rise) - Math.abs(b.rise)).slice(0, UPRIGHT_LAYERS);
  return cutsOf(near, upright);
}

/** For a round surface whose axis leans: the layers that cut it all round, each around its own centre. */
function leaningCuts(surface: MateSurface, { layers, place, heightAt, up, scale }: Where): Cuts {
  const { at, axis, from, to, size, kind } = surface;
  const cos = Math.abs(dot(axis, up));
  if (kind !== 'round' || cos < STEEPEST) return cutsOf([]);
  const shape = leaningShape(surface, up, place, scale);
  const middle = dot(at, axis);
  // A layer reaches this far along the axis to either side.
  const reach = ((size / 2) * Math.sqrt(1 - cos * cos)) / cos;
  const margin = reach + ENDS * (to - from);
  const [atMiddle, rises] = [heightAt(at), heightAt(moved(at, axis)) - heightAt(at)];
  return cutsOf(
    layers.flatMap(({ layer, z }) => {
      const t = middle + (z - atMiddle) / rises;
      if (t < from + margin || t > to - margin) return [];
      const centre = place(moved(at, axis, t - middle));
      return [{ layer, z, shape: { ...shape, centre }, off: (scale * size) / 2 }];
    }),
  );
}

/** By surface, whether supports reach it anywhere between its ends. @param drawnAt from the file to the drawing */
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
  // Beside flats there may be another region of the part.
  if (across && out > size / 2 + TOUCHES + 4) return false;
  return Math.abs((across ? Math.abs(dot(off, across)) : out) - size / 2) < TOUCHES;
}

/** A layer around the surface, with its lines relative to the surface's centre. */
function shownLayer(file: GcodeFile, { layer, shape }: Cut): MateInFile['layers'][number] {
  const { z, pieces } = layer;
  const { surface, centre, scale } = shape;
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
