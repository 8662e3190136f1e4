import type { Side } from '../fit/wants';
import type { Verdict } from './verdict';
import { chanceOfVerdict, type VerdictScale } from './verdict-scale';

/**
 * What tries teach. For each mate the unknown is β = model clearance − clearance of the print on the
 * real object (positive: tighter than drawn). β = b + δ: b is shared by all surfaces of a kind that
 * this printer makes in this material, δ is the mate's own (its reading's error). Each print adds its
 * scatter ε. Given b the mates are independent, so one grid over b with a grid over δ inside it gives
 * the joint posterior exactly and the same every time. Lengths mm, clearance whole width.
 */
export interface LearnMate {
  id: string;
  side: Side;
  /** Mates with the same key share b. */
  group: string;
  reading: { value: number; u: number };
  scale: VerdictScale;
  /** How much tighter this size is known to print than the group's b says, mm; 0 where left out. */
  shift?: number;
}

export interface Observation {
  model: number;
  verdict?: Verdict;
  /** What was wanted when it was judged, where that was something else than now: a verdict is about that. */
  scale?: VerdictScale;
  /** The print's own size, measured. */
  printed?: { value: number; u: number };
  /** One ring of a ladder, not a part. */
  rung?: boolean;
}

export interface Trial {
  mates: Record<string, Observation>;
}

export interface GroupPrior {
  mean: number;
  sd: number;
}

/** Posterior of one mate: weights over β on an even grid, mm. */
export interface MatePosterior {
  mean: number;
  sd: number;
  beta: Float64Array;
  weight: Float64Array;
}

export interface GroupPosterior {
  mates: Map<string, MatePosterior>;
  /** Posterior of the shared part b. */
  shared: { mean: number; sd: number };
  /** Chance that every mate's next print meets `isRight(mate, β)`, accounting for the shared b. */
  chanceAll(isRight: (mate: LearnMate, beta: number) => number): number;
}

const DELTA_POINTS = 31;
const DELTA_REACH = 5;
const SHARED_REACH = 7;
/** Steps of the shared grid: an eighth of its sd, never coarser than a third of the feel's blur and scatter. */
const SHARED_STEP = 0.012;
const MOST_SHARED_POINTS = 601;
/** Grid of β, mm: as fine as the posterior needs, never finer than any printer can follow. */
const BETA_STEP = 0.002;
const BETA_STEPS_PER_SD = 14;

/**
 * Joint posterior of the mates that share one b.
 * @param repeatability print-to-print sd, mm
 */
export function groupPosterior(
  mates: readonly LearnMate[],
  prior: GroupPrior,
  repeatability: number,
  trials: readonly Trial[],
): GroupPosterior {
  const b = sharedGrid(mates, prior, trials);
  const logB = Float64Array.from(b, x => (prior.sd > 0 ? -0.5 * ((x - prior.mean) / prior.sd) ** 2 : 0));
  const inner = mates.map(mate => {
    const delta = deltaGrid(mate.reading.u);
    /** p(δ | b, evidence), row by row of b, each row adding up to 1. */
    const rows = new Float64Array(b.length * delta.length);
    const seen = trials.flatMap(t => (t.mates[mate.id] ? [t.mates[mate.id]!] : []));
    for (let i = 0; i < b.length; i++) {
      let total = 0;
      for (let j = 0; j < delta.length; j++) {
        let w = mate.reading.u > 0 ? Math.exp(-0.5 * (delta[j]! / mate.reading.u) ** 2) : 1;
        for (const observation of seen) w *= likelihood(mate, observation, b[i]!, delta[j]!, repeatability);
        rows[i * delta.length + j] = w;
        total += w;
      }
      logB[i]! += Math.log(Math.max(total, 1e-300));
      for (let j = 0; j < delta.length; j++) rows[i * delta.length + j]! /= Math.max(total, 1e-300);
    }
    return { mate, delta, rows };
  });
  const weightB = normalise(logB);

  const posteriors = new Map<string, MatePosterior>();
  for (const { mate, delta, rows } of inner) posteriors.set(mate.id, marginal(b, weightB, delta, rows));
  return {
    mates: posteriors,
    shared: moments(b, weightB),
    chanceAll(isRight) {
      let chance = 0;
      for (let i = 0; i < b.length; i++) {
        if (weightB[i]! < 1e-9) continue;
        let product = weightB[i]!;
        for (const { mate, delta, rows } of inner) {
          let right = 0;
          for (let j = 0; j < delta.length; j++)
            right += rows[i * delta.length + j]! * isRight(mate, b[i]! + delta[j]!);
          product *= right;
        }
        chance += product;
      }
      return chance;
    },
  };
}

