import type { SizeKind } from '../calibration/piece';
import { betweenPieces, printedAt, type Response } from '../calibration/profile';
import { type BiasBelief, beliefFor, type SurfaceKind, surfaceKind } from '../fit/print-bias';
import { type PrinterResponse, proposeFit } from '../fit/propose';
import type { Side } from '../fit/wants';
import type { Part } from './document';
import { calibrationFor, profileOf } from './profiles';
import { type Calibration, type Workshop, windowFor } from './workshop';

export interface SourcedBelief extends BiasBelief {
  /** The calibration it comes from; null where it is the workshop's general belief. */
  calibration: Calibration | null;
}

/** What slots tell of holes, and ribs of pegs, is this much less sure, sd. Common practice, no source. */
const OTHER_FORM = 0.05;
/** Where the settings are said to correct sizes and nothing was read yet, sd. Common practice, no source. */
const SAID_CORRECTED = 0.08;

const OTHER: Record<'hole' | 'slot' | 'peg' | 'rib', SizeKind> = {
  hole: 'slot',
  slot: 'hole',
  peg: 'rib',
  rib: 'peg',
};

/** What is believed of a surface of this size before tries. Pieces lie flat: on its side a part is not calibrated. */
export function printerBelief(
  workshop: Workshop,
  part: Pick<Part, 'printerId' | 'materialId'>,
  side: Side,
  kind: SurfaceKind,
  size: number,
): SourcedBelief {
  const general = { ...beliefFor(workshop.belief, side, kind), calibration: null };
  if (!(kind in OTHER)) return general;
  const upright = kind as keyof typeof OTHER;
  const responseIn = (c: Calibration): Response | undefined => {
    const { responses } = profileOf(c, workshop);
    return responses.find(r => r.kind === upright) ?? responses.find(r => r.kind === OTHER[upright]);
  };
  const calibration = calibrationFor(workshop, part, c => c.compensates === true || !!responseIn(c));
  if (!calibration) return general;
  const response = responseIn(calibration);
  if (!response) return { mean: 0, sd: SAID_CORRECTED, calibration };
  const printed = printedAt(response, size);
  const grown = printed.mean - size;
  return {
    mean: side === 'inside' ? -grown : grown,
    // One piece may itself have come out off: the next parts will lie about another mean.
    sd: Math.hypot(
      printed.sd,
      betweenPieces(workshop.belief.repeatability),
      response.kind === upright ? 0 : OTHER_FORM,
    ),
    calibration,
  };
}

/** Print-to-print scatter of a part's printer with its plastic, sd, mm: from the piece where there is one. */
export function printScatter(workshop: Workshop, part: Pick<Part, 'printerId' | 'materialId'>): number {
  const calibration = calibrationFor(workshop, part, c => profileOf(c, workshop).rows.length > 0);
  return calibration ? profileOf(calibration, workshop).scatter : workshop.belief.repeatability;
}

/** The same for one size, as a proposal wants it. */
export function responseFor(
  workshop: Workshop,
  part: Pick<Part, 'printerId' | 'materialId'>,
  side: Side,
  kind: SurfaceKind,
  size: number,
): PrinterResponse {
  const { mean, sd } = printerBelief(workshop, part, side, kind, size);
  return {
    offset: { mean: side === 'inside' ? -mean : mean, sd },
    scale: { mean: 1, sd: 0 },
    repeatability: printScatter(workshop, part),
  };
}

/** A fit on a common size: chance to be right at the first print, without and with this calibration. */
export interface Gain {
  words: string;
  before: number;
  after: number;
}

/** Read three times with good calipers, mm. Common practice, no source. */
const WELL_READ = 0.02;
const EXAMPLES = [
  { want: 'snug', side: 'inside', size: 12, words: 'a snug bore over 12 mm' },
  { want: 'slide', side: 'inside', size: 30, words: 'a sliding bore over 30 mm' },
  { want: 'snug', side: 'outside', size: 20, words: 'a snug plug in 20 mm' },
  { want: 'press', side: 'outside', size: 8, words: 'a pressed pin in 8 mm' },
] as const;

/** What a calibration does to the chance of a good first print. */
export function gainsOf(calibration: Calibration, workshop: Workshop): Gain[] {
  const before: Workshop = { ...workshop, calibrations: [] };
  const after: Workshop = { ...workshop, calibrations: [calibration] };
  return EXAMPLES.map(({ want, side, size, words }) => {
    const chance = (shop: Workshop) =>
      proposeFit({
        side,
        reading: { value: size, u: WELL_READ },
        want: windowFor(shop, want),
        printer: responseFor(shop, calibration, side, surfaceKind(side, 'round', false), size),
      }).pRight;
    return { words, before: chance(before), after: chance(after) };
  });
}
