import type { Side } from '../fit/wants';
import type { Verdict } from './verdict';
import { chanceOfVerdict, type VerdictScale } from './verdict-scale';

/**
 * What was observed of a mate, and how likely that is for given errors of its printer and its reading. See
 * posterior.ts.
 */

export interface LearnMate {
  id: string;
  side: Side;
  /** Mates with the same key share b. */
  group: string;
  reading: { value: number; u: number };
  scale: VerdictScale;
  /** How much tighter this size is known to print than the group's b, mm; 0 where left out. */
  shift?: number;
  /**
   * The mate's own uncertainty beyond its reading's, sd, mm: how its printer's error changes with size; 0 where left
   * out.
   */
  growth?: number;
  /** How far the surface moves per mm or degree of its number; 1 where left out. */
  rate?: number;
  /**
   * What was observed in other plastics, on other printers, or in other orientations: the reading's error is the same
   * there.
   */
  elsewhere?: readonly Elsewhere[];
}

/** Prints of a mate that share another b. */
export interface Elsewhere {
  /** The belief about that b, and about the change with size there. */
  prior: { mean: number; sd: number };
  scatter: number;
  seen: readonly Observation[];
  /** In words: “PLA”. */
  words?: string;
}

export interface Observation {
  model: number;
  verdict?: Verdict;
  /** The want at the time of the verdict, where it differs from the current one: the verdict is about that. */
  scale?: VerdictScale;
  /** The measured size of the print. */
  printed?: { value: number; u: number };
  /**
   * How far off it was on the object, seen or measured there: its clearance, for a mate that is judged by an amount.
   */
  off?: { value: number; u: number };
  /** The measured size of what it was tried on instead of the object: the reading's error plays no part then. */
  gauge?: { value: number; u: number };
  /** One ring of a ladder rather than a part. */
  rung?: boolean;
}

/**
 * Steps of the shared grid: an eighth of its sd, never coarser than a third of the blur of the feel plus the scatter.
 */
export const SHARED_STEP = 0.012;
/** The share of beliefs and readings that are completely wrong. Common practice, no source. */
export const WILD = 0.1;
/** The same for a printer that was measured. Common practice, no source. */
export const WILD_MEASURED = 0.05;

/** Clearance as drawn: what the model number would give if everything printed true except for the known shift. */
export function drawnClearance(
  { side, reading, shift = 0, rate = 1 }: Pick<LearnMate, 'side' | 'reading' | 'shift' | 'rate'>,
  model: number,
): number {
  return rate * (side === 'inside' ? model - reading.value : reading.value - model) - shift;
}

/** The model number that draws this clearance: the inverse of `drawnClearance`. */
export function modelFor(
  { side, reading, shift = 0, rate = 1 }: Pick<LearnMate, 'side' | 'reading' | 'shift' | 'rate'>,
  drawn: number,
): number {
  return reading.value + ((side === 'inside' ? 1 : -1) * (drawn + shift)) / rate;
}

/** How much tighter a measured print is than its model, from its own size alone: b + ε. */
const printedBias = (mate: LearnMate, model: number, printed: number) =>
  (mate.side === 'inside' ? model - printed : printed - model) - (mate.shift ?? 0);

/** The drawn clearance to what a print was tried on. */
export const drawnTo = (mate: LearnMate, seen: Pick<Observation, 'model' | 'gauge'>): number =>
  drawnClearance(seen.gauge ? { ...mate, reading: seen.gauge } : mate, seen.model);

function likelihood(mate: LearnMate, seen: Observation, b: number, own: number, scatter: number): number {
  const delta = seen.gauge ? 0 : own;
  const s = seen.gauge ? Math.hypot(scatter, seen.gauge.u) : scatter;
  let shift = 0;
  let spread = s;
  let chance = 1;
  if (seen.printed) {
    // A caliper reading of the print measures b + ε; the remaining uncertainty of ε also narrows the verdict's blur.
    const y = printedBias(mate, seen.model, seen.printed.value) - b;
    const sum = s ** 2 + seen.printed.u ** 2;
    if (sum > 0) {
      chance = Math.exp((-0.5 * y ** 2) / sum) / Math.sqrt(sum);
      shift = (y * s ** 2) / sum;
      spread = (s * seen.printed.u) / Math.sqrt(sum);
    }
  }
  if (!seen.verdict && !seen.off) return chance;
  const clearance = drawnTo(mate, seen) - b - delta - shift;
  if (seen.off) chance *= seenOff(seen.off, clearance, spread);
  if (!seen.verdict) return chance;
  return chance * chanceOfVerdict(seen.verdict, clearance, spread, seen.scale ?? mate.scale);
}

