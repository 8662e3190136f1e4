import { median as medianOf } from 'd3-array';
import { polygonArea } from 'd3-polygon';
import { distance2, type Point2 } from '../../shape/vector';
import { lightAt, type Picture } from '../picture';
import type { Seen } from './flattened';
import type { SheetLight } from './sheet-light';

/** A point of the edge as seen in the picture, to about a twentieth of a pixel. */
export interface EdgePoint {
  /** Its place in the plane, as if it lay there. */
  at: Point2;
  /** px */
  seen: Point2;
  /** Outward normal, in the plane. */
  out: Point2;
}

export interface FoundEdge {
  /** Along the line; null where there is no clear edge. */
  points: (EdgePoint | null)[];
  /** px */
  sigma: number;
}

/** Spacing of points along a line, mm, and the number of neighbours that give its normal. */
export const [ALONG, BESIDE] = [0.25, 3];
/** Steps of a profile, px; its half-length: first for the search, then around the edge. */
const [STEP, REACH, ABOUT] = [0.25, 9, 6];
/** Lines side by side that make one profile, over this many mm. */
const [LINES, OVER] = [7, 0.5];
/** Weight of darkness: the edge against the sheet, not one within the object. */
const LEVEL = 0.12;
/** Damping of the slopes on both sides of an edge, per step² of light. */
const DAMPED = 0.3;
/** What is next to the edge counts most, sd in blurs plus px: a narrow shadow ends close by. */
const NEAR = [1.3, 0.5] as const;
/** An edge with a smaller step, as a share of the sheet's light, does not count. */
const LEAST_STEP = 0.12;
/** The fewest points of a line. */
const LEAST_POINTS = 12;
/** And one that misses its profile by more than this share of its step does not count. */
const MOST_MISSED = 0.16;

/** A line along the object as evenly spaced points. */
export function evenly(loop: readonly Point2[], step: number): Point2[] {
  const out: Point2[] = [];
  let left = 0;
  for (let i = 0; i < loop.length; i++) {
    const [a, b] = [loop[i]!, loop[(i + 1) % loop.length]!];
    const far = distance2(a, b);
    for (; left < far; left += step) {
      const s = left / far;
      out.push([a[0] + s * (b[0] - a[0]), a[1] + s * (b[1] - a[1])]);
    }
    left -= far;
  }
  return out;
}

/** Outward normals of a closed line of points. @param sign 1 where the material is on its left */
function acrossAt(points: readonly Point2[], i: number, sign: 1 | -1): Point2 {
  const n = points.length;
  const [a, b] = [points[(i + n - BESIDE) % n]!, points[(i + BESIDE) % n]!];
  const long = distance2(a, b) || 1;
  return [(sign * (b[1] - a[1])) / long, (-sign * (b[0] - a[0])) / long];
}

export class EdgeFinder {
  private readonly weights: Float64Array;
  private readonly bare = new Float64Array(3);
  private readonly seenLight = new Float64Array(3);

  constructor(
    private readonly picture: Picture,
    private readonly seen: Seen,
    private readonly sheet: SheetLight,
    /** The object's reflected light, for each colour. */
    private readonly tone: readonly [number, number, number],
    middle: Point2,
  ) {
    // Weights of the colours: those in which object and sheet differ most.
    this.sheet(middle[0], middle[1], this.bare);
    const apart = [0, 1, 2].map(k => 1 - this.tone[k as 0]! / this.bare[k]!);
    const total = apart.reduce((s, a) => s + a * a, 0) || 1;
    this.weights = Float64Array.from(apart, a => a / total);
  }

  /** The share from object to bare sheet, along a line across the edge; null outside the picture. */
  private profile(at: Point2, out: Point2, reach: number): Float64Array | null {
    const count = Math.round((2 * reach) / STEP) + 1;
    const values = new Float64Array(count);
    const here = this.seen(at[0], at[1]);
    const further = this.seen(at[0] + 0.5 * out[0], at[1] + 0.5 * out[1]);
    const beside = this.seen(at[0] - 0.5 * out[1], at[1] + 0.5 * out[0]);
    const far = distance2(here, further);
    const [mx, my] = [(further[0] - here[0]) / far, (further[1] - here[1]) / far];
    const [tx, ty] = [(beside[0] - here[0]) * 2, (beside[1] - here[1]) * 2];
    this.sheet(at[0], at[1], this.bare);
    const tone = [0, 1, 2].map(k => this.tone[k as 0]! / this.bare[k]!);
    for (let l = 0; l < LINES; l++) {
      const side = OVER * (l / (LINES - 1) - 0.5);
      for (let i = 0; i < count; i++) {
        const s = -reach + i * STEP;
        const u = here[0] + mx * s + tx * side;
        const v = here[1] + my * s + ty * side;
        if (!lightAt(this.picture, [u, v], this.seenLight)) return null;
        let value = 0;
        for (let k = 0; k < 3; k++)
          value += this.weights[k]! * (this.seenLight[k]! / this.bare[k]! - tone[k]!);
        values[i]! += value / LINES;
      }
    }
    return values;
  }

