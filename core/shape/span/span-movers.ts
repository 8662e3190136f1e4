import type { BuiltPart } from '../built-part';
import { rayTreeOf } from '../mesh/rays';
import { disturbedBy, foundNear, type Mover, type Nudge } from '../movers';
import type { Parameters } from '../recipes/parameters';
import type { Place } from '../vector';
import { type Feature, featureAt } from './feature';
import { isSpan, type Span, type Spanned, spanOf } from './span';

type Built = Pick<BuiltPart, 'mesh' | 'mates'>;

/** A number that changes a span. */
export interface SpanMover extends Pick<Mover, 'name' | 'disturbs'> {
  /** How much larger it gets per mm or degree of the number, mm or degrees. */
  rate: number;
}

/** A number that changes the span by less per mm or degree does not move it: mm or degrees. */
const LEAST_RATE = 0.02;

/** The features at pressed places, on the part as it is now; null where the surface is no longer there. */
export function spanAt(part: Pick<BuiltPart, 'mesh'>, places: readonly Place[], by = 0): Spanned | null {
  const features = places.map(place => featureNear(part, place, by));
  const [a, b = null] = features;
  if (!a || features.includes(null)) return null;
  return spanOf(a, b);
}

function featureNear(
  { mesh }: Pick<BuiltPart, 'mesh'>,
  { point, normal }: Place,
  by: number,
): Feature | null {
  const found = foundNear(mesh, rayTreeOf(mesh), point, normal, by);
  return found && featureAt(mesh, found.triangle, found.point);
}

/**
 * The span between pressed places, with the numbers that change it: those that change nothing else that must fit come
 * first.
 */
export function spanMovers(
  places: readonly Place[],
  now: Built,
  nudges: readonly Nudge[],
  build: (parameters: Parameters) => Built | null,
): { span: Span; movers: SpanMover[] } | { why: string } {
  const span = spanAt(now, places);
  if (!span) return { why: 'The surface there has changed since it was pressed: press it again.' };
  if (!isSpan(span)) return span;
  const movers = nudges.flatMap(({ name, by, parameters }): SpanMover[] => {
    const then = by === 0 ? null : build(parameters);
    const other = then && spanAt(then, places, by);
    if (!then || !other || !isSpan(other) || other.kind !== span.kind) return [];
    const rate = (other.size - span.size) / by;
    return Math.abs(rate) < LEAST_RATE ? [] : [{ name, rate, disturbs: disturbedBy(now, then) }];
  });
  const off = (m: SpanMover) => Math.abs(Math.abs(m.rate) - 1);
  return {
    span,
    movers: movers.sort((a, b) => a.disturbs.length - b.disturbs.length || off(a) - off(b)),
  };
}
