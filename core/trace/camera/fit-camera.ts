import { median } from 'd3-array';
import { CholeskyDecomposition, inverse, Matrix, solve } from 'ml-matrix';
import { poseOfPairs } from '../../scan/align/pose';
import { type Point2, point3 } from '../../shape/vector';
import { BAR } from '../sheet/layout';
import {
  type Camera,
  CX,
  CY,
  F,
  K1,
  K2,
  NUMBERS,
  P1,
  P2,
  printedAt,
  projection,
  SHIFT,
  SKEW,
  SX,
  SY,
  TURN,
} from './camera';
import { type Homography, homographyOf } from './homography';

/** What is known of a camera before it is fitted: for some numbers a value and its sd. */
export interface CameraPrior {
  width: number;
  height: number;
  /** 35 mm equivalent focal length from the file; null where it is not stated. */
  f35: number | null;
  /** Both bars as measured on the print, mm; null where they were not. */
  bars: { across: number; along: number } | null;
}

/** A place printed on the sheet, and where it appears in the picture. */
export interface Sighting {
  printed: Point2;
  seen: Point2;
}

export interface CameraFit {
  camera: Camera;
  /** Residual of the corners used, px in each direction. */
  rms: number;
  used: number;
  /** Lower triangle L of its covariance L Lᵀ, row by row. */
  spread: readonly (readonly number[])[];
}

/** Diagonal of the film format that equivalent focal lengths refer to, mm. */
const FILM = 43.267;
/** Typical for phones where nothing is stated. */
const USUAL_F35 = 27;
/** In pixels. @param f35 35 mm equivalent focal length, null where not stated */
export const focalLength = ({ width, height, f35 }: Pick<CameraPrior, 'width' | 'height' | 'f35'>): number =>
  ((f35 ?? USUAL_F35) * Math.hypot(width, height)) / FILM;
/** sd of the priors: tried on simulated phones. */
export const SD = {
  f: 0.04,
  fUnsaid: 0.4,
  centre: 0.007,
  k1: 0.12,
  k2: 0.04,
  p: 0.001,
  skew: 0.0007,
  /** Uncertainty of a bar read by caliper, as a share of it. */
  bar: 0.0005,
  /** Uncertainty of a sheet that nobody checked: printers fit to the page. */
  unread: 0.015,
  /** Ratio of the two scales of such a sheet. */
  ratio: 0.003,
} as const;
/** Corners are located to this, px in each direction. */
const CORNER_SD = 0.05;
/** Corners that miss by more than this many of the fit's own sd are outliers. */
const OUTLIER = 4;

/**
 * @param sightings at least four, on all sides
 * @param sd how well each was located, px in each direction
 */
export function fitCamera(
  sightings: readonly Sighting[],
  prior: CameraPrior,
  sd = CORNER_SD,
): CameraFit | null {
  const homography = homographyOf(sightings.map(s => [s.printed, s.seen]));
  const starts = prior.f35 === null ? [USUAL_F35, 20, 38, 60] : [prior.f35];
  let best: { camera: Camera; cost: number } | null = null;
  for (const f35 of starts) {
    const start = startOf(homography, { ...prior, f35 });
    const fit = start && descended(start, sightings, priorsOf(prior), sd);
    if (fit && (!best || fit.cost < best.cost)) best = fit;
  }
  if (!best) return null;
  // Once more without outliers.
  const missed = missesOf(best.camera, sightings);
  const typical = Math.max(sd, 1.5 * (median(missed) ?? 0));
  const kept = sightings.filter((_, i) => missed[i]! < OUTLIER * typical);
  if (kept.length < 4) return null;
  const fine = descended(best.camera, kept, priorsOf(prior), sd);
  if (!fine) return null;
  const misses = missesOf(fine.camera, kept);
  const rms = Math.sqrt(misses.reduce((s, m) => s + m * m, 0) / (2 * kept.length));
  const covariance = inverse(fine.normal).mul(Math.max(1, (rms / sd) ** 2));
  const even = new Matrix(NUMBERS, NUMBERS);
  for (let i = 0; i < NUMBERS; i++)
    for (let j = 0; j < NUMBERS; j++) even.set(i, j, (covariance.get(i, j) + covariance.get(j, i)) / 2);
  return {
    camera: fine.camera,
    rms,
    used: kept.length,
    spread: new CholeskyDecomposition(even).lowerTriangularMatrix.to2DArray(),
  };
}

