import { chanceWithin } from './probability';
import { type PrinterResponse, proposeFit } from './propose';
import type { Window } from './wants';

/** Two printed parts that mate: both sides carry compensation, and both uncertainties count. Lengths mm. */
export interface PairQuestion {
  /** Size of the joint, which the male part should have when printed. */
  size: number;
  want: Window;
  female: PrinterResponse;
  male: PrinterResponse;
}

export interface PairProposal {
  female: { model: number };
  male: { model: number };
  /** Expected clearance. */
  clearance: number;
  pRight: number;
  /** Share of the variance that is the female part's. */
  femaleShare: number;
}

/**
 * The male part is drawn to come out at the size; the female one for the want, with the male's doubt as
 * that of its counterpart. The two sides' errors are taken as independent: one printer makes holes and
 * outsides wrong in different ways.
 * @throws RangeError as `proposeFit`
 */
export function proposePair({ size, want, female, male }: PairQuestion): PairProposal {
  if (!(size > 0)) throw new RangeError('The size of a joint is above 0 mm.');
  const maleModel = (size - male.offset.mean) / male.scale.mean;
  const maleVariance = Math.max(
    0,
    (male.scale.sd * maleModel) ** 2 + male.offset.sd ** 2 + 2 * maleModel * (male.covariance ?? 0),
  );
  const u = Math.sqrt(maleVariance + male.repeatability ** 2);
  const proposed = proposeFit({ side: 'inside', reading: { value: size, u }, want, printer: female });
  const own = proposed.ledger.find(s => s.step === 'compensation')!.u;
  return {
    female: { model: proposed.model },
    male: { model: maleModel },
    clearance: proposed.clearance,
    pRight: chanceWithin(want.min, want.max, proposed.clearance, Math.hypot(u, own)),
    femaleShare: own ** 2 / (own ** 2 + u ** 2),
  };
}
