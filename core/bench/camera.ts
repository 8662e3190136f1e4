import type { Point2 } from '../shape/vector';
import type { Camera } from '../trace/camera/camera';
import { ray, SKEW, SX, SY } from '../trace/camera/camera';
import { byteOf, type Picture } from '../trace/picture';
import { CELLS, lightCells } from '../trace/sheet/dictionary';
import { MARKER, type Middle, type Paper, SHEETS, SQUARE } from '../trace/sheet/layout';
import type { FlatObject } from './flat-object';
import { gauss, seeded } from './random';

/** A simulated photo of a flat object on the reference sheet. Lengths mm, light 0 to 1. */
export interface PhotoScene {
  width: number;
  height: number;
  camera: Camera;
  paper: Paper;
  middle: Middle;
  object: FlatObject | null;
  /** How much light the object reflects, for each colour. */
  colour: readonly [number, number, number];
  table: readonly [number, number, number];
  /** Light on the sheet falls off towards the right and lower edges, as shares of the light in the middle. */
  uneven: Point2;
  /** The lamp: its place over the sheet, height, width, and its share of the light. */
  lamp: { at: Point2; height: number; wide: number; share: number };
  /** Blur of the lens, sd, px. */
  blur: number;
  /** Noise in the light of a bright place, sd. */
  noise: number;
  /** The ends of the sheet are lifted by this: it lies on a curled page. */
  lift: number;
  seed: number;
}

/** Reflectances of ink and paper. */
const [PAPER, INK, DARK] = [0.82, 0.045, 0.06];
/** A wall looks darker than a face under the lamp. */
const WALL = 0.55;
/** A pixel with an edge in it is sampled at this many places in each direction. */
const FINE = 4;
/**
 * The map from pixels to places is exact at a grid of pixels, spaced by this; in between, linear interpolation is good enough.
 */
const KNOT = 8;
/** Light becomes bytes by a table of this many square roots: a file's own curve is nearly a square root. */
const BYTES = 8191;
/** Light that falls off from the lens's middle outwards at the corner (cos⁴ and more), as a share. */
const CORNER = 0.25;

export function photographed(scene: PhotoScene): Picture {
  const { width, height, seed } = scene;
  const light = new Float32Array(3 * width * height);
  const shade = shadeOf(scene);
  const rays = knots(scene, 0);
  const out: [number, number, number] = [0, 0, 0];
  for (let v = 0; v < height; v++)
    for (let u = 0; u < width; u++) {
      shade(u, v, rays(u, v), out);
      for (let k = 0; k < 3; k++) light[3 * (v * width + u) + k] = out[k as 0]!;
    }
  refine(light, width, height, (u, v) => {
    shade(u, v, rays(u, v), out);
    return out;
  });
  blurred(light, width, height, scene.blur);
  const data = new Uint8ClampedArray(4 * width * height);
  const reach = Math.hypot(width, height) / 2;
  const random = seeded(seed);
  // Random noise for each of ten million colours would take longest of all.
  const noise = Float32Array.from({ length: 1 << 16 }, () => gauss(random, 0, scene.noise));
  const bytes = Uint8Array.from({ length: BYTES + 1 }, (_, i) => byteOf((i / BYTES) ** 2));
  const most = noise.length - 1;
  let next = 0;
  for (let v = 0; v < height; v++)
    for (let u = 0; u < width; u++) {
      const i = v * width + u;
      const far = Math.hypot(u - width / 2, v - height / 2) / reach;
      const fall = 1 - CORNER * far * far;
      for (let k = 0; k < 3; k++) {
        const l = light[3 * i + k]! * fall;
        next = (Math.imul(next, 1664525) + 1013904223) | 0;
        const noisy = l + noise[(next >>> 8) & most]! * Math.sqrt(0.1 + 0.9 * l);
        data[4 * i + k] = noisy <= 0 ? 0 : bytes[Math.round(BYTES * Math.min(1, Math.sqrt(noisy)))]!;
      }
      data[4 * i + 3] = 255;
    }
  return { width, height, data };
}

