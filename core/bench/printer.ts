import { type Feature, PLATE } from '../calibration/piece';
import type { SurfaceForm } from '../fit/print-bias';
import type { Side } from '../fit/wants';
import { gauss, seeded, seedOf } from './random';

/**
 * A printer that nobody has to own: what it does to sizes in a plastic is drawn from the two names and hidden, so that
 * the calibration piece and every job meet the same printer. Lengths mm, angles degrees.
 */
export interface PracticePrinter {
  /** How much smaller a hole or slot prints, or larger a peg or rib, than drawn. */
  hole: number;
  slot: number;
  peg: number;
  rib: number;
  /** How much higher than drawn a step prints. */
  height: number;
  scale: { leftRight: number; frontBack: number };
  /** How much less than square the front left corner is, degrees. */
  skew: number;
  /** First layer, per side. */
  bulge: number;
  /** Scatter from print to print and from place to place, sd. */
  scatter: number;
}

/** Spread of real printers around common practice. Common practice, no source. */
export function drawPrinter(printerId: string, materialId: string): PracticePrinter {
  const random = seeded(seedOf('printer', printerId, materialId));
  const hole = gauss(random, 0.22, 0.14);
  const peg = gauss(random, 0.05, 0.08);
  return {
    hole,
    peg,
    // Straight sides behave like round ones, only slightly less so: no arc pulls inwards.
    slot: 0.6 * hole + gauss(random, 0, 0.02),
    rib: peg + gauss(random, 0, 0.02),
    height: gauss(random, 0.03, 0.04),
    scale: { leftRight: gauss(random, 0.9985, 0.001), frontBack: gauss(random, 0.9985, 0.001) },
    skew: gauss(random, 0, 0.08),
    bulge: Math.max(0, gauss(random, 0.12, 0.06)),
    scatter: 0.04,
  };
}

/** How much tighter this printer makes a surface of this size, mm: the same errors that its piece shows. */
export const tighterBy = (printer: PracticePrinter, side: Side, form: SurfaceForm, size: number): number => {
  const grown = ((printer.scale.leftRight + printer.scale.frontBack) / 2 - 1) * size;
  const flat = form === 'flats';
  return side === 'inside'
    ? (flat ? printer.slot : printer.hole) - grown
    : (flat ? printer.rib : printer.peg) + grown;
};

/** True size of a feature on the `piece`-th calibration piece, mm. */
export function pieceSize(printer: PracticePrinter, feature: Feature, piece: number): number {
  const random = seeded(seedOf('piece', printer.hole, piece, feature.id));
  // Half of the variance belongs to the whole print, for each kind of surface.
  const part = printer.scatter / Math.SQRT2;
  const common = gauss(seeded(seedOf('whole', printer.hole, piece, feature.kind)), 0, part);
  const { leftRight, frontBack } = printer.scale;
  const scale =
    feature.direction === 'left-right'
      ? leftRight
      : feature.direction === 'front-back'
        ? frontBack
        : (leftRight + frontBack) / 2;
  const { kind, size } = feature;
  if (kind === 'height') return gauss(random, size + printer.height + common, part);
  const grown = {
    hole: -printer.hole,
    slot: -printer.slot,
    peg: printer.peg,
    rib: printer.rib,
    foot: printer.rib + 2 * printer.bulge,
    diagonal: printer.rib + leaning(printer, feature),
  }[kind];
  return gauss(random, scale * size + grown + common, part);
}

/** A plate whose back edge is shifted by the skew: one diagonal grows, the other shrinks. */
function leaning(printer: PracticePrinter, feature: Feature): number {
  const share = (PLATE.width * PLATE.depth) / (PLATE.width ** 2 + PLATE.depth ** 2);
  const change = PLATE.diagonal * share * ((printer.skew * Math.PI) / 180);
  return feature.id === 'diagonal-1' ? change : -change;
}

/** The practice caliper's `count`-th reading of it. @param resolution mm */
export function readPiece(
  printer: PracticePrinter,
  feature: Feature,
  piece: number,
  count: number,
  resolution: number,
  jawLand: number,
): number {
  const random = seeded(seedOf('reads', printer.hole, piece, feature.id, count));
  const size = pieceSize(printer, feature, piece);
  // Flats on the inside jaws span a chord of a hole.
  const spanned = feature.kind === 'hole' ? Math.sqrt(Math.max(0, size ** 2 - jawLand ** 2)) : size;
  return Math.round(gauss(random, spanned, 0.02) / resolution) * resolution;
}
