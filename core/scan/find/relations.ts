import { dot, lengthOfVector, moved, type Point3 } from '../../shape/vector';
import type { FoundSize, ScanFinding } from './findings';

/**
 * How two features of a scan are placed relative to each other, and what their sizes say together. Lengths mm, angles
 * degrees.
 */

type Thing = Pick<ScanFinding, 'kind' | 'title' | 'sizes' | 'axis' | 'centre'>;

/** The angle between two directions, whichever end is up; 0 is parallel, 90 square. */
export const leanOf = (a: Point3, b: Point3): number =>
  (Math.acos(Math.min(1, Math.abs(dot(a, b)))) * 180) / Math.PI;

/** How far one feature's axis passes beside another's centre. */
export function besideOf(first: { axis: Point3; centre: Point3 }, other: Pick<Thing, 'centre'>): number {
  const off = moved(other.centre, first.centre, -1);
  return lengthOfVector(moved(off, first.axis, -dot(off, first.axis)));
}

/** Closer than this, parallel, square or on one axis is meant. Common practice, no source. */
const [LEANS, BESIDE] = [0.5, 0.15];
/** Sizes whose difference is within this many of its standard uncertainties may be equal. */
const WITHIN = 2;

export type Relation =
  | { kind: 'one-axis' | 'parallel' | 'square'; to: number; words: string }
  /** All features with this size, this one included, and their combined size. */
  | { kind: 'one-size'; of: number[]; size: FoundSize; words: string };

/** Relations that hold within the error: they are offered, and nothing is corrected automatically. */
export function relationsOf(things: readonly Thing[], index: number): Relation[] {
  const own = things[index];
  if (!own) return [];
  const found: Relation[] = [];
  for (const [to, other] of things.entries()) {
    if (to === index || !own.axis || !other.axis || isSet(own) || isSet(other)) continue;
    const lean = leanOf(own.axis, other.axis);
    const name = nameOf(other);
    if (lean < LEANS && isTurned(own) && isTurned(other)) {
      const beside = besideOf({ axis: own.axis, centre: own.centre }, other);
      if (beside < BESIDE)
        found.push({
          kind: 'one-axis',
          to,
          words: `On one axis with the ${name}, ${beside.toFixed(2)} mm beside it`,
        });
    } else if (lean < LEANS && !isTurned(own) && !isTurned(other))
      found.push({ kind: 'parallel', to, words: `Parallel to the ${name}, within ${lean.toFixed(2)}°` });
    // A face's direction is its normal: an axis along that is square to the face.
    else if (isTurned(own) === isTurned(other) ? lean > 90 - LEANS : lean < LEANS)
      found.push({ kind: 'square', to, words: `Square to the ${name}` });
  }
  const alike = alikeOf(things, index);
  return alike ? [alike, ...found] : found;
}

const isSet = ({ kind }: Thing) => kind === 'across' || kind === 'pitch' || kind === 'slot';
const isTurned = ({ kind }: Thing) => kind !== 'plane';

const nameOf = ({ title, sizes }: Thing): string =>
  `${title.toLowerCase()}${sizes[0] ? ` of ${sizes[0].value.toFixed(2)}` : ''}`;

function alikeOf(things: readonly Thing[], index: number): Relation | null {
  const own = things[index]!;
  const [size] = own.sizes;
  if (!size) return null;
  const of = things.flatMap((other, i) => {
    const [o] = other.sizes;
    if (!o || other.kind !== own.kind || o.kind !== size.kind) return [];
    return Math.abs(o.value - size.value) <= WITHIN * Math.hypot(o.u, size.u) ? [i] : [];
  });
  if (of.length < 2) return null;
  const weights = of.map(i => things[i]!.sizes[0]!.u ** -2);
  const whole = weights.reduce((sum, w) => sum + w, 0);
  const value = of.reduce((sum, i, k) => sum + (weights[k]! / whole) * things[i]!.sizes[0]!.value, 0);
  // A warp affects neighbours too: together they are no surer than the surest.
  const u = Math.min(...of.map(i => things[i]!.sizes[0]!.u));
  return {
    kind: 'one-size',
    of,
    size: { ...size, value, u },
    words: `${of.length} alike within their doubt: ${value.toFixed(2)} mm together`,
  };
}
