import styled from 'styled-components';
import type { DimensionState } from '../../../core/work/dimension';
import { usesOf } from '../../../core/work/uses';
import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';

/** What a size goes into, or that nothing is made from it as the part is now. */
export function UsedFor({ state: { dimension } }: { state: DimensionState }) {
  const { resolved, go } = useBench('resolved', 'go');
  const uses = usesOf(resolved, dimension);
  if (uses.length > 0) return <Line>It goes into: {uses.join('; ')}.</Line>;
  return (
    <Line>
      Nothing on Shape is made from it now: write “{dimension.name}” in a number’s field there, or leave it
      unread.{' '}
      <Button $small $look="quiet" onPress={() => go('shape')}>
        To Shape
      </Button>
    </Line>
  );
}

/** Readings that this part has no use for as it is: nothing is lost, and it is said why they are not asked for. */
export function NotUsed() {
  const { resolved } = useBench('resolved');
  const { document, needed, recipe } = resolved;
  const others = document.dimensions.filter(
    d =>
      d.readings.some(r => r.struck === null) &&
      recipe.guide.some(step => resolved.dimensionAt(step.key)?.dimension.id === d.id) &&
      !needed.some(n => n.dimension.id === d.id),
  );
  if (others.length === 0) return null;
  return (
    <Line>
      Read, but not used by the part as it is: {others.map(d => d.label).join('; ')}. The readings are kept.
    </Line>
  );
}

const Line = styled.p`font-size: 14px; color: var(--soft); margin: 0;`;