/** The share of amounts with the wrong sign or about something else, and how far these spread. Practice. */
const OFF_SLIPS = 0.03;
const OFF_SLIP_SPREAD = 8;

function seenOff({ value, u }: { value: number; u: number }, clearance: number, s: number): number {
  const sd = Math.max(1e-3, Math.hypot(u, s));
  const bell = (width: number) => Math.exp(-0.5 * ((value - clearance) / width) ** 2) / width;
  return (1 - OFF_SLIPS) * bell(sd) + OFF_SLIPS * bell(OFF_SLIP_SPREAD * sd);
}

/** Step of the table of what verdicts say about β, mm: well below the blur of the feel. */
const TOLD_STEP = 0.004;

/** The other b is tried out to this many sd, for the case that it is completely wrong, as finely as prints scatter. */
const FAR_ELSEWHERE = 8;
const [LEAST_PLACES, MOST_PLACES] = [41, 401];

/**
 * What was observed elsewhere, as a likelihood of δ alone: the b there is another one, known only by its prior, and
 * shared by all prints made in that way. What one mate there says about another is left out.
 */
export function carriedOver({ elsewhere = [], ...mate }: LearnMate): (delta: number) => number {
  const there = { ...mate, shift: 0 };
  const all = elsewhere.map(({ prior, scatter, seen }) => {
    const fine = (2 * FAR_ELSEWHERE * prior.sd) / Math.max(SHARED_STEP, scatter / 2);
    const places = Math.min(MOST_PLACES, Math.max(LEAST_PLACES, Math.ceil(fine)));
    const z = even(-FAR_ELSEWHERE, FAR_ELSEWHERE, places);
    const weight = z.map(x => (1 - WILD) * Math.exp(-0.5 * x * x) + WILD / (1 + x * x));
    return { b: z.map(x => prior.mean + x * prior.sd), weight, scatter, seen };
  });
  return delta =>
    all.reduce((chance, { b, weight, scatter, seen }) => {
      let told = 0;
      for (let k = 0; k < b.length; k++)
        told += seen.reduce((p, o) => p * likelihood(there, o, b[k]!, delta, scatter), weight[k]!);
      return chance * told;
    }, 1);
}

/**
 * All observations of a mate, as a likelihood of b and δ. Verdicts alone depend on the sum: they are looked up in a
 * table.
 */
export function likelihoodOf(
  mate: LearnMate,
  seen: readonly Observation[],
  s: number,
  from: number,
  to: number,
) {
  const tellsOfSum = (o: Observation) => !o.printed && !o.gauge;
  const measured = seen.filter(o => !tellsOfSum(o));
  const felt = seen.filter(tellsOfSum);
  const points = Math.max(2, Math.ceil((to - from) / TOLD_STEP) + 1);
  const table = Float64Array.from({ length: felt.length > 0 ? points : 0 }, (_, i) =>
    felt.reduce((product, o) => product * likelihood(mate, o, from + i * TOLD_STEP, 0, s), 1),
  );
  return (b: number, delta: number): number => {
    let chance = 1;
    if (felt.length > 0) {
      const place = (b + delta - from) / TOLD_STEP;
      const left = Math.min(points - 2, Math.floor(place));
      chance = table[left]! + (place - left) * (table[left + 1]! - table[left]!);
    }
    for (const o of measured) chance *= likelihood(mate, o, b, delta, s);
    return chance;
  };
}

/** Evenly spaced points. */
export function even(low: number, high: number, points: number): Float64Array {
  return Float64Array.from({ length: points }, (_, i) => low + ((high - low) * i) / (points - 1));
}
