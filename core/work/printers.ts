import { betweenPieces, printedAt, type Response } from '../calibration/profile';
import type { SizeKind } from '../calibration/size-kind';
import { type BiasBelief, beliefFor, growthOf, type SurfaceKind, surfaceKind } from '../fit/print-bias';
import { type PrinterResponse, proposeFit } from '../fit/propose';
import type { Side } from '../fit/wants';
import type { Part } from '../job/document';
import { type Calibration, type Workshop, windowFor } from '../job/workshop';
import { HAND_PRIOR, handOfLesson, lessonOfHand, shiftOf } from '../learn/hand';
import { beliefAfter, countingOf, type Evidence } from '../learn/lessons';
import { SHRINKAGE } from '../shelf/polymers';
import { given } from '../shelf/table';
import { type Profile, profileOf } from './profiles';
import { polymerOf } from './suitability';

export interface SourcedBelief extends BiasBelief {
  /** The calibration it comes from; null where it is the workshop's general belief. */
  calibration: Calibration | null;
  /** The number of other jobs behind it. */
  jobs?: number;
  /**
   * The uncertainty of this size alone, where it was not measured how this printer's error changes with size, sd, mm.
   */
  growth: number;
}

/** A hole judged from slots, or a peg from ribs, is less sure by this, sd. Common practice, no source. */
const OTHER_FORM = 0.05;
/** Where the settings are said to correct sizes and nothing was read yet, sd. Common practice, no source. */
const SAID_CORRECTED = 0.08;

/** For an unknown plastic, %. Common practice, no source. */
const UNKNOWN_SHRINKAGE = 0.5;

const OTHER: Record<'hole' | 'slot' | 'peg' | 'rib', SizeKind> = {
  hole: 'slot',
  slot: 'hole',
  peg: 'rib',
  rib: 'peg',
};

/** The printer and the plastic of a part. */
type Made = Pick<Part, 'printerId' | 'materialId'>;

/** What this workshop's printers do to sizes, before a job's own tries. Each profile is worked out once. */
export class Printers {
  private readonly profiles = new Map<Calibration, Profile>();

  /** @param lessons what other jobs taught, without those of the job itself */
  constructor(
    private readonly workshop: Workshop,
    readonly lessons: readonly Evidence[] = [],
    private readonly now = new Date().toISOString(),
  ) {}

  profile(calibration: Calibration): Profile {
    const known = this.profiles.get(calibration) ?? profileOf(calibration, this.workshop);
    this.profiles.set(calibration, known);
    return known;
  }

  /** The belief about a surface of this size: from a calibration or in general, and from other jobs. */
  belief(made: Made, side: Side, kind: SurfaceKind, size: number): SourcedBelief {
    const known = this.beliefAlone(made, side, kind, size);
    const { printerId, materialId } = made;
    const taught = countingOf(this.lessons, this.workshop.lessonsMuted ?? [], {
      printerId,
      materialId,
      surface: kind,
    });
    if (taught.length === 0) return known;
    const jobs = new Set(taught.map(e => e.jobId)).size;
    return { ...known, ...beliefAfter(known, taught, this.now), jobs };
  }

  /** By how much this hand calls the same clearance tighter than the window, mm; 0 while unknown. */
  handShift(name: string): number {
    if (name === '') return 0;
    const taught = countingOf(this.lessons, this.workshop.lessonsMuted ?? [], {
      printerId: null,
      materialId: null,
      surface: lessonOfHand(name),
    });
    return taught.length === 0 ? 0 : shiftOf(beliefAfter(HAND_PRIOR, taught, this.now));
  }

  /** The hand that judges in this workshop, where lessons know exactly one; else empty. */
  onlyHand(): string {
    const hands = new Set(this.lessons.flatMap(e => handOfLesson(e.surface) ?? []));
    return hands.size === 1 ? [...hands].join() : '';
  }

