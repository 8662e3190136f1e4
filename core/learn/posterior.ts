import {
  carriedOver,
  drawnTo,
  even,
  type LearnMate,
  likelihoodOf,
  type Observation,
  SHARED_STEP,
  WILD,
} from './likelihood';

/**
 * What tries teach. For each mate the unknown is β = model clearance − clearance of the print on the
 * real object (positive: tighter than drawn). β = b + δ: b is shared by all surfaces of a kind that
 * this printer makes in this material, δ is the mate's own (its reading's error). Each print adds its
 * scatter ε. Given b the mates are independent, so one grid over b with a grid over δ inside it gives
 * the joint posterior exactly and the same every time. Both parts are normal but for one in ten: a printer may be
 * nothing like what is believed of it, and a reading may be of something else. Lengths mm, clearance whole width.
 */
export interface Trial {
  mates: Record<string, Observation>;
}

export interface GroupPrior {
  mean: number;
  sd: number;
  /** Chance that this belief, or a mate's reading, is completely wrong; the usual one unless stated. */
  wild?: number;
  /** Print-to-print sd of this kind of mate; the question's repeatability unless stated. */
  scatter?: number;
}

/** Posterior of one mate: weights at points of β, mm, that rise. */
export interface MatePosterior {
  /** Mean and sd of its bulk, so that a thin far tail affects neither. */
  mean: number;
  sd: number;
  beta: Float64Array;
  weight: Float64Array;
}

export interface GroupPosterior {
  mates: Map<string, MatePosterior>;
  /** Posterior of the shared part b. */
  shared: { mean: number; sd: number };
  /** Chance that every mate's next print is right, by each mate's chance given its β, accounting for the shared b. */
  chanceAll(rightOf: (mate: LearnMate) => (beta: number) => number): number;
}

const DELTA_POINTS = 31;
const MOST_DELTA_POINTS = 401;
const DELTA_REACH = 5;
const SHARED_REACH = 7;
/** Grid of β, mm: as fine as the posterior needs, never finer than any printer can follow. */
const BETA_STEP = 0.002;
const BETA_STEPS_PER_SD = 14;

/**
 * Half of the completely wrong values lie within the first distance, and all within the second, in steps of `beyond` of
 * the widest verdict scale.
 */
const WILD_SCALE = 1;
const WILD_REACH = 12;

/**
 * Joint posterior of the mates that share one b.
 * @param scatter print-to-print sd, mm, where the prior states none
 */
export function groupPosterior(
  mates: readonly LearnMate[],
  prior: GroupPrior,
  scatter: number,
  trials: readonly Trial[],
): GroupPosterior {
  const repeatability = prior.scatter ?? scatter;
  // Before the first of their tries nothing contradicts the belief.
  const tried = trials.some(t => mates.some(m => t.mates[m.id]));
  const wild = tried ? (prior.wild ?? WILD) : 0;
  const beyond = Math.max(...mates.map(m => m.scale.beyond));
  // No coarser than the scatter of a print, so that values between the far points are smooth.
  const narrowest = Math.min(...mates.map(m => m.scale.max - m.scale.min));
  const step = Math.max(SHARED_STEP, Math.min(narrowest / 4, repeatability));
  const tails: Tails = {
    share: wild,
    scale: WILD_SCALE * beyond,
    reach: WILD_REACH * beyond,
    step,
  };
  const b = sharedGrid(mates, prior, trials, tails);
  const logB = Float64Array.from(b.at, (x, i) =>
    Math.log(b.width[i]! * density(x - prior.mean, prior.sd, tails)),
  );
  const inner = mates.map(mate => {
    const u = Math.hypot(mate.reading.u, mate.growth ?? 0);
    // What was observed elsewhere is about the reading, and not about this printer.
    const ownTails = mate.elsewhere?.length ? { ...tails, share: prior.wild ?? WILD } : tails;
    const delta = withTails(deltaGrid(u, repeatability), 0, u, ownTails);
    const carried = carriedOver(mate);
    const own = Float64Array.from(delta.at, (x, j) => delta.width[j]! * density(x, u, ownTails) * carried(x));
    const seen = trials.flatMap(t => (t.mates[mate.id] ? [t.mates[mate.id]!] : []));
    const nothing = seen.length === 0;
    const told = likelihoodOf(
      mate,
      seen,
      repeatability,
      b.at[0]! + delta.at[0]!,
      b.at.at(-1)! + delta.at.at(-1)!,
    );
    /** p(δ | b, evidence), row by row of b, each row adding up to 1. */
    const rows = new Float64Array(b.at.length * delta.at.length);
    for (let i = 0; i < b.at.length; i++) {
      let total = 0;
      for (let j = 0; j < delta.at.length; j++) {
        const w = nothing ? own[j]! : own[j]! * told(b.at[i]!, delta.at[j]!);
        rows[i * delta.at.length + j] = w;
        total += w;
      }
      logB[i]! += Math.log(Math.max(total, 1e-300));
      const per = 1 / Math.max(total, 1e-300);
      for (let j = 0; j < delta.at.length; j++) rows[i * delta.at.length + j]! *= per;
    }
    return { mate, delta: delta.at, rows };
  });
  const weightB = normalise(logB);

  const posteriors = new Map<string, MatePosterior>();
  for (const { mate, delta, rows } of inner)
    posteriors.set(mate.id, marginal(b.at, weightB, delta, rows, step));
  return {
    mates: posteriors,
    shared: bulkOf(b.at, weightB),
    chanceAll(rightOf) {
      const all = inner.map(own => ({ ...own, isRight: rightOf(own.mate) }));
      let chance = 0;
      for (let i = 0; i < b.at.length; i++) {
        if (weightB[i]! < 1e-9) continue;
        let product = weightB[i]!;
        for (const { isRight, delta, rows } of all) {
          let right = 0;
          for (let j = 0; j < delta.length; j++) {
            const w = rows[i * delta.length + j]!;
            if (w > LEAST_WEIGHT) right += w * isRight(b.at[i]! + delta[j]!);
          }
          product *= right;
        }
        chance += product;
      }
      return chance;
    },
  };
}