  /** The steepest step, px from the middle of a profile: of the darkest. */
  private steepest(values: Float64Array, reach: number): number {
    let best = { s: 0, value: -Infinity };
    for (let i = 3; i < values.length - 3; i++) {
      const slope = (values[i + 3]! - values[i - 3]!) / 6;
      const value = slope / (Math.abs(values[i]!) + LEVEL);
      if (value > best.value) best = { s: -reach + i * STEP, value };
    }
    return best.s;
  }

  /** Pixels per millimetre, across the edge at a place. */
  private scaleAt(at: Point2, out: Point2): number {
    return distance2(
      this.seen(at[0] - 0.5 * out[0], at[1] - 0.5 * out[1]),
      this.seen(at[0] + 0.5 * out[0], at[1] + 0.5 * out[1]),
    );
  }

  /**
   * Points of a closed line moved onto the edge, with sub-pixel accuracy: in two passes, the second starting from the
   * first.
   * @param loop roughly, in the plane
   * @param material whether it is inside the line, or around it: a hole
   * @param sigma blur of the picture, px; null finds it
   */
  refined(loop: readonly Point2[], material: 'within' | 'round', sigma: number | null): FoundEdge {
    let line = evenly(loop, ALONG);
    let blur = sigma;
    let found: FoundEdge['points'] = [];
    for (const reach of [REACH, ABOUT]) {
      // The package computes areas with y down: below 0 the inside is on the left.
      const inner = polygonArea(line.map(([x, y]): [number, number] => [x, y])) < 0 ? 1 : -1;
      const across = line.map((_, i) =>
        acrossAt(line, i, material === 'within' ? inner : (-inner as 1 | -1)),
      );
      const profiles = line.map((at, i) => {
        const out = across[i]!;
        const rough = this.profile(at, out, reach);
        if (!rough) return null;
        const start = shifted(at, out, this.steepest(rough, reach) / this.scaleAt(at, out));
        const values = this.profile(start, out, ABOUT);
        return values && { start, values };
      });
      blur ??= blurOf(profiles.flatMap(p => (p ? [p.values] : [])));
      const sd = blur;
      found = profiles.map((p, i) => {
        const s = p && stepIn(p.values, sd);
        if (s === null) return null;
        const out = across[i]!;
        const at = shifted(p!.start, out, s / this.scaleAt(p!.start, out));
        return { at, seen: this.seen(at[0], at[1]), out };
      });
      const next = found.flatMap(p => (p ? [p.at] : []));
      if (next.length < LEAST_POINTS) break;
      if (reach === REACH) line = evenly(next, ALONG);
    }
    return { points: found, sigma: blur ?? 1 };
  }
}

const median = (values: readonly number[]) => medianOf(values) ?? 0;

const shifted = (at: Point2, way: Point2, by: number): Point2 => [at[0] + by * way[0], at[1] + by * way[1]];

/** Edges that are used for the blur, and blurs that are tried, px; then the best is refined by halving. */
const [TELLING, BLURS, ROUND_IT] = [48, [0.6, 0.9, 1.2, 1.6, 2, 2.5, 3], [0.15, 0.08]] as const;

/** Blur of the picture: the one with the smallest residuals. px */
function blurOf(profiles: readonly Float64Array[]): number {
  // A place without an edge fits any blur.
  const some = profiles
    .filter((_, i) => i % Math.max(1, Math.floor(profiles.length / TELLING)) === 0)
    .filter(p => leastAbout(p, 1, 0, 2).step >= LEAST_STEP);
  const missed = (sd: number) => ({
    sd,
    missed: median(some.map(p => leastAbout(p, sd, 0, 2).missed)),
  });
  const least = (all: { sd: number; missed: number }[]) =>
    all.reduce((a, b) => (b.missed < a.missed ? b : a));
  let best = least(BLURS.map(missed));
  for (const step of ROUND_IT) best = least([best, missed(best.sd - step), missed(best.sd + step)]);
  return best.sd;
}

/** The step, px from the middle of a profile; null where there is none worth using. */
function stepIn(values: Float64Array, sd: number): number | null {
  const { at, missed, step } = leastAt(values, sd);
  if (step < LEAST_STEP || Math.sqrt(missed) > MOST_MISSED * step) return null;
  return Math.abs(at) < ABOUT - 2 ? at : null;
}

interface Step {
  /** px from the middle of a profile. */
  at: number;
  missed: number;
  step: number;
}

/** What counts most is next to the edge, whose place emerges step by step. */
const ROUNDS = 3;

