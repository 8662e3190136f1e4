import type { BiasBelief } from './print-bias';
import type { PrinterResponse } from './propose';
import type { Side } from './wants';

/**
 * What a printer does to sizes, from pieces that were printed and read: printed = scale · drawn + offset,
 * by least squares per side. Lengths mm.
 */
export interface SizePair {
  drawn: number;
  printed: number;
}

export interface Line {
  slope: number;
  intercept: number;
  slopeSd: number;
  interceptSd: number;
  covariance: number;
  /** About the line, n − 2 degrees of freedom. */
  residualSd: number;
  degreesOfFreedom: number;
}

/**
 * Straight line through weighted points; source: any statistics text, checked against NIST StRD “Norris”.
 * @param points x, y and a weight (1 where left out, proportional to 1/variance)
 * @throws RangeError below three points, or where all x are one
 */
export function lineThrough(points: readonly { x: number; y: number; weight?: number }[]): Line {
  const n = points.length;
  if (n < 3) throw new RangeError(`Got ${n} sizes, need 3 for a line: read more.`);
  const total = points.reduce((sum, p) => sum + (p.weight ?? 1), 0);
  const mean = (of: (p: (typeof points)[number]) => number) =>
    points.reduce((sum, p) => sum + (p.weight ?? 1) * of(p), 0) / total;
  // Centred before squaring: sizes are large beside what is looked for.
  const [mx, my] = [mean(p => p.x), mean(p => p.y)];
  let [sxx, sxy] = [0, 0];
  for (const { x, y, weight = 1 } of points) {
    sxx += weight * (x - mx) ** 2;
    sxy += weight * (x - mx) * (y - my);
  }
  if (!(sxx > 0)) throw new RangeError('All sizes are one: a line needs different ones.');
  const slope = sxy / sxx;
  const intercept = my - slope * mx;
  const squares = points.reduce(
    (sum, { x, y, weight = 1 }) => sum + weight * (y - intercept - slope * x) ** 2,
    0,
  );
  const variance = squares / (n - 2);
  return {
    slope,
    intercept,
    slopeSd: Math.sqrt(variance / sxx),
    interceptSd: Math.sqrt(variance * (1 / total + mx ** 2 / sxx)),
    covariance: (-variance * mx) / sxx,
    residualSd: Math.sqrt(variance),
    degreesOfFreedom: n - 2,
  };
}

/** Fewer different sizes than this tell an offset only. */
const SIZES_FOR_A_LINE = 3;
/** What one size's own offset may differ from the next's by, sd. Common practice, no source. */
const LEAST_DOUBT = 0.015;

export interface SideResponse extends Omit<PrinterResponse, 'repeatability'> {
  covariance: number;
  /** About the line, mm; null with a single pair. */
  residualSd: number | null;
  pairs: number;
}

/** One side's response; null without a pair. With too few sizes the scale stays 1 and only the offset is learned. */
export function responseOf(pairs: readonly SizePair[]): SideResponse | null {
  if (pairs.length === 0) return null;
  const sizes = new Set(pairs.map(p => Math.round(p.drawn * 100)));
  if (sizes.size >= SIZES_FOR_A_LINE) {
    const line = lineThrough(pairs.map(p => ({ x: p.drawn, y: p.printed })));
    return {
      scale: { mean: line.slope, sd: line.slopeSd },
      offset: { mean: line.intercept, sd: line.interceptSd },
      covariance: line.covariance,
      residualSd: line.residualSd,
      pairs: pairs.length,
    };
  }
  const offsets = pairs.map(p => p.printed - p.drawn);
  const mean = offsets.reduce((a, b) => a + b, 0) / offsets.length;
  const residualSd =
    offsets.length < 2
      ? null
      : Math.sqrt(offsets.reduce((sum, o) => sum + (o - mean) ** 2, 0) / (offsets.length - 1));
  return {
    scale: { mean: 1, sd: 0 },
    // A lone pair is as doubtful as a usual uncalibrated printer's half.
    offset: { mean, sd: (residualSd ?? 0.07) / Math.sqrt(offsets.length) },
    covariance: 0,
    residualSd,
    pairs: pairs.length,
  };
}

/** How much less clearance than drawn a print of this size has, as the ledger counts it. */
export function biasAt(response: SideResponse, size: number, side: Side): BiasBelief {
  const grown = (response.scale.mean - 1) * size + response.offset.mean;
  const variance = response.offset.sd ** 2 + (response.scale.sd * size) ** 2 + 2 * size * response.covariance;
  return {
    mean: side === 'inside' ? -grown : grown,
    sd: Math.max(LEAST_DOUBT, Math.sqrt(Math.max(0, variance))),
  };
}

/** A profile older than this is to be looked at again, days: nozzles wear and spools differ. Practice. */
export const AGES_AFTER_DAYS = 180;

export type CalibrationRow = SizePair & { side: Side };

/**
 * “hole 20 19.72” and “outside 20 20.05”, a line each: drawn, then printed. Empty lines are passed over.
 * @returns the rows, and what is wrong with a line by its number from 1
 */
export function readCalibration(text: string): {
  rows: CalibrationRow[];
  problems: { line: number; message: string }[];
} {
  const rows: CalibrationRow[] = [];
  const problems: { line: number; message: string }[] = [];
  text.split('\n').forEach((line, i) => {
    const words = line
      .trim()
      .toLowerCase()
      .split(/[\s;]+/)
      .filter(Boolean);
    if (words.length === 0) return;
    const say = (message: string) => problems.push({ line: i + 1, message });
    const side = /^(hole|inside|slot|bore)$/.test(words[0]!)
      ? 'inside'
      : /^(outside|peg|rib|pin)$/.test(words[0]!)
        ? 'outside'
        : null;
    const [drawn, printed] = words.slice(1, 3).map(w => Number(w.replace(',', '.')));
    if (!side) say(`begin with “hole” or “outside”, got “${words[0]!.slice(0, 20)}”.`);
    else if (words.length !== 3 || !Number.isFinite(drawn!) || !Number.isFinite(printed!))
      say('two numbers follow: drawn, then printed, in mm.');
    else if (!(drawn! > 0 && drawn! <= 1000 && printed! > 0)) say('sizes are above 0 and at most 1000 mm.');
    else if (Math.abs(printed! - drawn!) > Math.max(2, 0.1 * drawn!))
      say(`${printed} for ${drawn} is no printer’s error: a slip of the unit or the line?`);
    else rows.push({ side, drawn: drawn!, printed: printed! });
  });
  return { rows, problems };
}

export const writeCalibration = (rows: readonly CalibrationRow[]): string =>
  rows.map(r => `${r.side === 'inside' ? 'hole' : 'outside'} ${r.drawn} ${r.printed}`).join('\n');
