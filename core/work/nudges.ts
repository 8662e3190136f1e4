import type { Nudge } from '../shape/movers';
import { movablesOf } from './movable';
import type { Work } from './work';

/** The step of a nudge, mm and degrees: far more than the error of triangles, far less than changes the shape. */
const BY = { length: 0.4, angle: 1 };

/**
 * The part with each of its numbers a little larger, and all that depends on it: to find what moves a place.
 * @param only this one of them
 */
export function nudgesOf(work: Work, partId: string, only?: string): Nudge[] {
  const { document } = work;
  return movablesOf(work.part(partId)).flatMap(({ name, now, isAngle, min, max, set }): Nudge[] => {
    if (only !== undefined && name !== only) return [];
    const step = isAngle ? BY.angle : BY.length;
    const by = now + step > max ? -step : step;
    if (now + by < min) return [];
    const change = set(now + by);
    const parts = document.parts.map(p =>
      p.id === partId ? { ...p, parameters: { ...p.parameters, [change.name]: change.expression } } : p,
    );
    const nudged = work.with({ document: { ...document, parts } }).part(partId);
    // A number that cannot grow by the step cannot be judged by it.
    if (Object.keys(nudged.problems).length > 0) return [];
    return [{ name, by, parameters: nudged.parameters }];
  });
}
