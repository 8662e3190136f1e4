import type { Nudge } from '../shape/movers';
import { carriesMate } from '../shape/own-mates';
import type { Work } from './work';

/** So much, mm and degrees: far more than triangles are off, far less than what makes another shape. */
const BY = { length: 0.4, angle: 1 };

/**
 * The part with each of its numbers a little larger, and whatever is made from it: for finding what moves a place.
 * @param only this one of them
 */
export function nudgesOf(work: Work, partId: string, only?: string): Nudge[] {
  const { document } = work;
  const { recipe, parameters } = work.part(partId);
  return recipe.parameters.flatMap((spec): Nudge[] => {
    if (
      (only !== undefined && spec.name !== only) ||
      !carriesMate(spec) ||
      !(spec.shown?.(parameters) ?? true)
    )
      return [];
    const now = parameters[spec.name];
    if (typeof now !== 'number') return [];
    const isAngle = spec.measure === 'angle';
    const step = isAngle ? BY.angle : BY.length;
    const by = now + step > spec.max ? -step : step;
    if (now + by < spec.min) return [];
    const expression = { text: (now + by).toFixed(4), unit: isAngle ? ('deg' as const) : ('mm' as const) };
    const parts = document.parts.map(p =>
      p.id === partId ? { ...p, parameters: { ...p.parameters, [spec.name]: expression } } : p,
    );
    const nudged = work.with({ document: { ...document, parts } }).part(partId);
    // One that cannot be so much larger cannot be judged by it.
    if (Object.keys(nudged.problems).length > 0) return [];
    return [{ name: spec.name, by, parameters: nudged.parameters }];
  });
}