function missesOf(camera: Camera, sightings: readonly Sighting[]): number[] {
  const project = projection(camera);
  return sightings.map(({ printed, seen }) => {
    const [u, v] = project(...printedAt(camera, printed), 0);
    return Math.hypot(u - seen[0], v - seen[1]);
  });
}

/** One row a prior: its number, its value, its certainty. */
type Prior = { of: (c: Camera) => number; value: number; sd: number };

function priorsOf({ width, height, f35, bars }: CameraPrior): Prior[] {
  const f = focalLength({ width, height, f35 });
  const plain = (k: number, value: number, sd: number): Prior => ({ of: c => c[k]!, value, sd });
  return [
    { of: c => Math.log(c[F]!), value: Math.log(f), sd: f35 === null ? SD.fUnsaid : SD.f },
    plain(CX, (width - 1) / 2, SD.centre * width),
    plain(CY, (height - 1) / 2, SD.centre * width),
    plain(K1, 0, SD.k1),
    plain(K2, 0, SD.k2),
    plain(P1, 0, SD.p),
    plain(P2, 0, SD.p),
    plain(SKEW, 0, SD.skew),
    ...(bars
      ? [plain(SX, bars.across / BAR, SD.bar), plain(SY, bars.along / BAR, SD.bar)]
      : [
          plain(SX, 1, SD.unread),
          plain(SY, 1, SD.unread),
          { of: (c: Camera) => c[SY]! / c[SX]!, value: 1, sd: SD.ratio },
        ]),
  ];
}

/** Turn and shift by the homography and a focal length (Zhang 2000). */
function startOf(h: Homography, prior: CameraPrior): Camera | null {
  const { width, height, bars } = prior;
  const f = focalLength(prior);
  const [cx, cy] = [(width - 1) / 2, (height - 1) / 2];
  const column = (j: 0 | 1 | 2) =>
    [(h[j]! - cx * h[6 + j]!) / f, (h[3 + j]! - cy * h[6 + j]!) / f, h[6 + j]!] as const;
  const [a, b, t] = [column(0), column(1), column(2)];
  const size = (Math.hypot(...a) + Math.hypot(...b)) / 2;
  if (!(size > 0)) return null;
  // The sheet is in front of the camera.
  const k = (t[2] < 0 ? -1 : 1) / size;
  const unit = (v: readonly [number, number, number]) => {
    const long = Math.hypot(...v);
    return point3(i => (Math.sign(k) * v[i]) / long);
  };
  const [x, y] = [unit(a), unit(b)];
  const z = point3(
    i => x[((i + 1) % 3) as 0]! * y[((i + 2) % 3) as 0]! - x[((i + 2) % 3) as 0]! * y[((i + 1) % 3) as 0]!,
  );
  const pose = poseOfPairs([
    [x, [1, 0, 0]],
    [y, [0, 1, 0]],
    [z, [0, 0, 1]],
    [
      [0, 0, 0],
      [0, 0, 0],
    ],
  ]);
  const omega = turnVector(pose.turn);
  const camera = new Float64Array(NUMBERS);
  camera[F] = f;
  camera[CX] = cx;
  camera[CY] = cy;
  camera[SX] = bars ? bars.across / BAR : 1;
  camera[SY] = bars ? bars.along / BAR : 1;
  for (let i = 0; i < 3; i++) {
    camera[TURN + i] = omega[i]!;
    camera[SHIFT + i] = k * t[i as 0];
  }
  return camera;
}

