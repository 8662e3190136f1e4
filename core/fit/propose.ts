import { chanceWithin } from './probability';
import { clearanceWindow, type Preference, type Side, type SoftSide, type Window } from './wants';

/**
 * The number to draw so that the print fits. A print of model number m has the size scale·m + offset,
 * with doubt in both and print-to-print scatter; clearance is female minus male, whole width.
 */
export interface PrinterResponse {
  /** mm; a hole that prints 0.22 small has −0.22, an outside that prints 0.05 large +0.05. */
  offset: { mean: number; sd: number };
  scale: { mean: number; sd: number };
  /** Between scale and offset, mm. */
  covariance?: number;
  /** Print-to-print sd, mm. */
  repeatability: number;
}

export interface FitQuestion {
  side: Side;
  reading: { value: number; u: number };
  want: Window;
  soft?: SoftSide;
  prefer?: Preference;
  printer: PrinterResponse;
}

export interface LedgerStep {
  step: 'reading' | 'allowance' | 'compensation' | 'lesson';
  /** Signed, mm; the amounts add up to the model number. */
  amount: number;
  /** Standard uncertainty that enters with this step, mm. */
  u: number;
}

export interface FitProposal {
  model: number;
  /** Expected clearance, mm. */
  clearance: number;
  /** Chance that the print's clearance lies in the wanted window. */
  pRight: number;
  ledger: LedgerStep[];
}

/** Share of a right one that a miss to the preferred side is worth. Common practice, no source. */
const HALF_RIGHT = 0.5;
/** A miss to the preferred side still serves within this distance, mm. */
export const SERVES_WITHIN = 0.25;

/**
 * The model number most likely to be right.
 * @throws RangeError when the window is empty or a size is not positive
 */
export function proposeFit(question: FitQuestion): FitProposal {
  const { side, reading, printer } = question;
  if (!(reading.value > 0)) throw new RangeError('A reading is not above 0: measure again.');
  if (!(question.want.min < question.want.max))
    throw new RangeError('The wanted window is empty: its least must be below its most.');
  if (!(printer.scale.mean > 0)) throw new RangeError('The printer’s scale must be above 0.');
  const window = clearanceWindow(
    question.want,
    reading.value,
    side,
    question.soft ?? (question.want.unit === 'strain' ? 'ours' : 'none'),
  );
  const sign = side === 'inside' ? 1 : -1;
  const outcome = (model: number) => {
    const printed = printer.scale.mean * model + printer.offset.mean;
    const printedVar =
      (printer.scale.sd * model) ** 2 + printer.offset.sd ** 2 + 2 * model * (printer.covariance ?? 0);
    return {
      clearance: sign * (printed - reading.value),
      sd: Math.sqrt(Math.max(0, printedVar) + printer.repeatability ** 2 + reading.u ** 2),
      printed,
      u: Math.sqrt(Math.max(0, printedVar) + printer.repeatability ** 2),
    };
  };
  const worth = (model: number) => {
    const { clearance, sd } = outcome(model);
    return worthOf(window, clearance, sd, question.prefer ?? 'none');
  };
  // The middle of the window at zero doubt, then a search around it wide enough for any spread.
  const start =
    (reading.value + (sign * (window.min + window.max)) / 2 - printer.offset.mean) / printer.scale.mean;
  const reach = window.max - window.min + 3 * outcome(start).sd;
  const model = maximise(worth, start - reach, start + reach);
  const at = outcome(model);
  return {
    model,
    clearance: at.clearance,
    pRight: chanceWithin(window.min, window.max, at.clearance, at.sd),
    ledger: [
      { step: 'reading', amount: reading.value, u: reading.u },
      { step: 'allowance', amount: sign * at.clearance, u: 0 },
      { step: 'compensation', amount: model - at.printed, u: at.u },
    ],
  };
}

/** Expected worth of a print: right counts 1, a miss to the preferred side that still serves counts half. */
export function worthOf(
  window: { min: number; max: number },
  clearance: number,
  sd: number,
  prefer: Preference,
): number {
  const right = chanceWithin(window.min, window.max, clearance, sd);
  if (prefer === 'loose')
    return right + HALF_RIGHT * chanceWithin(window.max, window.max + SERVES_WITHIN, clearance, sd);
  if (prefer === 'tight')
    return right + HALF_RIGHT * chanceWithin(window.min - SERVES_WITHIN, window.min, clearance, sd);
  return right;
}

/**
 * The largest of a one-peaked function: a coarse sweep, then golden section around the best step.
 * Where a plateau is as good everywhere (no doubt at all), its middle is taken.
 */
export function maximise(f: (x: number) => number, from: number, to: number): number {
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
  for (let i = 0; i < 40; i++) {
    const a = high - ratio * (high - low);
    const b = low + ratio * (high - low);
    if (f(a) < f(b)) low = a;
    else high = b;
  }
  return (low + high) / 2;
}
