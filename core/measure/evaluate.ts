import jStat from 'jstat';
import { decimalsOf, formatPlain } from '../quantity/format';
import { combine, coverageFactor, type Doubt, effectiveDegreesOfFreedom } from './uncertainty';

/** What the readings were taken with. Lengths mm. */
export interface InstrumentLimits {
  /** Smallest step it shows. */
  resolution: number;
  /** Maximum permissible error, ±, as its data sheet or a check gives it. */
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
  outliers: number[];
  /** The parts the uncertainty is made of. */
  budget: Doubt[];
  advice: Advice[];
}

export interface Advice {
  code: 'one-reading' | 'few-readings' | 'outlier' | 'spread' | 'too-fine';
  message: string;
}

/** Iglewicz & Hoaglin, "How to Detect and Handle Outliers" (1993): modified z-score and its limit. */
const OUTLIER_LIMIT = 3.5;
const MAD_TO_SD = 0.6745;
/** Readings a dimension on which the fit depends should have. Common practice, no source. */
export const CRITICAL_READINGS = 3;
/** How far the same hands read the same thing apart, sd in mm. Common practice, no source. */
export const OPERATOR_REPEATABILITY = 0.03;

export interface EvaluateOptions {
  critical?: boolean;
  /** Operator's repeatability, sd in mm, used for a lone reading and to judge the spread. */
  repeatability?: number;
}

/**
 * Readings of one dimension to a value and its uncertainty: u² = s²/n + r²/12 + E²/3
 * (JCGM 100:2008, 4.2.3 for the mean, 4.3.7 and F.2.2.1 for rectangular distributions).
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

  const value = jStat.mean([...readings]);
  const budget: Doubt[] = [
    n === 1
      ? { name: 'one reading only', u: s0, degreesOfFreedom: Infinity }
      : {
          name: 'spread of the readings',
          u: jStat.stdev([...readings], true) / Math.sqrt(n),
          degreesOfFreedom: n - 1,
        },
    { name: 'the instrument’s steps', u: instrument.resolution / Math.sqrt(12), degreesOfFreedom: Infinity },
    { name: 'the instrument’s error', u: instrument.maxError / Math.sqrt(3), degreesOfFreedom: Infinity },
  ];
  const u = combine(budget);
  const dof = effectiveDegreesOfFreedom(budget);
  const spread = Math.max(...readings) - Math.min(...readings);
  const outliers = findOutliers(readings, instrument.resolution);
  return {
    value,
    standardUncertainty: u,
    degreesOfFreedom: Number.isFinite(dof) ? dof : null,
    expandedUncertainty: u * coverageFactor(0.95, dof),
    spread,
    outliers,
    budget,
    advice: advise(readings, instrument, spread, outliers, s0, options.critical ?? false),
  };
}

/** Indices of readings whose modified z-score passes the limit; needs three readings to say anything. */
export function findOutliers(readings: readonly number[], resolution: number): number[] {
  if (readings.length < 3) return [];
  const middle = jStat.median([...readings]);
  const away = readings.map(r => Math.abs(r - middle));
  // Readings that agree to the last digit have no deviation; the instrument cannot tell less than one step.
  const mad = Math.max(jStat.median(away), resolution);
  if (mad === 0) return [];
  return away.flatMap((d, index) => ((MAD_TO_SD * d) / mad > OUTLIER_LIMIT ? [index] : []));
}

function advise(
  readings: readonly number[],
  instrument: InstrumentLimits,
  spread: number,
  outliers: number[],
  s0: number,
  critical: boolean,
): Advice[] {
  const advice: Advice[] = [];
  const decimals = decimalsOf(instrument.resolution);
  for (const index of outliers) {
    advice.push({
      code: 'outlier',
      message: `${formatPlain(readings[index]!, decimals)} stands apart from the others: strike it out if it was a slip, or measure again.`,
    });
  }
  const limit = 3 * Math.sqrt(s0 ** 2 + instrument.resolution ** 2 / 12);
  if (outliers.length === 0 && spread > limit) {
    advice.push({
      code: 'spread',
      message: `The readings differ by ${formatPlain(spread, decimals)}: take another. If they stay apart as you turn it, the object is out of round.`,
    });
  }
  if (critical && readings.length === 1) {
    advice.push({
      code: 'one-reading',
      message: 'One reading is not enough here: turn the object a third and read twice more.',
    });
  } else if (critical && readings.length < CRITICAL_READINGS) {
    advice.push({
      code: 'few-readings',
      message: 'The fit depends on this one: turn the object a third and read once more.',
    });
  }
  const step = instrument.resolution;
  if (step > 0 && readings.some(r => Math.abs(r / step - Math.round(r / step)) > 0.02)) {
    advice.push({
      code: 'too-fine',
      message: `A reading has more digits than the instrument shows (${formatPlain(step, 4)} mm steps): check that the right instrument is chosen.`,
    });
  }
  return advice;
}