/** Points, mm, and how much of the line each stands for. */
interface Grid {
  at: Float64Array;
  width: Float64Array;
}

interface Tails {
  /** The share of beliefs that are completely wrong. */
  share: number;
  /** Half of the completely wrong values lie within this distance, mm. */
  scale: number;
  reach: number;
  step: number;
}

/**
 * Normal apart from a few values that lie anywhere, by a Cauchy distribution. Where nothing is uncertain, nothing is
 * wrong.
 */
function density(x: number, sd: number, { share, scale, reach }: Tails): number {
  if (sd <= 0) return 1;
  const normal = Math.exp(-0.5 * (x / sd) ** 2) / (sd * Math.sqrt(2 * Math.PI));
  const wild = Math.abs(x) > reach ? 0 : 1 / (2 * Math.atan(reach / scale) * scale * (1 + (x / scale) ** 2));
  return (1 - share) * normal + share * wild;
}

/** Wide enough for the prior and, when the prior is wrong, for what the tries say. */
function sharedGrid(
  mates: readonly LearnMate[],
  prior: GroupPrior,
  trials: readonly Trial[],
  tails: Tails,
): Grid {
  if (prior.sd <= 0) return { at: Float64Array.of(prior.mean), width: Float64Array.of(1) };
  const step = Math.min(prior.sd / 8, SHARED_STEP);
  const half = SHARED_REACH * prior.sd;
  const core = even(prior.mean - half, prior.mean + half, Math.ceil((2 * half) / step) + 1);
  let reach = tails.reach;
  for (const mate of mates)
    for (const trial of trials) {
      const seen = trial.mates[mate.id];
      if (!seen) continue;
      const drawn = drawnTo(mate, seen);
      const { min, max, beyond } = seen.scale ?? mate.scale;
      reach = Math.max(reach, prior.mean - drawn + max + 2 * beyond, drawn - min + 2 * beyond - prior.mean);
      if (seen.off) reach = Math.max(reach, Math.abs(drawn - seen.off.value - prior.mean) + 4 * seen.off.u);
    }
  return withTails(core, prior.mean, prior.sd, { ...tails, reach });
}

/** Even where the reading says little, as fine as prints scatter: a try says more than the reading. */
const deltaGrid = (u: number, s: number) => {
  const fine = Math.ceil((2 * DELTA_REACH * u) / Math.max(s, SHARED_STEP));
  return u > 0
    ? even(-DELTA_REACH * u, DELTA_REACH * u, Math.min(MOST_DELTA_POINTS, Math.max(DELTA_POINTS, fine)))
    : Float64Array.of(0);
};

/** A grid that is coarser on both sides. */
function withTails(core: Float64Array, middle: number, sd: number, { share, reach, step }: Tails): Grid {
  const [low, high] = [core[0]!, core.at(-1)!];
  const more = sd > 0 && share > 0 ? Math.max(0, Math.ceil((reach - (high - middle)) / step)) : 0;
  const beside = Array.from({ length: more }, (_, i) => (i + 1) * step);
  const at = Float64Array.from([
    ...beside.map(x => low - x).reverse(),
    ...core,
    ...beside.map(x => high + x),
  ]);
  const last = at.length - 1;
  const width = at.map((_, i) =>
    last === 0 ? 1 : (at[Math.min(last, i + 1)]! - at[Math.max(0, i - 1)]!) / 2,
  );
  return { at, width };
}

