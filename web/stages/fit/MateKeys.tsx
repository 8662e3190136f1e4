import { useState } from 'react';
import { isFit, type Mate, numberOfMate } from '../../../core/job/document';
import { formatPlain } from '../../../core/quantity/format';
import { isAngleOf } from '../../../core/shape/own-mates';
import { useBench } from '../../job/bench-context';
import { CommittedField } from '../../ui/CommittedField';
import { Button } from '../../ui/controls';
import { Notice, Row } from '../../ui/layout';

/** What can be done with any mate: rename it, or drop it. */
export function MateKeys({ mate }: { mate: Mate }) {
  const { resolved, edit } = useBench('resolved', 'edit');
  const [asking, setAsking] = useState(false);
  const { recipe, parameters } = resolved;
  const number = numberOfMate(mate, recipe.mates);
  const spec = recipe.parameters.find(p => p.name === number);
  const now = number === undefined ? undefined : parameters[number];
  const isAngle = number !== undefined && isAngleOf(recipe.parameters, number);
  const drop = () =>
    void edit({
      kind: 'drop-mate',
      mateId: mate.id,
      stays: typeof now === 'number' ? { text: formatPlain(now, 3), unit: isAngle ? 'deg' : 'mm' } : null,
    });
  return (
    <Row $wrap $gap={14} style={{ margin: '16px 0', alignItems: 'flex-end' }}>
      <div style={{ flex: '0 1 280px' }}>
        <CommittedField
          label="It is called"
          value={mate.name}
          check={text =>
            text.trim() === ''
              ? 'Give it a name.'
              : text.trim().length > 120
                ? 'At most 120 characters.'
                : undefined
          }
          onCommit={text => void edit({ kind: 'change-mate', mateId: mate.id, name: text.trim() })}
        />
      </div>
      {asking ? (
        <Notice
          level="note"
          action={
            <Row $gap={6}>
              <Button $small onPress={drop}>
                Drop it
              </Button>
              <Button $small $look="quiet" onPress={() => setAsking(false)}>
                Keep it
              </Button>
            </Row>
          }
        >
          Nothing is asked or said about it any more
          {typeof now === 'number'
            ? `; “${spec?.label}” stays ${formatPlain(now, 2)}${isAngle ? '°' : ' mm'}`
            : ''}
          . {isFit(mate) && !mate.own ? 'It can be brought back.' : 'Undo brings it back.'}
        </Notice>
      ) : (
        <Button $small $look="quiet" onPress={() => setAsking(true)}>
          It need not fit…
        </Button>
      )}
    </Row>
  );
}

/** Dropped surfaces of the recipe: one press, and they must fit again. */
export function Dropped() {
  const { resolved, edit } = useBench('resolved', 'edit');
  const { part, recipe, parameters, document } = resolved;
  const gone = recipe.mates.filter(
    spec =>
      spec.active(parameters) &&
      !document.mates.some(m => m.ours.part === part.id && m.ours.surface === spec.id),
  );
  if (gone.length === 0) return null;
  return (
    <Row $wrap $gap={8} style={{ margin: '10px 0' }}>
      <span className="soft">Need not fit:</span>
      {gone.map(spec => (
        <Button
          key={spec.id}
          $small
          $look="quiet"
          onPress={() => void edit({ kind: 'propose-mate', partId: part.id, surface: spec.id })}
        >
          {spec.name}: make it fit again
        </Button>
      ))}
    </Row>
  );
}