/** Where the ray of a pixel meets a height: exact at knots. */
function knots({ width, height: rows, camera }: PhotoScene, height: number) {
  const back = ray(camera);
  const wide = Math.ceil(width / KNOT) + 2;
  const tall = Math.ceil(rows / KNOT) + 2;
  const at = new Float64Array(2 * wide * tall);
  for (let j = 0; j < tall; j++)
    for (let i = 0; i < wide; i++) {
      const [x, y] = back(i * KNOT - KNOT / 2, j * KNOT - KNOT / 2, height);
      at[2 * (j * wide + i)] = x;
      at[2 * (j * wide + i) + 1] = y;
    }
  return (u: number, v: number): Point2 => {
    const [p, q] = [(u + KNOT / 2) / KNOT, (v + KNOT / 2) / KNOT];
    const [i, j] = [Math.floor(p), Math.floor(q)];
    const [a, b] = [p - i, q - j];
    const k = 2 * (j * wide + i);
    const below = k + 2 * wide;
    const [w, x, y, z] = [(1 - a) * (1 - b), a * (1 - b), (1 - a) * b, a * b];
    return [
      w * at[k]! + x * at[k + 2]! + y * at[below]! + z * at[below + 2]!,
      w * at[k + 1]! + x * at[k + 3]! + y * at[below + 1]! + z * at[below + 3]!,
    ];
  };
}

type Shade = (u: number, v: number, foot: Point2, out: [number, number, number]) => void;

/** What the camera sees along the ray of a pixel that meets the sheet at `foot`. */
function shadeOf(scene: PhotoScene): Shade {
  const { object, colour, table, uneven, lamp, paper } = scene;
  const sheet = sheetOf(scene);
  const top = knots(scene, object?.height ?? 0);
  // No ray comes in flatter than this: farther away it cannot meet the object.
  const reach = 1.5 * (object?.height ?? 0) + 1;
  const half = SHEETS[paper].paper;
  const light = (x: number, y: number) =>
    1 +
    (uneven[0] * x) / half[0] +
    (uneven[1] * y) / half[1] -
    0.15 * ((x / half[0]) ** 2 + (y / half[1]) ** 2);
  return (u, v, foot, out) => {
    const hit = object && object.distance(foot[0], foot[1]) < reach ? object.hit(top(u, v), foot) : null;
    if (hit) {
      const l = light(...hit.at) * (hit.wall ? WALL : 1);
      for (let k = 0; k < 3; k++) out[k as 0] = l * colour[k as 0]!;
      return;
    }
    const l = light(...foot) * (1 - lamp.share * (object?.shadow(foot, lamp) ?? 0));
    const grey = sheet(foot);
    out[0] = l * (grey ?? table[0]);
    out[1] = l * (grey ?? table[1]);
    out[2] = l * (grey ?? table[2]);
  };
}

