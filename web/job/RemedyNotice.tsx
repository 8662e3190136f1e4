import type { ReactNode } from 'react';
import { ownUnit } from '../../core/quantity/units';
import type { Finding } from '../../core/shape/findings/finding';
import { Button } from '../ui/controls';
import { Notice } from '../ui/layout';
import { useBench } from './bench-context';

interface Props {
  level: Finding['level'];
  remedy?: Finding['remedy'];
  children: ReactNode;
}

/** A finding as a sentence, with the button that sets the one number which cures it. */
export function RemedyNotice({ level, remedy, children }: Props) {
  const { resolved, edit } = useBench('resolved', 'edit');
  const spec = resolved.recipe.parameters.find(p => p.name === remedy?.parameter);
  const kind = (spec?.kind === 'length' && spec.measure) || 'length';
  // A number worked out from examples is a guess: it is offered once its inputs are read.
  const guess = remedy !== undefined && Number.isFinite(Number(remedy.text)) && resolved.provisional.size > 0;
  const mend =
    remedy && !guess ? (
      <Button
        $small
        onPress={() =>
          void edit({
            kind: 'parameter',
            partId: resolved.part.id,
            name: remedy.parameter,
            expression: { text: remedy.text, unit: ownUnit(kind) },
          })
        }
      >
        {remedy.label}
      </Button>
    ) : undefined;
  return (
    <Notice level={level} action={mend}>
      {children}
      {guess ? ' A number that mends it can be given once the sizes are read.' : null}
    </Notice>
  );
}
