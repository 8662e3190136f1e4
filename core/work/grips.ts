import { type Force, type PassingRidge, passingForces, slidingForce, sumOf } from '../fit/grip';
import { pressFit } from '../fit/press';
import { fingerForce } from '../fit/ring';
import { strainAt } from '../fit/wants';
import type { FitMate } from '../job/document';
import type { RoundGrip } from '../shape/recipes/recipe';
import { given } from '../shelf/table';
import { HARD_TO_PULL, oftenOf } from './effects';
import type { MateLedger } from './ledger';
import type { ResolvedPart } from './resolved';
import { polymerOf } from './suitability';

/** One of several surfaces that grip at the same time. Forces along the axis, N; strain of our plastic, ratio. */
export interface Grip {
  mate: FitMate;
  strain: number;
  on: Force;
  off: Force;
}

/** What all of them together ask of the plastic and the hand. */
export interface Grips {
  grips: Grip[];
  on: Force;
  off: Force;
  /** Mates that grip too, but whose force cannot be worked out. */
  left: { mate: FitMate; why: string }[];
  /** What the plastic bears, ratios. */
  strainLimits: { often: number; once: number };
  /** More than a hand can do even in the best case. */
  tooHard: 'on' | 'off' | null;
}

/** Taken as rigid, so that our side takes all of the squeeze. */
const HARD = { modulus: 200_000, poisson: 0.3 };
/** Poisson's ratio of plastics. Common practice, no source. */
const POISSON = 0.38;

/** Null where fewer than two surfaces grip, or the plastic's figures are not known. */
export function gripsOf(part: ResolvedPart): Grips | null {
  const polymer = polymerOf(part.material);
  const round = part.recipe.grips?.(part.parameters);
  if (!polymer || !round) return null;
  const modulus = { low: given(polymer, 'modulusLow'), high: given(polymer, 'modulusHigh') };
  const grips: Grip[] = [];
  const left: Grips['left'] = [];
  for (const ledger of part.ledger.mates) {
    const { mate, clearance } = ledger;
    const own = round.find(g => g.mate === mate.ours.surface);
    if (own && mate.soft === 'theirs') left.push({ mate, why: 'The object gives there, not the part.' });
    else if (own) {
      try {
        const grip = own.passes
          ? passingOf(part, ledger, own, own.passes, modulus)
          : clearance < 0
            ? pressing(part, ledger, own, modulus)
            : null;
        if (grip) grips.push(grip);
      } catch (error) {
        // A solid plug does not give, and one slot makes no fingers.
        if (!(error instanceof RangeError)) throw error;
        left.push({ mate, why: error.message });
      }
    } else if (clearance < 0) left.push({ mate, why: 'The wall behind it is not known.' });
  }
  if (grips.length + left.length < 2 || grips.length === 0) return null;
  const [on, off] = [sumOf(grips.map(g => g.on)), sumOf(grips.map(g => g.off))];
  return {
    grips,
    left,
    on,
    off,
    strainLimits: { often: oftenOf(part.material), once: part.material.strainLimit },
    tooHard: on.low > HARD_TO_PULL ? 'on' : off.low > HARD_TO_PULL ? 'off' : null,
  };
}

function pressing(
  part: ResolvedPart,
  { mate, clearance, reading }: MateLedger,
  own: RoundGrip,
  e: Force,
): Grip {
  const stretch = strainAt(clearance, reading.value, mate.side, 'ours');
  const surface = part.recipe.surfaces(part.parameters).find(s => s.mate === mate.ours.surface)!;
  const length = Math.abs(surface.to - surface.from);
  const bent = (modulus: number) =>
    own.fingers &&
    fingerForce({ diameter: reading.value, wall: own.wall, height: length, modulus }, own.fingers, stretch);
  const radial = (modulus: number) =>
    bent(modulus)?.force ?? squeeze(mate, reading.value, own.wall, -clearance, length, modulus);
  const force = slidingForce({ low: radial(e.low), high: radial(e.high) });
  return { mate, strain: bent(e.low)?.rootStrain ?? stretch, on: force, off: force };
}

/** The whole radial force between the two, N, by Lamé's thick cylinders. */
function squeeze(
  { side }: FitMate,
  at: number,
  wall: number,
  by: number,
  length: number,
  modulus: number,
): number {
  const ours = { modulus, poisson: POISSON };
  return side === 'inside'
    ? pressFit(
        { inner: at, outer: at + 2 * wall, ...ours },
        { inner: 0, outer: at, ...HARD },
        at,
        by,
        length,
        1,
      ).pushOff
    : pressFit(
        { inner: at, outer: 3 * at, ...HARD },
        { inner: Math.max(0, at - 2 * wall), outer: at, ...ours },
        at,
        by,
        length,
        1,
      ).pushOff;
}

function passingOf(
  part: ResolvedPart,
  { mate, clearance, reading }: MateLedger,
  own: RoundGrip,
  { dimension, ...slopes }: NonNullable<RoundGrip['passes']>,
  modulus: Force,
): Grip | null {
  const over = part.measured[dimension]?.value;
  if (over === undefined) return null;
  const printed = mate.side === 'inside' ? reading.value + clearance : reading.value - clearance;
  const strain = mate.side === 'inside' ? over / printed - 1 : 1 - over / printed;
  if (strain <= 0) return null;
  const bent =
    own.fingers &&
    fingerForce({ diameter: over, wall: own.wall, height: slopes.width, modulus: 1 }, own.fingers, strain);
  const ridge: PassingRidge = { wall: own.wall, ...(own.fingers ? { fingers: own.fingers } : {}), ...slopes };
  return { mate, strain: bent?.rootStrain ?? strain, ...passingForces(ridge, over, strain, modulus) };
}
