import { MINUTES_A_READING, pieceMinutes } from '../calibration/estimate';
import { FEATURES } from '../calibration/piece';
import { betweenPieces } from '../calibration/profile';
import { chanceWithin } from '../fit/probability';
import type { Printer, Workshop } from '../job/workshop';
import { USUAL_LAYER } from '../print/estimate';
import { chanceAfterLadder, hasLadder, ladderMinutes, ladderSizes } from '../print/ladder';
import type { MateLedger } from './ledger';
import type { ResolvedPart } from './resolved';

/** A way to make the next print surer, in the order of its gain per minute. */
export interface Surer {
  what: 'read-again' | 'calibrate' | 'ladder';
  words: string;
  /** P(right) once it is done, roughly. */
  pRight: number;
  minutes: number;
}

/**
 * The uncertainty that the line of a well-read piece leaves at a usual size, sd, mm. Measured on the practice printers.
 */
const PIECE_LEAVES = 0.025;
/** A smaller gain is not worth a walk to the bench. */
const WORTHWHILE = 0.02;
/** Fetching the object again, minutes. Common practice, no source. */
const TAKE_UP = 1;

/** The same for one surface of a part, from its readings. */
export function waysForMate(
  ledger: MateLedger,
  { document, dimensions, printer }: Pick<ResolvedPart, 'document' | 'dimensions' | 'printer'>,
  workshop: Pick<Workshop, 'belief'>,
): Surer[] {
  const state = dimensions.get(ledger.dimension.id);
  const count = state?.counted.length ?? 0;
  const spread = count > 0 ? (state!.evaluation!.budget[0]?.u ?? 0) * Math.sqrt(count) : 0;
  const ways = waysToBeSurer(ledger, { spread, count: Math.max(1, count) }, workshop, printer);
  // An object that is away is neither read again nor tried on.
  return document.object.goneAt ? ways.filter(w => w.what === 'calibrate') : ways;
}

/**
 * What would make the first print surer, and its cost. Empty once it was tried: a print teaches more than either.
 * Errors are taken as normal, and the number as drawn in the best place of the window.
 * @param printer the part's own
 * @param spread sd of one reading of this dimension beyond the error that all of them share, mm; and how many were
 * taken
 */
export function waysToBeSurer(
  ledger: MateLedger,
  { spread, count }: { spread: number; count: number },
  workshop: Pick<Workshop, 'belief'>,
  printer: Pick<Printer, 'nozzle' | 'bed'>,
): Surer[] {
  if (ledger.tries > 0 || ledger.laddered || ledger.tooLarge) return [];
  const { window, reading, prior, scatter } = ledger;
  const chance = (u: number, sd: number) => {
    const middle = (window.min + window.max) / 2;
    return chanceWithin(window.min, window.max, middle, Math.hypot(u, sd, scatter));
  };
  const now = chance(reading.u, prior.sd);
  const ways: Surer[] = [];
  const offer = (what: Surer['what'], words: string, then: number, minutes: number) => {
    if (then - now >= WORTHWHILE)
      ways.push({ what, words, pRight: Math.min(0.99, ledger.pRight + then - now), minutes });
  };
  const again = Math.max(0, reading.u ** 2 - spread ** 2 / count + spread ** 2 / (count + 2));
  offer(
    'read-again',
    'read it twice more',
    chance(Math.sqrt(again), prior.sd),
    TAKE_UP + 2 * MINUTES_A_READING,
  );
  if (!ledger.calibration) {
    const sd = Math.hypot(PIECE_LEAVES, betweenPieces(workshop.belief.repeatability));
    offer(
      'calibrate',
      'print the calibration piece and read it; it serves every later job too',
      chance(reading.u, sd),
      pieceMinutes(printer.nozzle, USUAL_LAYER) + 2 * FEATURES.length * MINUTES_A_READING,
    );
  }
  if (hasLadder(ledger, printer.bed)) {
    const sizes = ladderSizes(ledger);
    offer(
      'ladder',
      `print a ladder of ${sizes.length} rings and try them on`,
      Math.max(now, chanceAfterLadder(ledger, sizes)),
      ladderMinutes(ledger.mate.side, sizes, printer.nozzle, USUAL_LAYER),
    );
  }
  return ways.sort((a, b) => (b.pRight - now) / b.minutes - (a.pRight - now) / a.minutes);
}
