import type { Side } from '../../fit/wants';
import type { Place } from '../vector';
import { basisOf, dot, lengthOfVector, moved, negated, type Point3, scaled } from '../vector';
import type { Feature } from './feature';

type Flat = Extract<Feature, { kind: 'flat' }>;
type Round = Extract<Feature, { kind: 'round' }>;

/** The size between two faces, or of one hole or boss: mm, degrees for an angle. */
export interface Span {
  kind: 'length' | 'angle' | 'diameter';
  size: number;
  /** The two points of the measurement. */
  from: Point3;
  to: Point3;
  /** Whether something goes in, or it goes into something; left out where neither. */
  side?: Side;
}

/** Faces and axes with a smaller angle between them are parallel: cosine of 1°, and its sine. */
const PARALLEL = Math.cos(Math.PI / 180);
const SQUARE = Math.sin(Math.PI / 180);

/** Planes and axes nearer than this coincide, mm: triangles of round walls are not nearer to them. */
const ONE = 0.005;

/** Two faces, or one hole or boss, as pressed: their size at the time, and that of the number that moves it. */
export interface PressedSpan {
  places: readonly Place[];
  /** mm, degrees of an angle. */
  size: number;
  number: number;
}

/** A span, or why there is none. */
export type Spanned = Span | { why: string };

export const isSpan = (spanned: Spanned): spanned is Span => 'kind' in spanned;

/**
 * The size between two features: parallel faces by their distance, other faces by the angle between them; a hole by its
 * axis. A single feature gives a diameter.
 */
export function spanOf(a: Feature, b: Feature | null): Spanned {
  if (!b)
    return a.kind === 'round'
      ? acrossRound(a)
      : { why: 'That is a flat. Press a second face: the size is between the two.' };
  if (a.kind === 'flat' && b.kind === 'flat') return betweenFlats(a, b);
  if (a.kind === 'round' && b.kind === 'round') {
    if (Math.abs(dot(a.axis, b.axis)) < PARALLEL)
      return { why: 'The two axes are not parallel: no one size is between them.' };
    const off = moved(b.at, a.at, -1);
    const aside = moved(off, a.axis, -dot(off, a.axis));
    if (lengthOfVector(aside) < ONE) return throughWall(a, b);
    return { kind: 'length', size: lengthOfVector(aside), from: a.at, to: moved(a.at, aside) };
  }
  const [round, flat] = (a.kind === 'round' ? [a, b] : [b, a]) as [Round, Flat];
  if (Math.abs(dot(round.axis, flat.normal)) > SQUARE)
    return { why: 'The axis runs into that face: no one size is between them.' };
  const apart = dot(moved(round.at, flat.at, -1), flat.normal);
  return { kind: 'length', size: Math.abs(apart), from: moved(round.at, flat.normal, -apart), to: round.at };
}

/** A hole in a boss with the same axis: the wall between them. */
function throughWall(a: Round, b: Round): Spanned {
  const size = Math.abs(a.diameter - b.diameter) / 2;
  if (size < ONE) return { why: 'Both are the same round wall: press another face.' };
  const out = sideways(a.axis);
  return {
    kind: 'length',
    size,
    from: moved(a.at, out, a.diameter / 2),
    to: moved(a.at, out, b.diameter / 2),
  };
}

/** Any direction across an axis, of unit length. */
const sideways = (axis: Point3): Point3 => basisOf(axis).x;

function acrossRound({ at, axis, diameter, inside }: Round): Span {
  const half = scaled(sideways(axis), diameter / 2);
  return {
    kind: 'diameter',
    size: diameter,
    from: moved(at, negated(half)),
    to: moved(at, half),
    side: inside ? 'inside' : 'outside',
  };
}

function betweenFlats(a: Extract<Feature, { kind: 'flat' }>, b: Extract<Feature, { kind: 'flat' }>): Spanned {
  const turned = dot(a.normal, b.normal);
  if (Math.abs(turned) < PARALLEL) {
    // The angle as felt from outside: two walls of a square block are at 90°, two halves of a flat at 180°.
    const size = 180 - (Math.acos(Math.max(-1, Math.min(1, turned))) * 180) / Math.PI;
    return { kind: 'angle', size, from: a.at, to: b.at };
  }
  const apart = dot(moved(b.at, a.at, -1), a.normal);
  if (Math.abs(apart) < ONE) return { why: 'Both lie in one plane: press another face.' };
  const span = {
    kind: 'length' as const,
    size: Math.abs(apart),
    from: a.at,
    to: moved(a.at, a.normal, apart),
  };
  // Two that face the same way are a step; two that face each other have air between them.
  return turned > 0 ? span : { ...span, side: apart > 0 ? 'inside' : 'outside' };
}