function leastAt(values: Float64Array, sd: number): Step {
  let best: Step = { at: 0, missed: Infinity, step: 0 };
  for (let round = 0; round < ROUNDS; round++) best = leastAbout(values, sd, best.at, round === 0 ? 2 : 0.5);
  return best;
}

/** The best-fitting step, first by halves of a pixel, then in between. */
function leastAbout(values: Float64Array, sd: number, about: number, reach: number): Step {
  const tried = (at: number): Step => ({ at, ...missedBy(values, at, sd, about) });
  let best = tried(about);
  for (let off = -reach; off <= reach; off += 0.5) {
    const here = tried(about + off);
    if (here.missed < best.missed) best = here;
  }
  for (let h = 0.25; h > 0.01; h /= 2.5) {
    const [below, above] = [tried(best.at - h), tried(best.at + h)];
    const bend = below.missed - 2 * best.missed + above.missed;
    const move =
      bend > 0 ? Math.max(-2 * h, Math.min(2 * h, (h * (below.missed - above.missed)) / (2 * bend))) : 0;
    for (const next of [below, above, tried(best.at + move)]) if (next.missed < best.missed) best = next;
  }
  return best;
}

/**
 * A blurred step between two sides that may both slope, [a0 + a1 s] (1 − Φ) + [b0 + b1 s] Φ, fitted to a profile by
 * least squares: the slopes represent shadows and walls, and are damped.
 */
function missedBy(
  values: Float64Array,
  at: number,
  sd: number,
  about: number,
): { missed: number; step: number } {
  const n = values.length;
  const normal = NORMAL.fill(0);
  const right = RIGHT.fill(0);
  const row = ROW;
  let [square, sum] = [0, 0];
  const near = NEAR[0] * sd + NEAR[1];
  for (let i = 0; i < n; i++) {
    const s = i * STEP - ABOUT - at;
    const phi = normalBelow(s / sd);
    row[0] = 1 - phi;
    row[1] = s * (1 - phi);
    row[2] = phi;
    row[3] = s * phi;
    const v = values[i]!;
    const w = Math.exp(-((s + at - about) ** 2) / (2 * near * near));
    sum += w;
    square += w * v * v;
    for (let j = 0; j < 4; j++) {
      right[j]! += w * row[j]! * v;
      for (let k = j; k < 4; k++) normal[4 * j + k]! += w * row[j]! * row[k]!;
    }
  }
  normal[5]! += DAMPED * sum;
  normal[15]! += DAMPED * sum;
  // Cholesky, in place: for four by four, a package's objects would cost too much, a hundred thousand times a picture.
  for (let j = 0; j < 4; j++) {
    for (let k = 0; k < j; k++) normal[4 * j + j]! -= normal[4 * k + j]! ** 2;
    normal[4 * j + j] = Math.sqrt(Math.max(1e-12, normal[4 * j + j]!));
    for (let i = j + 1; i < 4; i++) {
      for (let k = 0; k < j; k++) normal[4 * j + i]! -= normal[4 * k + j]! * normal[4 * k + i]!;
      normal[4 * j + i]! /= normal[4 * j + j]!;
    }
  }
  let solved = 0;
  const x = new Float64Array(4);
  for (let j = 0; j < 4; j++) {
    let r = right[j]!;
    for (let k = 0; k < j; k++) r -= normal[4 * k + j]! * x[k]!;
    x[j] = r / normal[4 * j + j]!;
    solved += x[j]! * x[j]!;
  }
  const back = new Float64Array(4);
  for (let j = 3; j >= 0; j--) {
    let r = x[j]!;
    for (let k = j + 1; k < 4; k++) r -= normal[4 * j + k]! * back[k]!;
    back[j] = r / normal[4 * j + j]!;
  }
  return { missed: Math.max(0, square - solved) / sum, step: back[2]! - back[0]! };
}

/** Reused: allocating them would take longer than the work itself. */
const [NORMAL, RIGHT, ROW] = [new Float64Array(16), new Float64Array(4), new Float64Array(4)];
/** Φ tabulated at this many places per unit: it is needed ten million times a picture. */
const [PHI_STEPS, PHI_END] = [512, 6];
/** Abramowitz and Stegun 1964, 26.2.17, to 1e-7. */
const PHI = Float64Array.from({ length: 2 * PHI_STEPS * PHI_END + 2 }, (_, i) => {
  const z = i / PHI_STEPS - PHI_END;
  const x = Math.abs(z);
  const t = 1 / (1 + 0.2316419 * x);
  const tail =
    0.3989422804 *
    Math.exp((-x * x) / 2) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z > 0 ? 1 - tail : tail;
});

function normalBelow(z: number): number {
  if (z <= -PHI_END) return 0;
  if (z >= PHI_END) return 1;
  const at = (z + PHI_END) * PHI_STEPS;
  const i = Math.floor(at);
  return PHI[i]! + (at - i) * (PHI[i + 1]! - PHI[i]!);
}
