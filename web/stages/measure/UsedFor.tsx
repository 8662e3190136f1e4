import { useState } from 'react';
import styled from 'styled-components';
import type { DimensionState } from '../../../core/work/dimension';
import { usesOf } from '../../../core/work/uses';
import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';
import { AddMateDialog } from '../fit/AddMateDialog';

/** What uses a size, or that nothing is made from it with the current choices. */
export function UsedFor({ state: { dimension } }: { state: DimensionState }) {
  const { resolved, go } = useBench('resolved', 'go');
  const [adding, setAdding] = useState(false);
  const uses = usesOf(resolved, dimension);
  const fits = [...resolved.mates, ...resolved.signed].some(
    m => m.other.of === 'object' && m.other.dimension === dimension.id,
  );
  return (
    <Line>
      {uses.length > 0
        ? `It goes into: ${uses.join('; ')}.`
        : `Nothing on Shape is made from it now: make a part fit it, write “${dimension.name}” in a number’s field there, or leave it unread.`}{' '}
      {fits || dimension.guide !== null ? null : (
        <Button $small $look="quiet" onPress={() => setAdding(true)}>
          The part must fit this
        </Button>
      )}
      {uses.length > 0 ? null : (
        <Button $small $look="quiet" onPress={() => go('shape')}>
          To Shape
        </Button>
      )}
      {adding ? (
        <AddMateDialog
          preset={{ dimension: dimension.id }}
          onClose={id => {
            setAdding(false);
            if (id) go('fit', id);
          }}
        />
      ) : null}
    </Line>
  );
}

/** Readings that this part does not need now: nothing is lost, and the reason is given. */
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
