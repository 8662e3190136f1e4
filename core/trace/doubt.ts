import type { Curve } from '../shape/curve';
import type { Parted } from '../shape/lines-and-arcs/pieces';
import { takenMirror, tidied } from '../shape/tidy/tidy';
import type { Camera } from './camera/camera';
import type { CameraFit } from './camera/fit-camera';
import type { Thickness } from './contact';
import { ALONG } from './find/edge-points';
import { circleOf, loopAgain, type Placing, placingBy, type TracedLoop } from './outline';

/** Every closed line, as curves. */
export type Outlines = readonly (readonly Curve[])[];

/**
 * The uncertainty of a size of the outline: every uncertain input is moved by its sd, one after the other, lines and
 * arcs are fitted again, and the size is read again (JCGM 100, 5.1: the law of propagation of uncertainty).
 */
export class Doubt {
  readonly outlines: Outlines;
  private readonly moved: readonly Outlines[];

  constructor(
    private readonly still: readonly Parted[],
    /** The outline with one thing moved by its sd. */
    private readonly others: readonly (readonly Parted[])[],
    taken: readonly string[] = [],
  ) {
    const mirror = takenMirror(still, taken);
    this.outlines = tidied(still, taken, mirror);
    this.moved = others.map(o => tidied(o, taken, mirror));
  }

  /** The same with the accepted tidying. */
  with(taken: readonly string[]): Doubt {
    return new Doubt(this.still, this.others, taken);
  }

  /** @param size null where the outlines have none. @returns ± 95 % */
  of(size: (outlines: Outlines) => number | null): Sized | null {
    return this.ofAll(outlines => [size(outlines)])[0] ?? null;
  }

  /**
   * For several that are worked out together. @param sizes the same number for each of the outlines, null where they
   * have none
   */
  ofAll(sizes: (outlines: Outlines) => readonly (number | null)[]): (Sized | null)[] {
    const values = sizes(this.outlines);
    const squares = values.map(() => 0);
    for (const outlines of this.moved)
      sizes(outlines).forEach((next, i) => {
        const value = values[i];
        if (next !== null && Number.isFinite(next) && value !== null && value !== undefined)
          squares[i] = squares[i]! + (next - value) ** 2;
      });
    return values.map((value, i) => (value === null ? null : { value, u: 2 * Math.sqrt(squares[i]!) }));
  }
}

/** With its ± of 95 %. */
export interface Sized {
  value: number;
  u: number;
}

/**
 * Unknown errors, sd: of an edge in this picture, px; and of one side on its own, mm, growing with its height, since a
 * higher side throws a deeper shadow. Tried on simulated photos.
 */
const [EDGE, SIDE, SHADOW] = [0.15, 0.02, 0.004];
/** A hole deeper than this share of its width is dark: its edge is less certain by this factor. */
const [DEEP, DARKER] = [0.7, 3];
/** Neighbouring points of an edge have the same error over this distance, mm. */
const ALIKE = 1.5;

/**
 * @param pixel mm
 * @param height of the object, mm
 */
export function doubtOf(
  loops: readonly TracedLoop[],
  places: readonly Placing[],
  pixel: number,
  height: number,
): Doubt {
  const side = Math.hypot(SIDE, SHADOW * height);
  const still = loops.map(l => l.parted);
  const moved = places.map(place => loops.map(loop => loopAgain(loop, place)));
  moved.push(loops.map(loop => loopAgain(loop, null, () => EDGE * pixel)));
  loops.forEach((loop, at) => {
    const width = loop.hole ? (circleOf(loop.curves)?.diameter ?? Infinity) : Infinity;
    const own = side * (height > DEEP * width ? DARKER : 1);
    const { pieces, points } = loop.parted;
    const runs = pieces === 'circle' ? [{ from: 0, to: points.length - 1 }] : pieces;
    runs.forEach(({ from, to }, piece) => {
      const independent = Math.max(1, ((to - from) * ALONG) / ALIKE);
      const rms = (loop.rms[piece] ?? 0) / Math.sqrt(independent);
      // Moved, turned and bowed: the first three of Legendre's polynomials, each in proportion to its scatter.
      const shapes = [
        (_t: number) => Math.hypot(own, rms),
        (t: number) => Math.sqrt(3) * rms * t,
        (t: number) => Math.sqrt(5) * rms * (1.5 * t * t - 0.5),
      ];
      for (const shape of shapes) {
        const other = loopAgain(loop, null, i =>
          i < from || i > to ? 0 : shape((2 * (i - from)) / Math.max(1, to - from) - 1),
        );
        moved.push(still.map((p, k) => (k === at ? other : p)));
      }
    });
  });
  return new Doubt(still, moved);
}

/** sd of a height by caliper, and of edges that nobody checked, mm. */
const [HEIGHT, BROKEN] = [0.02, 0.08];

/** A photo's camera moved in each uncertain direction, and the object's height. */
export function placingsOf({ camera, spread }: CameraFit, thickness: Thickness): Placing[] {
  const numbers = camera.length;
  const out = Array.from({ length: numbers }, (_, k) => {
    const next: Camera = Float64Array.from(camera, (x, i) => x + (spread[i]?.[k] ?? 0));
    return placingBy(next, thickness);
  });
  return [...out, ...placingsAbout(camera, thickness)];
}

/** The object's height and its chamfers moved by their sd, under one camera. */
export function placingsAbout(camera: Camera, thickness: Thickness): Placing[] {
  if (thickness.height === 0) return [];
  const higher = { ...thickness, height: thickness.height + HEIGHT };
  const blunter = { ...thickness, broken: thickness.broken + BROKEN };
  return [placingBy(camera, higher), placingBy(camera, blunter)];
}
