import { bestNumber, chanceRight, type Expectation } from './best-number';
import { clearanceWindow, type Preference, type Side, type SoftSide, type Window } from './wants';

/**
 * The number to draw so that the print fits. A print of model number m has the size scale·m + offset, with uncertainty
 * in both and print-to-print scatter; clearance is female minus male, whole width.
 */
export interface PrinterResponse {
  /** mm; a hole that prints 0.22 small has −0.22, an outside that prints 0.05 large +0.05. */
  offset: { mean: number; sd: number };
  scale: { mean: number; sd: number };
  /** Covariance of scale and offset, mm. */
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
  /** `own` is the amount that a maker's own number adds to the chain. */
  step: 'reading' | 'allowance' | 'compensation' | 'lesson' | 'own';
  /** Signed, mm; the amounts add up to the model number. */
  amount: number;
  /** Standard uncertainty that this step adds, mm. */
  u: number;
}

export interface FitProposal {
  model: number;
  /** Expected clearance, mm. */
  clearance: number;
  /** Chance that the print's clearance is in the wanted window. */
  pRight: number;
  ledger: LedgerStep[];
}

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
  const expect: Expectation = (model, of) => {
    const { clearance, sd } = outcome(model);
    return of(clearance, sd);
  };
  // The middle of the window without uncertainty, then a search around it that is wide enough for any spread.
  const start =
    (reading.value + (sign * (window.min + window.max)) / 2 - printer.offset.mean) / printer.scale.mean;
  const reach = window.max - window.min + 3 * outcome(start).sd;
  const model = bestNumber(expect, window, question.prefer ?? 'none', start - reach, start + reach);
  const at = outcome(model);
  return {
    model,
    clearance: at.clearance,
    pRight: chanceRight(expect, window, model),
    ledger: [
      { step: 'reading', amount: reading.value, u: reading.u },
      { step: 'allowance', amount: sign * at.clearance, u: 0 },
      { step: 'compensation', amount: model - at.printed, u: at.u },
    ],
  };
}