/** The reflectance of the sheet at a place; null beside it. */
function sheetOf({ camera, paper, middle, lift }: PhotoScene): (at: Point2) => number | null {
  const { paper: size, markers, blank, bars } = SHEETS[paper];
  const ids = new Map(markers.map(m => [keyOf(m.at), lightCells(m.id)]));
  const dark = new Set(SHEETS[paper].dark.map(keyOf));
  const [square, marker, cells] = [SQUARE, MARKER, CELLS];
  const [sx, sy, skew] = [camera[SX]!, camera[SY]!, camera[SKEW]!];
  const lines = Object.values(bars);
  return ([x, y]) => {
    // A lifted end appears farther out than it lies.
    const out = lift === 0 ? 1 : 1 - (lift * (Math.abs(y) / (size[1] / 2)) ** 2) / 450;
    const py = (y * out) / sy;
    const px = (x - skew * py) / sx;
    if (Math.abs(px) > size[0] / 2 || Math.abs(py) > size[1] / 2) return null;
    if (Math.abs(px) < blank[0] && Math.abs(py) < blank[1]) return middle === 'dark' ? DARK : PAPER;
    const cell: Point2 = [Math.round(px / square) * square, Math.round(py / square) * square];
    if (dark.has(keyOf(cell))) return INK;
    const code = ids.get(keyOf(cell));
    if (code) {
      const step = marker / (cells + 2);
      const [i, j] = [
        Math.floor((px - cell[0] + marker / 2) / step) - 1,
        Math.floor((py - cell[1] + marker / 2) / step) - 1,
      ];
      if (i < -1 || j < -1 || i > cells || j > cells) return PAPER;
      if (i < 0 || j < 0 || i >= cells || j >= cells) return INK;
      return code[j * cells + i] ? PAPER : INK;
    }
    for (const [a, b] of lines)
      if (
        Math.abs(px - (a[0] + b[0]) / 2) <= Math.max(0.2, (b[0] - a[0]) / 2) &&
        Math.abs(py - (a[1] + b[1]) / 2) <= Math.max(0.2, (b[1] - a[1]) / 2)
      )
        return INK;
    return PAPER;
  };
}

const keyOf = ([x, y]: Point2) => Math.round(x) * 1000 + Math.round(y);

/** Pixels that differ from their neighbours are sampled more finely. */
function refine(
  light: Float32Array,
  width: number,
  height: number,
  at: (u: number, v: number) => readonly [number, number, number],
): void {
  const edge = new Uint8Array(width * height);
  const differs = (i: number, j: number) => {
    for (let k = 0; k < 3; k++) if (Math.abs(light[3 * i + k]! - light[3 * j + k]!) > 0.015) return true;
    return false;
  };
  for (let v = 0; v < height - 1; v++)
    for (let u = 0; u < width - 1; u++) {
      const i = v * width + u;
      for (const j of [i + 1, i + width, i + width + 1])
        if (differs(i, j)) {
          edge[i] = 1;
          edge[j] = 1;
        }
    }
  for (let v = 0; v < height; v++)
    for (let u = 0; u < width; u++) {
      const i = v * width + u;
      if (!edge[i]) continue;
      const sum = [0, 0, 0];
      for (let b = 0; b < FINE; b++)
        for (let a = 0; a < FINE; a++) {
          const l = at(u + (a + 0.5) / FINE - 0.5, v + (b + 0.5) / FINE - 0.5);
          for (let k = 0; k < 3; k++) sum[k]! += l[k as 0]!;
        }
      for (let k = 0; k < 3; k++) light[3 * i + k] = sum[k]! / (FINE * FINE);
    }
}

/** A Gaussian blur, row by row and column by column. */
function blurred(light: Float32Array, width: number, height: number, sd: number): void {
  const reach = Math.ceil(3.5 * sd);
  const weights = Array.from({ length: 2 * reach + 1 }, (_, i) =>
    Math.exp(-((i - reach) ** 2) / (2 * sd * sd)),
  );
  const total = weights.reduce((s, w) => s + w, 0);
  const line = new Float32Array(3 * Math.max(width, height));
  const pass = (count: number, step: number, first: number) => {
    for (let i = 0; i < count; i++)
      for (let k = 0; k < 3; k++) line[3 * i + k] = light[first + i * step + k]!;
    for (let i = 0; i < count; i++)
      for (let k = 0; k < 3; k++) {
        let sum = 0;
        for (let w = -reach; w <= reach; w++)
          sum += weights[w + reach]! * line[3 * Math.max(0, Math.min(count - 1, i + w)) + k]!;
        light[first + i * step + k] = sum / total;
      }
  };
  for (let v = 0; v < height; v++) pass(width, 3, 3 * v * width);
  for (let u = 0; u < width; u++) pass(height, 3 * width, 3 * u);
}
