import jStat from 'jstat';
import { decimalsOf, formatPlain } from '../quantity/format';
import { combine, coverageFactor, type Doubt, effectiveDegreesOfFreedom } from './uncertainty';

/** The instrument of the readings. Lengths mm. */
export interface InstrumentLimits {
  /** Smallest step it shows. */
  resolution: number;
  /** Maximum permissible error, ±, from its data sheet or a check. */
  maxError: number;
}

export interface Evaluation {
  value: number;
  standardUncertainty: number;
  /** null: infinite. */
  degreesOfFreedom: number | null;
  /** 95 %. */
  expandedUncertainty: number;
  /** Largest minus smallest. */
  spread: number;
  /** Out of round: largest minus smallest of the turned positions' means; null while it was not turned. */
  form: number | null;
  outliers: number[];
  /** The components of the uncertainty. */
  budget: Doubt[];
  advice: Advice[];
}

export interface Advice {
  code:
    | 'one-reading'
    | 'few-readings'
    | 'outlier'
    | 'spread'
    | 'out-of-round'
    | 'too-fine'
    | 'too-coarse'
    | 'other-unit'
    | 'jaw-land';
  message: string;
}

/** Iglewicz & Hoaglin, "How to Detect and Handle Outliers" (1993): modified z-score and its limit. */
const OUTLIER_LIMIT = 3.5;
const MAD_TO_SD = 0.6745;
/** The number of readings for a dimension on which the fit depends. Common practice, no source. */
export const CRITICAL_READINGS = 3;
/** The spread of readings of one thing by the same hands, sd in mm. Common practice, no source. */
export const OPERATOR_REPEATABILITY = 0.03;

export interface EvaluateOptions {
  critical?: boolean;
  /** The operator's repeatability, sd in mm, used for a single reading and to judge the spread. */
  repeatability?: number;
  /** Whether it goes across something round, which can be turned between readings; true unless stated. */
  turnable?: boolean;
  /** How far the object was turned at each reading, degrees; only used where every reading states it. */
  turns?: readonly (number | undefined)[];
  /** Which readings were shown in inches: they have other steps. */
  inches?: readonly boolean[];
}

/**
 * How well the hands' usual repeatability is known, in degrees of freedom: a dozen readings. Common practice, no
 * source.
 */
const POOLED_FREEDOM = 10;

/** Readings of a bore with inside jaws whose tips have a flat: they span a chord, reading = √(D² − w²). */
export const correctedForJaws = (reading: number, land: number) => Math.hypot(reading, land);

/**
 * Readings of one dimension to a value and its uncertainty: u² = s²/n + r²/12 + E²/3 (JCGM 100:2008, 4.2.3 for the
 * mean, 4.3.7 and F.2.2.1 for rectangular distributions). A few readings estimate their own scatter badly: where the
 * hands' repeatability is known, it is pooled with theirs (4.2.4).
 * @param readings mm or degrees, at least one
 * @throws RangeError without readings or with one that is not finite
 */
export function evaluateReadings(
  readings: readonly number[],
  instrument: InstrumentLimits,
  options: EvaluateOptions = {},
): Evaluation {
  const n = readings.length;
  if (n === 0) throw new RangeError('Got no readings, need at least one: measure first.');
  if (!readings.every(Number.isFinite)) throw new RangeError('A reading is not a number: take it again.');
  const s0 = options.repeatability ?? OPERATOR_REPEATABILITY;

  const turned = byPosition(readings, options.turns);
  const pooled = options.repeatability !== undefined;
  const { value, noise } = turned ? ofPositions(turned, s0, pooled) : ofOnePlace(readings, s0, pooled);
  const budget: Doubt[] = [
    noise,
    { name: 'the instrument’s steps', u: instrument.resolution / Math.sqrt(12), degreesOfFreedom: Infinity },
    { name: 'the instrument’s error', u: instrument.maxError / Math.sqrt(3), degreesOfFreedom: Infinity },
  ];
  const u = combine(budget);
  const dof = effectiveDegreesOfFreedom(budget);
  const spread = Math.max(...readings) - Math.min(...readings);
  const outliers = findOutliers(readings, instrument.resolution);
  const form = turned ? spreadOf(turned.map(p => jStat.mean(p))) : null;
  return {
    value,
    standardUncertainty: u,
    degreesOfFreedom: Number.isFinite(dof) ? dof : null,
    expandedUncertainty: u * coverageFactor(0.95, dof),
    spread,
    form,
    outliers,
    budget,
    advice: advise(readings, instrument, {
      spread,
      form,
      outliers,
      s0,
      critical: options.critical ?? false,
      turnable: options.turnable ?? true,
      inches: options.inches ?? [],
    }),
  };
}