  /** Pieces are printed flat, so a part that lies on its side is not calibrated. */
  private beliefAlone(made: Made, side: Side, kind: SurfaceKind, size: number): SourcedBelief {
    const { belief } = this.workshop;
    const { smaller, sd: growth } = growthOf(size, this.shrinkage(made));
    const usual = beliefFor(belief, side, kind);
    const mean = usual.mean + (side === 'inside' ? smaller : -smaller);
    const general = { ...usual, mean, calibration: null, growth };
    if (!(kind in OTHER)) return general;
    const upright = kind as keyof typeof OTHER;
    const responseIn = (c: Calibration): Response | undefined => {
      const { responses } = this.profile(c);
      return responses.find(r => r.kind === upright) ?? responses.find(r => r.kind === OTHER[upright]);
    };
    const calibration = this.newest(made, c => c.compensates === true || !!responseIn(c));
    if (!calibration) return general;
    const response = responseIn(calibration);
    if (!response) return { mean: 0, sd: SAID_CORRECTED, calibration, growth };
    const printed = printedAt(response, size);
    const grown = printed.mean - size;
    return {
      mean: side === 'inside' ? -grown : grown,
      // The one piece may itself have come out off: the next parts scatter about another mean.
      sd: Math.hypot(
        printed.sd,
        betweenPieces(belief.repeatability),
        response.kind === upright ? 0 : OTHER_FORM,
      ),
      calibration,
      growth: 0,
    };
  }

  /** For a plastic, as a share; for an unknown one, that of many. */
  shrinkage({ materialId }: Made): number {
    const material = this.workshop.materials.find(m => m.id === materialId);
    const row = SHRINKAGE.find(r => r.key === (material && polymerOf(material))?.key);
    return (row ? given(row, 'percent') : UNKNOWN_SHRINKAGE) / 100;
  }

  /** Print-to-print scatter, sd, mm: from the piece where there is one. */
  scatter(made: Made): number {
    const calibration = this.newest(made, c => this.profile(c).rows.length > 0);
    return calibration ? this.profile(calibration).scatter : this.workshop.belief.repeatability;
  }

  /** The same belief for one size, in the form that a proposal takes. */
  response(made: Made, side: Side, kind: SurfaceKind, size: number): PrinterResponse {
    const { mean, sd, growth } = this.belief(made, side, kind, size);
    return {
      offset: { mean: side === 'inside' ? -mean : mean, sd: Math.hypot(sd, growth) },
      scale: { mean: 1, sd: 0 },
      repeatability: this.scatter(made),
    };
  }

  /** The newest calibration of a printer, with its current nozzle, and a plastic; null without one. */
  private newest(made: Made, useful: (calibration: Calibration) => boolean): Calibration | null {
    const { printers, calibrations = [] } = this.workshop;
    const printer = printers.find(p => p.id === made.printerId);
    return (
      calibrations
        .filter(
          c =>
            c.printerId === made.printerId &&
            c.materialId === made.materialId &&
            (c.nozzle === undefined || c.nozzle === printer?.nozzle) &&
            useful(c),
        )
        .sort((a, b) => b.at.localeCompare(a.at))[0] ?? null
    );
  }
}

/** The chance of being right at the first print for a fit on a common size, without and with this calibration. */
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

/** How a calibration changes the chance of a good first print. */
export function gainsOf(calibration: Calibration, workshop: Workshop): Gain[] {
  const before = new Printers({ ...workshop, calibrations: [] });
  const after = new Printers({ ...workshop, calibrations: [calibration] });
  return EXAMPLES.map(({ want, side, size, words }) => {
    const chance = (printers: Printers) =>
      proposeFit({
        side,
        reading: { value: size, u: WELL_READ },
        want: windowFor(workshop, want),
        printer: printers.response(calibration, side, surfaceKind(side, 'round', false), size),
      }).pRight;
    return { words, before: chance(before), after: chance(after) };
  });
}