function normalise(log: Float64Array): Float64Array {
  const peak = log.reduce((a, x) => Math.max(a, x), -Infinity);
  const weights = log.map(x => Math.exp(x - peak));
  const total = weights.reduce((sum, w) => sum + w, 0);
  return weights.map(w => w / total);
}

/** Values farther off than this are not part of the bulk, sd. */
const BULK_WITHIN = 4.5;
/** 68.27 % of a normal lies within one sd. */
const BELOW = 0.158655;

/** Mean and sd of the bulk: of the values within a few sd of its middle. Points in rising order. */
function bulkOf(x: Float64Array, w: Float64Array): { mean: number; sd: number } {
  const rough = middleOf(x, w);
  let [total, mean, square] = [0, 0, 0];
  for (let i = 0; i < x.length; i++) {
    if (Math.abs(x[i]! - rough.mean) > BULK_WITHIN * rough.sd + 1e-12) continue;
    total += w[i]!;
    mean += w[i]! * x[i]!;
    square += w[i]! * x[i]! ** 2;
  }
  mean /= total;
  return { mean, sd: Math.sqrt(Math.max(0, square / total - mean ** 2)) };
}

/** The middle and half the width of the interval that holds 68 %: for a normal, its mean and sd. */
function middleOf(x: Float64Array, w: Float64Array): { mean: number; sd: number } {
  if (x.length === 1) return { mean: x[0]!, sd: 0 };
  const at = (share: number) => {
    let below = 0;
    for (let i = 0; i < x.length; i++) {
      // Each point's weight is spread evenly around it, half a step to each side.
      const next = below + w[i]!;
      if (next >= share) {
        const left = i === 0 ? x[0]! : (x[i - 1]! + x[i]!) / 2;
        const right = i === x.length - 1 ? x[i]! : (x[i]! + x[i + 1]!) / 2;
        return left + ((right - left) * (share - below)) / w[i]!;
      }
      below = next;
    }
    return x.at(-1)!;
  };
  const [low, high] = [at(BELOW), at(1 - BELOW)];
  return { mean: (low + high) / 2, sd: (high - low) / 2 };
}

/** Beyond so many sd from the middle, points of β are gathered into coarser ones. */
const FINE_WITHIN = 4;
const LEAST_WEIGHT = 1e-9;

/** β = b + δ on a grid that is fine around its bulk; merging points keeps the mean. */
function marginal(
  b: Float64Array,
  weightB: Float64Array,
  delta: Float64Array,
  rows: Float64Array,
  coarse: number,
): MatePosterior {
  const low = b[0]! + delta[0]!;
  const high = b.at(-1)! + delta.at(-1)!;
  // Nothing is uncertain.
  if (high === low) return { mean: low, sd: 0, beta: Float64Array.of(low), weight: Float64Array.of(1) };
  const step = Math.max(BETA_STEP, (high - low) / 8000);
  const points = Math.ceil((high - low) / step) + 2;
  const even = new Float64Array(points);
  for (let i = 0; i < b.length; i++) {
    if (weightB[i]! < LEAST_WEIGHT) continue;
    for (let j = 0; j < delta.length; j++) {
      const w = weightB[i]! * rows[i * delta.length + j]!;
      const place = (b[i]! + delta[j]! - low) / step;
      const left = Math.floor(place);
      even[left]! += w * (1 - (place - left));
      even[left + 1]! += w * (place - left);
    }
  }
  const at = Float64Array.from({ length: points }, (_, i) => low + i * step);
  const bulk = bulkOf(at, even);
  const fine = Math.max(step, bulk.sd / BETA_STEPS_PER_SD);
  const gathered: { beta: number; weight: number }[] = [];
  for (let i = 0; i < points; ) {
    const width = Math.abs(at[i]! - bulk.mean) < FINE_WITHIN * bulk.sd ? fine : Math.max(fine, coarse);
    const from = at[i]!;
    let weight = 0;
    let sum = 0;
    for (; i < points && at[i]! < from + width - step / 2; i++) {
      weight += even[i]!;
      sum += even[i]! * at[i]!;
    }
    if (weight > LEAST_WEIGHT) gathered.push({ beta: sum / weight, weight });
  }
  return {
    ...bulk,
    beta: Float64Array.from(gathered, g => g.beta),
    weight: Float64Array.from(gathered, g => g.weight),
  };
}