const spreadOf = (values: readonly number[]) => Math.max(...values) - Math.min(...values);

function ofOnePlace(
  readings: readonly number[],
  s0: number,
  pooled: boolean,
): { value: number; noise: Doubt } {
  const n = readings.length;
  const value = jStat.mean([...readings]);
  if (n === 1) return { value, noise: { name: 'one reading only', u: s0, degreesOfFreedom: Infinity } };
  const own = jStat.stdev([...readings], true);
  const freedom = n - 1 + (pooled ? POOLED_FREEDOM : 0);
  const both = Math.sqrt((POOLED_FREEDOM * s0 ** 2 + (n - 1) * own ** 2) / (POOLED_FREEDOM + n - 1));
  // Readings that differ by more than the hands' usual spread are believed; readings that agree by chance are not.
  const s = pooled ? Math.max(own, both) : own;
  const noise = { name: 'spread of the readings', u: s / Math.sqrt(n), degreesOfFreedom: freedom };
  return { value, noise };
}

/** Readings by turned position, where every reading states its position and there are at least two. */
function byPosition(readings: readonly number[], turns: EvaluateOptions['turns']): number[][] | null {
  if (!turns || turns.length !== readings.length || turns.some(t => t === undefined)) return null;
  const places = new Map<number, number[]>();
  readings.forEach((r, i) => {
    // After half a turn it is the same diameter.
    const place = Math.round(turns[i]! % 180);
    places.set(place, [...(places.get(place) ?? []), r]);
  });
  return places.size >= 2 ? [...places.values()] : null;
}

/**
 * Out of round is form, not noise: the value is the mean of the positions' means, and its noise is that of readings at
 * one position (pooled), or the hands' usual one where no position was read twice.
 */
function ofPositions(
  places: readonly number[][],
  s0: number,
  pooled: boolean,
): { value: number; noise: Doubt } {
  const dof = places.reduce((sum, p) => sum + p.length - 1, 0);
  const squares = places.reduce(
    (sum, p) => sum + (p.length > 1 ? (p.length - 1) * jStat.stdev([...p], true) ** 2 : 0),
    0,
  );
  const freedom = dof + (pooled ? POOLED_FREEDOM : 0);
  const both = Math.sqrt((POOLED_FREEDOM * s0 ** 2 + squares) / (POOLED_FREEDOM + dof));
  const own = Math.sqrt(squares / dof);
  const s = dof > 0 ? (pooled ? Math.max(own, both) : own) : s0;
  return {
    value: jStat.mean(places.map(p => jStat.mean([...p]))),
    noise: {
      name: dof > 0 ? 'spread at one position' : 'each position read once',
      u: (s / places.length) * Math.sqrt(places.reduce((sum, p) => sum + 1 / p.length, 0)),
      degreesOfFreedom: dof > 0 ? freedom : Infinity,
    },
  };
}

/** Indices of readings whose modified z-score passes the limit; three readings are needed. */
export function findOutliers(readings: readonly number[], resolution: number): number[] {
  if (readings.length < 3) return [];
  const middle = jStat.median([...readings]);
  const away = readings.map(r => Math.abs(r - middle));
  // Readings that agree to the last digit have no deviation; the instrument cannot tell less than one step apart.
  const mad = Math.max(jStat.median(away), resolution);
  if (mad === 0) return [];
  return away.flatMap((d, index) => ((MAD_TO_SD * d) / mad > OUTLIER_LIMIT ? [index] : []));
}

interface Seen {
  spread: number;
  form: number | null;
  outliers: number[];
  s0: number;
  critical: boolean;
  turnable: boolean;
  inches: readonly boolean[];
}

/** The steps in which an instrument with these mm steps shows inches, mm: 0.0005 in for 0.01 mm. */
function inchStep(step: number): number {
  const decade = 10 ** Math.floor(Math.log10(step / 25.4));
  return 25.4 * decade * ([1, 5, 10].find(by => 25.4 * decade * by >= step * 0.999) ?? 10);
}

