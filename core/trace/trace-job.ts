import type { Trace } from '../job/traces';
import { partedAsSaid, type Said } from './parting';
import type { Picture } from './picture';
import { traceDimensions } from './trace-dimensions';
import { traceFlatbed } from './trace-flatbed';
import { tracePhoto } from './trace-photo';
import { isCleanAll, type TraceAnswer, type TraceProgress, type Weighed } from './trace-plane';
import { traceRectangle } from './trace-rectangle';

/** A picture traced with the settings of a job. */
export type TracedJob = Weighed & { tilt?: number };

type Read = Pick<Trace, 'by' | 'thickness' | 'broken' | 'inside' | 'tolerance' | 'strokes'>;

export function traceAsRead(
  picture: Picture,
  { by, thickness, broken, inside, tolerance, strokes }: Read,
  progress: TraceProgress,
): TraceAnswer<TracedJob> {
  const shared = { inside: inside ?? null, tolerance, strokes };
  const standing = { height: thickness, broken: Math.min(broken, thickness) };
  if (by.kind === 'flatbed')
    return traceFlatbed(picture, { ...shared, ...by, known: by.known ?? null }, progress);
  const f35 = by.f35 ?? null;
  if (by.kind === 'rectangle')
    return traceRectangle(picture, { ...shared, ...by, f35, thickness: standing }, progress);
  if (by.kind === 'dimensions')
    return traceDimensions(picture, { ...shared, ...by, f35, thickness: standing }, progress);
  return tracePhoto(picture, { ...shared, ...by, f35, bars: by.bars ?? null, thickness: standing }, progress);
}

/** The trace with all corrections by the maker. @returns also how many of them no longer fit it */
export function asSaid(traced: TracedJob, said: readonly Said[]): { traced: TracedJob; lost: number } {
  if (said.length === 0) return { traced, lost: 0 };
  const { loops, lost } = partedAsSaid(traced, said);
  return {
    traced: { ...traced, loops, clean: isCleanAll(loops), doubt: traced.weigh(loops) },
    lost: lost.length,
  };
}