/** Clearance drawn: what the model number would give if everything but the known shift printed true. */
export function drawnClearance(
  { side, reading, shift = 0 }: Pick<LearnMate, 'side' | 'reading' | 'shift'>,
  model: number,
): number {
  return (side === 'inside' ? model - reading.value : reading.value - model) - shift;
}

/** How much tighter a measured print is than its model, by its own size alone: b + ε. */
const printedBias = (mate: LearnMate, model: number, printed: number) =>
  (mate.side === 'inside' ? model - printed : printed - model) - (mate.shift ?? 0);

function likelihood(mate: LearnMate, seen: Observation, b: number, delta: number, s: number): number {
  let shift = 0;
  let spread = s;
  let chance = 1;
  if (seen.printed) {
    // A caliper on the print measures b + ε; the remaining doubt of ε narrows the verdict's blur too.
    const y = printedBias(mate, seen.model, seen.printed.value) - b;
    const sum = s ** 2 + seen.printed.u ** 2;
    if (sum > 0) {
      chance = Math.exp((-0.5 * y ** 2) / sum) / Math.sqrt(sum);
      shift = (y * s ** 2) / sum;
      spread = (s * seen.printed.u) / Math.sqrt(sum);
    }
  }
  if (!seen.verdict) return chance;
  const clearance = drawnClearance(mate, seen.model) - b - delta - shift;
  return chance * chanceOfVerdict(seen.verdict, clearance, spread, seen.scale ?? mate.scale);
}

/** Wide enough for the prior and, when the prior is wrong, for what the tries say. */
function sharedGrid(mates: readonly LearnMate[], prior: GroupPrior, trials: readonly Trial[]): Float64Array {
  if (prior.sd <= 0) return Float64Array.of(prior.mean);
  let low = prior.mean - SHARED_REACH * prior.sd;
  let high = prior.mean + SHARED_REACH * prior.sd;
  for (const mate of mates) {
    for (const trial of trials) {
      const seen = trial.mates[mate.id];
      if (!seen) continue;
      const drawn = drawnClearance(mate, seen.model);
      const { min, max, beyond } = seen.scale ?? mate.scale;
      low = Math.min(low, drawn - max - 2 * beyond);
      high = Math.max(high, drawn - min + 2 * beyond);
    }
  }
  const step = Math.min(prior.sd / 8, SHARED_STEP);
  return even(low, high, Math.min(MOST_SHARED_POINTS, Math.max(3, Math.ceil((high - low) / step) + 1)));
}

const deltaGrid = (u: number) =>
  u > 0 ? even(-DELTA_REACH * u, DELTA_REACH * u, DELTA_POINTS) : Float64Array.of(0);

function even(low: number, high: number, points: number): Float64Array {
  return Float64Array.from({ length: points }, (_, i) => low + ((high - low) * i) / (points - 1));
}

function normalise(log: Float64Array): Float64Array {
  const peak = log.reduce((a, x) => Math.max(a, x), -Infinity);
  const weights = log.map(x => Math.exp(x - peak));
  const total = weights.reduce((sum, w) => sum + w, 0);
  return weights.map(w => w / total);
}

function moments(x: Float64Array, w: Float64Array): { mean: number; sd: number } {
  let mean = 0;
  for (let i = 0; i < x.length; i++) mean += w[i]! * x[i]!;
  let variance = 0;
  for (let i = 0; i < x.length; i++) variance += w[i]! * (x[i]! - mean) ** 2;
  return { mean, sd: Math.sqrt(variance) };
}

/** β = b + δ gathered on an even grid; each weight is shared by its two neighbours, which keeps the mean. */
function marginal(
  b: Float64Array,
  weightB: Float64Array,
  delta: Float64Array,
  rows: Float64Array,
): MatePosterior {
  let mean = 0;
  let square = 0;
  for (let i = 0; i < b.length; i++) {
    for (let j = 0; j < delta.length; j++) {
      const w = weightB[i]! * rows[i * delta.length + j]!;
      mean += w * (b[i]! + delta[j]!);
      square += w * (b[i]! + delta[j]!) ** 2;
    }
  }
  const sd = Math.sqrt(Math.max(0, square - mean * mean));
  const low = b[0]! + delta[0]!;
  const high = b.at(-1)! + delta.at(-1)!;
  const step = Math.max(BETA_STEP, sd / BETA_STEPS_PER_SD, (high - low) / 4000);
  const points = Math.ceil((high - low) / step) + 2;
  const weight = new Float64Array(points);
  for (let i = 0; i < b.length; i++) {
    for (let j = 0; j < delta.length; j++) {
      const w = weightB[i]! * rows[i * delta.length + j]!;
      const place = (b[i]! + delta[j]! - low) / step;
      const left = Math.floor(place);
      weight[left]! += w * (1 - (place - left));
      weight[left + 1]! += w * (place - left);
    }
  }
  return { mean, sd, beta: Float64Array.from({ length: points }, (_, i) => low + i * step), weight };
}