function advise(readings: readonly number[], instrument: InstrumentLimits, seen: Seen): Advice[] {
  const { spread, form, outliers, s0, critical, turnable } = seen;
  const anew = turnable ? 'turn the object a third' : 'take the jaws off, set them on again';
  const advice: Advice[] = [];
  const decimals = decimalsOf(instrument.resolution);
  const slip = findSlip(readings);
  if (slip) advice.push({ code: 'other-unit', message: slip });
  for (const index of slip ? [] : outliers) {
    advice.push({
      code: 'outlier',
      message: `${formatPlain(readings[index]!, decimals)} stands apart from the others: strike it out if it was a slip, or measure again.`,
    });
  }
  const limit = 3 * Math.sqrt(s0 ** 2 + instrument.resolution ** 2 / 12);
  if (form !== null && form > limit) {
    advice.push({
      code: 'out-of-round',
      message: `It is out of round by ${formatPlain(form, decimals)}: kept as form, not as doubt of the mean. A rigid part must pass its largest place, a flexible one follows the mean.`,
    });
  } else if (outliers.length === 0 && !slip && spread > limit) {
    advice.push({
      code: 'spread',
      message: `The readings differ by ${formatPlain(spread, decimals)}: take another. ${turnable ? 'If they stay apart as you turn it, the object is out of round.' : 'If they stay apart, it matters where the jaws are set on.'}`,
    });
  }
  if (critical && readings.length === 1) {
    advice.push({
      code: 'one-reading',
      message: `One reading is not enough here: ${anew} and read twice more.`,
    });
  } else if (critical && readings.length < CRITICAL_READINGS) {
    advice.push({
      code: 'few-readings',
      message: `The fit depends on this one: ${anew} and read once more.`,
    });
  }
  const step = instrument.resolution;
  const shown = (r: number, i: number) => {
    const steps = r / (seen.inches[i] ? inchStep(step) : step);
    return Math.abs(steps - Math.round(steps)) <= 0.02;
  };
  if (step > 0 && !readings.every(shown)) {
    advice.push({
      code: 'too-fine',
      message: `A reading has more digits than the instrument shows (${formatPlain(step, 4)} mm steps): check that the right instrument is chosen.`,
    });
  }
  if (readings.length >= 3 && readings.every(r => isMultiple(r, 10 * step))) {
    advice.push({
      code: 'too-coarse',
      message: `All readings end in the same round figure, though the instrument shows ${formatPlain(step, 4)} mm steps: read all its digits, or choose the coarser instrument.`,
    });
  }
  return advice;
}

const isMultiple = (value: number, step: number) => Math.abs(value / step - Math.round(value / step)) < 1e-6;

/** Ratios that are slips rather than sizes, and how close a ratio must be to count as one. */
const SLIPS = [
  { ratio: 25.4, words: 'in inches, the other in millimetres' },
  { ratio: 10, words: 'in centimetres, or its point has slipped' },
  { ratio: 2, words: 'a radius, the other a diameter' },
] as const;
const SLIP_NEARNESS = 0.02;

/** One reading that is another times 25.4, 10 or 2. Common practice, no source. */
function findSlip(readings: readonly number[]): string | null {
  if (readings.length < 2) return null;
  const middle = jStat.median([...readings]);
  const [low, high] = [Math.min(...readings), Math.max(...readings)];
  for (const { ratio, words } of SLIPS) {
    // Compared with the other readings where there are any, otherwise with each other.
    const pairs =
      readings.length === 2
        ? [[low, high]]
        : [
            [low, middle],
            [middle, high],
          ];
    const found = pairs.find(([a, b]) => a! > 0 && Math.abs(b! / a! / ratio - 1) < SLIP_NEARNESS);
    if (found) {
      return `${formatPlain(found[0]!, 3)} and ${formatPlain(found[1]!, 3)} are ${formatPlain(ratio, 1)} times apart: one seems to be ${words}. Strike out the one that is wrong.`;
    }
  }
  return null;
}

/**
 * Whether a value just read looks like a slip beside what is known of the dimension: the maker is asked, it is never
 * dropped.
 */
export interface Doubtful {
  /** “ten times the last one”. */
  words: string;
  /** Its value without the slip. */
  instead: number;
}

/** @param value the new reading @param known the last reading, or the mean of those that count; mm */
export function looksLikeSlip(value: number, known: number): Doubtful | null {
  const slips = [
    { factor: 25.4, words: '25.4 times the last one: millimetres taken for inches?' },
    { factor: 1 / 25.4, words: 'the last one divided by 25.4: read in inches?' },
    { factor: 10, words: 'ten times the last one: has the point slipped?' },
    { factor: 0.1, words: 'a tenth of the last one: has the point slipped?' },
  ];
  const found = slips.find(s => known > 0 && Math.abs(value / known / s.factor - 1) < SLIP_NEARNESS);
  return found ? { words: found.words, instead: value / found.factor } : null;
}
