import type { Side } from '../fit/wants';
import type { Verdict } from './verdict';
import { chanceOfVerdict, type VerdictScale } from './verdict-scale';

/** What was seen of a mate, and how likely that is where its printer and its reading are off by so much. See posterior.ts. */

export interface LearnMate {
  id: string;
  side: Side;
  /** Mates with the same key share b. */
  group: string;
  reading: { value: number; u: number };
  scale: VerdictScale;
  /** How much tighter this size is known to print than the group's b says, mm; 0 where left out. */
  shift?: number;
  /** Doubt of the mate's own beyond its reading's, sd, mm: how its printer goes with size; 0 where left out. */
  growth?: number;
  /** How far the surface moves for each mm or degree of its number; 1 where left out. */
  rate?: number;
  /** What was seen of it in other plastics, on other printers, or lying otherwise: its reading's error is the same there. */
  elsewhere?: readonly Elsewhere[];
}

/** Prints of a mate that share another b. */
export interface Elsewhere {
  /** What is believed of that b, and of how sizes go there. */
  prior: { mean: number; sd: number };
  scatter: number;
  seen: readonly Observation[];
  /** In words: “PLA”. */
  words?: string;
}

export interface Observation {
  model: number;
  verdict?: Verdict;
  /** What was wanted when it was judged, where that was something else than now: a verdict is about that. */
  scale?: VerdictScale;
  /** The print's own size, measured. */
  printed?: { value: number; u: number };
  /** How far off it was on the object, seen or measured there: its clearance, of a mate that is judged by an amount. */
  off?: { value: number; u: number };
  /** What it was tried on in the object's place, as it measures: its reading's error is none of it. */
  gauge?: { value: number; u: number };
  /** One ring of a ladder, not a part. */
  rung?: boolean;
}

/** Steps of the shared grid: an eighth of its sd, never coarser than a third of the feel's blur and scatter. */
export const SHARED_STEP = 0.012;
/** Beliefs and readings that are wrong altogether, as a share. Common practice, no source. */
export const WILD = 0.1;
/** Of a printer that was measured. Common practice, no source. */
export const WILD_MEASURED = 0.05;

/** Clearance drawn: what the model number would give if everything but the known shift printed true. */
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

/** How much tighter a measured print is than its model, by its own size alone: b + ε. */
const printedBias = (mate: LearnMate, model: number, printed: number) =>
  (mate.side === 'inside' ? model - printed : printed - model) - (mate.shift ?? 0);

/** The clearance that was drawn to what a print was tried on. */
export const drawnTo = (mate: LearnMate, seen: Pick<Observation, 'model' | 'gauge'>): number =>
  drawnClearance(seen.gauge ? { ...mate, reading: seen.gauge } : mate, seen.model);

function likelihood(mate: LearnMate, seen: Observation, b: number, own: number, scatter: number): number {
  const delta = seen.gauge ? 0 : own;
  const s = seen.gauge ? Math.hypot(scatter, seen.gauge.u) : scatter;
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
  if (!seen.verdict && !seen.off) return chance;
  const clearance = drawnTo(mate, seen) - b - delta - shift;
  if (seen.off) chance *= seenOff(seen.off, clearance, spread);
  if (!seen.verdict) return chance;
  return chance * chanceOfVerdict(seen.verdict, clearance, spread, seen.scale ?? mate.scale);
}

/** Amounts that were said the wrong way round, or of something else, as a share, and how far these spread. Practice. */
const OFF_SLIPS = 0.03;
const OFF_SLIP_SPREAD = 8;

function seenOff({ value, u }: { value: number; u: number }, clearance: number, s: number): number {
  const sd = Math.max(1e-3, Math.hypot(u, s));
  const bell = (width: number) => Math.exp(-0.5 * ((value - clearance) / width) ** 2) / width;
  return (1 - OFF_SLIPS) * bell(sd) + OFF_SLIPS * bell(OFF_SLIP_SPREAD * sd);
}

/** Step of the table of what verdicts tell of β, mm: well under the feel's blur. */
const TOLD_STEP = 0.004;

/** The b of elsewhere is tried out to so many sd of it, where it is wrong altogether, as finely as prints scatter. */
const FAR_ELSEWHERE = 8;
const [LEAST_PLACES, MOST_PLACES] = [41, 401];

/**
 * What was seen elsewhere, as a likelihood of δ alone: b there is another one, known no better than by its prior, and
 * the same for all prints that were made so. What one mate says there of another is left out.
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

/** All that was seen of a mate, as a likelihood of b and δ. Verdicts alone tell of their sum: they are looked up. */
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

/** Points that are as far from each other. */
export function even(low: number, high: number, points: number): Float64Array {
  return Float64Array.from({ length: points }, (_, i) => low + ((high - low) * i) / (points - 1));
}
