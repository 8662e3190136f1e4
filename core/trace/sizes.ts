import type { Dimension } from '../job/document';
import { type Curve, lengthOfCurve } from '../shape/curve';
import { roundOf } from '../shape/lines-and-arcs/lines-and-arcs';
import { cross2, distance2, minus2, type Point2, unit2 } from '../shape/vector';
import type { Outlines } from './doubt';
import { circleOf } from './outline';

/** A feature of a traced outline that can be selected: a piece of a loop, or a whole round hole or disc. */
export interface Picked {
  loop: number;
  /** Index of the curve; null for a circle. */
  piece: number | null;
}

/** A size of the selected features. Lengths mm, angles degrees. */
export interface TraceSize {
  of: 'length' | 'diameter' | 'radius' | 'distance' | 'angle' | 'pitch-circle';
  words: string;
  kind: Dimension['kind'];
  read(outlines: Outlines): number | null;
}

/** Sides count as parallel within this, degrees. */
const PARALLEL = 3;

type Side = { at: Point2; way: Point2; long: number; middle: Point2 };
type Round = { centre: Point2; diameter: number; sense: 'inside' | 'outside' };

const curveAt = (o: Outlines, { loop, piece }: Picked): Curve | undefined =>
  piece === null ? undefined : o[loop]?.[piece];

function sideAt(o: Outlines, picked: Picked): Side | null {
  const curve = curveAt(o, picked);
  if (!curve || curve.arc) return null;
  const { from, to } = curve;
  return {
    at: from,
    way: unit2(minus2(to, from)),
    long: distance2(from, to),
    middle: [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2],
  };
}

function roundAt(o: Outlines, picked: Picked): Round | null {
  const curves = o[picked.loop];
  if (!curves) return null;
  if (picked.piece === null) {
    const circle = circleOf(curves);
    return circle && { ...circle, sense: picked.loop > 0 ? 'inside' : 'outside' };
  }
  const arc = curveAt(o, picked)?.arc;
  return arc
    ? { centre: arc.centre, diameter: 2 * arc.radius, sense: picked.loop > 0 ? 'inside' : 'outside' }
    : null;
}

const acrossFrom = (side: Side, p: Point2) => Math.abs(cross2(side.way, minus2(p, side.at)));
const angleOf = (a: Side, b: Side) => {
  const turn = (Math.atan2(cross2(a.way, b.way), a.way[0] * b.way[0] + a.way[1] * b.way[1]) * 180) / Math.PI;
  return 180 - Math.abs(turn);
};

/** Sizes of the selected features, in order of likelihood. */
export function sizesOf(outlines: Outlines, picked: readonly Picked[]): TraceSize[] {
  const [a, b] = picked;
  if (!a) return [];
  if (picked.length > 2) return pitchCircle(outlines, picked);
  return b ? pairSizes(outlines, a, b) : ownSizes(outlines, a);
}

function ownSizes(outlines: Outlines, a: Picked): TraceSize[] {
  const round = roundAt(outlines, a);
  if (round) {
    const diameter: TraceSize = {
      of: 'diameter',
      words: round.sense === 'inside' ? 'diameter of the hole' : 'diameter',
      kind: round.sense,
      read: o => roundAt(o, a)?.diameter ?? null,
    };
    const radius: TraceSize = {
      of: 'radius',
      words: 'radius',
      kind: 'length',
      read: o => (roundAt(o, a)?.diameter ?? NaN) / 2,
    };
    return a.piece === null ? [diameter] : [radius, diameter];
  }
  return sideAt(outlines, a)
    ? [
        {
          of: 'length',
          words: 'length of the side',
          kind: 'length',
          read: o => {
            const curve = curveAt(o, a);
            return curve ? lengthOfCurve(curve) : null;
          },
        },
      ]
    : [];
}

function pairSizes(outlines: Outlines, a: Picked, b: Picked): TraceSize[] {
  const both =
    <A, B>(
      of: (o: Outlines, p: Picked) => A | null,
      other: (o: Outlines, p: Picked) => B | null,
      size: (a: A, b: B) => number,
    ) =>
    (o: Outlines) => {
      const [p, q] = [of(o, a), other(o, b)];
      return p && q ? size(p, q) : null;
    };
  const [side, sideB] = [sideAt(outlines, a), sideAt(outlines, b)];
  const [round, roundB] = [roundAt(outlines, a), roundAt(outlines, b)];
  if (side && sideB) {
    const angle = angleOf(side, sideB);
    if (Math.min(angle, 180 - angle) < PARALLEL) {
      // Measured both ways: they are hardly ever exactly parallel.
      const apart = both(sideAt, sideAt, (p, q) => (acrossFrom(p, q.middle) + acrossFrom(q, p.middle)) / 2);
      const isGap = a.loop > 0 && a.loop === b.loop;
      return [
        { of: 'distance', words: 'between the sides', kind: isGap ? 'inside' : 'outside', read: apart },
      ];
    }
    return [
      { of: 'angle', words: 'angle between the sides', kind: 'angle', read: both(sideAt, sideAt, angleOf) },
    ];
  }
  if (round && roundB)
    return [
      {
        of: 'distance',
        words: 'between the middles',
        kind: 'length',
        read: both(roundAt, roundAt, (p, q) => distance2(p.centre, q.centre)),
      },
    ];
  if (side && roundB)
    return [
      {
        of: 'distance',
        words: 'from the side to the middle',
        kind: 'length',
        read: both(sideAt, roundAt, (p, q) => acrossFrom(p, q.centre)),
      },
    ];
  if (round && sideB) return pairSizes(outlines, b, a);
  return [];
}

/** Through the centres of three or more circles, by least squares. */
function pitchCircle(outlines: Outlines, picked: readonly Picked[]): TraceSize[] {
  const read = (o: Outlines): number | null => {
    const rounds = picked.flatMap(p => roundAt(o, p) ?? []);
    if (rounds.length < picked.length) return null;
    const [arc] = roundOf(rounds.map(r => r.centre));
    return arc?.arc ? 2 * arc.arc.radius : null;
  };
  return read(outlines) === null
    ? []
    : [{ of: 'pitch-circle', words: `pitch circle of ${picked.length}`, kind: 'outside', read }];
}
