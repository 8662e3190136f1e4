import { useMemo } from 'react';
import { isSigned, numberOfMate } from '../../../core/job/document';
import { formatPlain } from '../../../core/quantity/format';
import type { Bounds } from '../../../core/shape/mesh/mesh';
import { isAngleOf } from '../../../core/shape/own-mates';
import type { Span } from '../../../core/shape/span/span';
import { moved } from '../../../core/shape/vector';
import { useBench } from '../../job/bench-context';
import type { ShownArrow } from '../../solid/arrow';
import { useStands } from '../../solid/stands';
import { chosenMate } from './chosen-mate';

/** Length of the arrow of a place, as a share of the part's longest side. */
const LONG = 0.16;

/** A size as it is drawn on the solid. */
export function arrowOf({ from, to, kind, size }: Span, name = ''): ShownArrow {
  const unit = kind === 'angle' ? '°' : ' mm';
  return { from, to, heads: 'both', label: `${name} ${formatPlain(size, 2)}${unit}`.trim() };
}

/**
 * Where the selected mate, or the selected number, is on the solid; for a place, its direction of movement.
 * @param bounds of the solid that is shown
 * @param off while other places are asked for
 */
export function useArrow(bounds: Bounds | undefined, off: boolean): ShownArrow | null {
  const { resolved, selected, work } = useBench('resolved', 'selected', 'work');
  const { recipe, parameters, part } = resolved;
  const mate = chosenMate(resolved, selected);
  const number = mate ? numberOfMate(mate, recipe.mates) : (selected ?? undefined);
  const asked = off || !bounds ? undefined : number;
  const pressed = mate?.pressed?.places;
  const stands = useStands(work, part.id, asked, pressed);
  const spec = recipe.parameters.find(p => p.name === number);
  const name = mate?.name ?? spec?.label ?? '';
  const more = mate && isSigned(mate) ? mate.sense.more : 'larger';
  const isAngle = number !== undefined && isAngleOf(recipe.parameters, number);
  const size = number === undefined ? undefined : parameters[number];
  return useMemo(() => {
    if (!stands || !bounds || typeof size !== 'number') return null;
    // Triangles of a round wall are slightly narrower than the drawn size.
    if (stands.is === 'span') return arrowOf(pressed ? stands.span : { ...stands.span, size }, name);
    const { min, max } = bounds;
    const long = LONG * Math.max(...[0, 1, 2].map(i => max[i]! - min[i]!));
    const label = `${name} ${formatPlain(size, 2)}${isAngle ? '°' : ' mm'}: ${more} this way`;
    return { from: stands.at, to: moved(stands.at, stands.along, long), heads: 'one', label };
  }, [stands, bounds, name, more, isAngle, size, pressed]);
}
