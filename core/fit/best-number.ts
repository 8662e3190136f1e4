import { chanceWithin } from './probability';
import type { Preference } from './wants';

/**
 * The only place where a number to draw is chosen: for a first print from a printer's response (propose.ts), and after
 * tries from the posterior (learn/next.ts). Lengths mm, clearance female minus male, whole width.
 */

/** The mean of a function of clearance and its sd, over all prints that this model number may produce. */
export type Expectation = (model: number, of: (clearance: number, sd: number) => number) => number;

export interface ClearanceWindow {
  min: number;
  max: number;
}

/** The worth of a miss to the preferred side, where a right print is worth 1. Common practice, no source. */
const HALF_RIGHT = 0.5;
/** A miss to the preferred side is still useful within this distance, mm. */
export const SERVES_WITHIN = 0.25;

/** The chance that the print's clearance is in the window. */
export const chanceRight = (expect: Expectation, window: ClearanceWindow, model: number): number =>
  expect(model, (clearance, sd) => chanceWithin(window.min, window.max, clearance, sd));

/** The worth of a print: right counts 1, a useful miss to the preferred side counts half. */
export const worthOf =
  ({ min, max }: ClearanceWindow, prefer: Preference) =>
  (clearance: number, sd: number): number => {
    const right = chanceWithin(min, max, clearance, sd);
    if (prefer === 'loose') return right + HALF_RIGHT * chanceWithin(max, max + SERVES_WITHIN, clearance, sd);
    if (prefer === 'tight') return right + HALF_RIGHT * chanceWithin(min - SERVES_WITHIN, min, clearance, sd);
    return right;
  };

/** The model number of the greatest worth, searched between two that are surely too small and too large. */
export const bestNumber = (
  expect: Expectation,
  window: ClearanceWindow,
  prefer: Preference,
  from: number,
  to: number,
): number => {
  const worth = worthOf(window, prefer);
  return largest(model => expect(model, worth), Math.min(from, to), Math.max(from, to));
};

/** Golden sections for one step of the sweep: down to a thousandth of it. */
const HALVINGS = 15;

/**
 * The maximum of a one-peaked function: a coarse sweep, then golden section around the best step. Where a plateau is
 * equally good everywhere (nothing is uncertain), its middle is taken.
 */
export function largest(f: (x: number) => number, from: number, to: number): number {
  const steps = 80;
  const width = (to - from) / steps;
  const values = Array.from({ length: steps + 1 }, (_, i) => f(from + i * width));
  const best = Math.max(...values);
  const flat = values.flatMap((v, i) => (v > best - 1e-12 ? [i] : []));
  if (flat.length > 2) return from + ((flat[0]! + flat.at(-1)!) / 2) * width;
  const peak = values.indexOf(best);
  let low = from + Math.max(0, peak - 1) * width;
  let high = from + Math.min(steps, peak + 1) * width;
  const ratio = (Math.sqrt(5) - 1) / 2;
  for (let i = 0; i < HALVINGS; i++) {
    const a = high - ratio * (high - low);
    const b = low + ratio * (high - low);
    if (f(a) < f(b)) low = a;
    else high = b;
  }
  return (low + high) / 2;
}
