import { chanceWithin } from '../fit/probability';
import type { Side } from '../fit/wants';
import type { MateLedger } from '../work/ledger';
import { solidEstimate, solidMinutes } from './estimate';
import { GAP } from './plate/rows';
import type { Estimate } from './time';

/**
 * A ladder: a row of short rings in steps of size, printed at once and tried one after the other on the
 * object. For round mates between rigid surfaces or stretched ones; a lip needs its whole part. Lengths mm.
 */
export const RUNGS = 5;
/** A rung's height and wall. Common practice, no source. */
export const RUNG = { height: 5, wall: 2, gap: 3 };
/** A tongue at the foot of each ring carries its number. */
export const TONGUE = { length: 7, width: 8, height: 1.2 };
/** Finer steps cannot be told apart by hand; coarser ones miss the window. Common practice, no source. */
const STEP = { least: 0.04, most: 0.3 };

/** The steps of a ladder around the ledger's number: wide enough for its uncertainty, fine enough for its window. */
export function ladderSizes(ledger: Pick<MateLedger, 'model' | 'sd' | 'window'>): number[] {
  const { model, sd, window } = ledger;
  // Five rungs reach 1.6 standard deviations to each side; a step of half the window cannot skip it.
  const wide = (2 * 1.6 * sd) / (RUNGS - 1);
  const fine = (window.max - window.min) / 2;
  const step = Math.min(STEP.most, Math.max(STEP.least, fine, wide));
  return Array.from({ length: RUNGS }, (_, i) => Number((model + (i - (RUNGS - 1) / 2) * step).toFixed(2)));
}

/** Only surfaces that a short ring can stand in for, printed upright, with all rungs on one bed. */
export const hasLadder = (
  { mate, kind, window, model }: Pick<MateLedger, 'mate' | 'kind' | 'window' | 'model'>,
  bed: { width: number; depth: number },
): boolean =>
  (kind === 'hole' || kind === 'peg') &&
  !['click', 'screw', 'jam', 'insert'].includes(mate.want.name) &&
  window.max - window.min > 0.02 &&
  rungsOn(bed, rungRing(mate.side, model).outer) >= RUNGS;

/** How many rungs of this size fit on a bed, in rows. */
const rungsOn = ({ width, depth }: { width: number; depth: number }, outer: number): number =>
  Math.floor((width + GAP) / (outer + GAP)) * Math.floor((depth + GAP) / (outer + TONGUE.length + GAP));

/** P(right) of the next print after a ladder: the size is known to half a step, and prints scatter. */
export function chanceAfterLadder(
  ledger: Pick<MateLedger, 'window' | 'scatter'>,
  sizes: readonly number[],
): number {
  const step = sizes[1]! - sizes[0]!;
  const known = Math.hypot(step / Math.sqrt(12), ledger.scatter / Math.SQRT2);
  const { min, max } = ledger.window;
  return chanceWithin(min, max, (min + max) / 2, Math.hypot(known, ledger.scatter));
}

/** Inner and outer diameter of a rung whose mating size this is. */
export const rungRing = (side: Side, size: number): { inner: number; outer: number } =>
  side === 'inside'
    ? { inner: size, outer: size + 2 * RUNG.wall }
    : { inner: Math.max(0, size - 2 * RUNG.wall), outer: size };

/** Volume of all rungs, mm³, without their numbers. */
export function ladderVolume(side: Side, sizes: readonly number[]): number {
  return sizes.reduce((sum, size) => {
    const { inner, outer } = rungRing(side, size);
    return sum + (Math.PI / 4) * (outer ** 2 - inner ** 2) * RUNG.height;
  }, 0);
}

/** The time and plastic of one rung on a plate with others: all of it is printed at the speed of passes. */
export const rungEstimate = (
  side: Side,
  size: number,
  settings: Parameters<typeof solidEstimate>[2],
  machine: Parameters<typeof solidEstimate>[3],
): Estimate => solidEstimate(ladderVolume(side, [size]), RUNG.height, settings, machine);

/** Time to try one rung, minutes. Common practice, no source. */
const MINUTES_A_RUNG = 0.5;

/** Minutes to print a ladder and try its rungs. */
export function ladderMinutes(side: Side, sizes: readonly number[], nozzle: number, layer: number): number {
  return solidMinutes(ladderVolume(side, sizes), nozzle, layer) + MINUTES_A_RUNG * sizes.length;
}
