import { FAILURES, type Failure } from '../learn/happened';
import { gauss, seeded, seedOf } from './random';

/** One print on the practice printer: how long it takes there, and whether it comes out. */
export interface PrintRun {
  hours: number;
  /** Why it failed; null for one that came out. */
  failed: Failure | null;
  /** The share of it that was printed: 1 for one that came out. */
  share: number;
}

/**
 * How far printers differ in pace, and how far prints of one printer do, sd of the logarithm. Common practice, no
 * source.
 */
const [PACES, PRINTS] = [0.35, 0.06];
/** The share of prints that fail, where failing is allowed. Common practice, no source. */
const FAILS = 0.12;

/** @param hours expected at a usual pace @param mayFail false, every print comes out */
export function printRun(printerId: string, print: string, hours: number, mayFail: boolean): PrintRun {
  const pace = gauss(seeded(seedOf('pace', printerId)), 0, PACES);
  const random = seeded(seedOf('run', printerId, print));
  const whole = hours * Math.exp(pace + gauss(random, 0, PRINTS));
  const [chance, which, share] = [random(), random(), 0.05 + 0.9 * random()];
  if (!mayFail || chance >= FAILS) return { hours: whole, failed: null, share: 1 };
  // “Other” has no cause that a simulation could show.
  const causes = FAILURES.filter(f => f !== 'other');
  return { hours: share * whole, failed: causes[Math.floor(which * causes.length)]!, share };
}