/** The axis of a rotation, with its angle as length, radians. */
function turnVector(m: readonly number[]): readonly number[] {
  const axis = [m[7]! - m[5]!, m[2]! - m[6]!, m[3]! - m[1]!];
  const sine = Math.hypot(...axis) / 2;
  const angle = Math.atan2(sine, (m[0]! + m[4]! + m[8]! - 1) / 2);
  if (sine > 1e-6) return axis.map(a => (a * angle) / (2 * sine));
  // Half a turn, or none: the axis is a column of the rotation with one added.
  if (angle < 1) return [0, 0, 0];
  const k = [0, 1, 2].reduce((best, i) => (m[4 * i]! > m[4 * best]! ? i : best), 0);
  const column = [0, 1, 2].map(i => m[3 * i + k]! + (i === k ? 1 : 0));
  const long = Math.hypot(...column);
  return column.map(c => (c * angle) / long);
}

const STEPS = 60;

/** Levenberg and Marquardt on pixels and priors together. */
function descended(start: Camera, sightings: readonly Sighting[], priors: readonly Prior[], sd: number) {
  const count = 2 * sightings.length + priors.length;
  const residuals = (c: Camera): Float64Array => {
    const out = new Float64Array(count);
    const project = projection(c);
    sightings.forEach(({ printed, seen }, i) => {
      const [u, v] = project(...printedAt(c, printed), 0);
      out[2 * i] = (u - seen[0]) / sd;
      out[2 * i + 1] = (v - seen[1]) / sd;
    });
    priors.forEach((p, i) => {
      out[2 * sightings.length + i] = (p.of(c) - p.value) / p.sd;
    });
    return out;
  };
  const costOf = (r: Float64Array) => r.reduce((s, x) => s + x * x, 0);
  const size = sizesOf(start);
  let camera = start;
  let now = residuals(camera);
  let cost = costOf(now);
  let damping = 1e-3;
  let normal = new Matrix(NUMBERS, NUMBERS);
  for (let step = 0; step < STEPS; step++) {
    const jacobian = new Matrix(count, NUMBERS);
    for (let k = 0; k < NUMBERS; k++) {
      const h = 1e-6 * size[k]!;
      const beside = Float64Array.from(camera);
      beside[k]! += h;
      const r = residuals(beside);
      for (let i = 0; i < count; i++) jacobian.set(i, k, (r[i]! - now[i]!) / h);
    }
    const turnedOver = jacobian.transpose();
    normal = turnedOver.mmul(jacobian);
    const gradient = turnedOver.mmul(Matrix.columnVector(now));
    let better = false;
    while (damping < 1e9) {
      const damped = normal.clone();
      for (let k = 0; k < NUMBERS; k++) damped.set(k, k, damped.get(k, k) * (1 + damping) + 1e-12);
      const move = solve(damped, gradient);
      const next = Float64Array.from(camera, (x, k) => x - move.get(k, 0));
      const r = residuals(next);
      const c = costOf(r);
      if (c < cost) {
        better = cost - c > 1e-7 * cost;
        [camera, now, cost] = [next, r, c];
        damping = Math.max(1e-9, damping / 10);
        break;
      }
      damping *= 8;
    }
    if (!better) break;
  }
  return Number.isFinite(cost) ? { camera, cost, normal } : null;
}

/** How far each number is changed for slopes, so that all change the picture equally. */
function sizesOf(c: Camera): number[] {
  const size = Array.from({ length: NUMBERS }, () => 1);
  for (const k of [F, CX, CY]) size[k] = c[F]!;
  for (let i = 0; i < 3; i++) size[SHIFT + i] = Math.abs(c[SHIFT + 2]!);
  for (const k of [K1, K2, P1, P2]) size[k] = 10;
  return size;
}
