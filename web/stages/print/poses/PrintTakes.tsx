import { takesOf } from '../../../../core/print/of-printer';
import { formatHours, formatPlain } from '../../../../core/quantity/format';
import { usePace } from '../../../api/use-pace';
import { useBench } from '../../../job/bench-context';
import { asPlaced, usePoses } from './use-poses';

/** Typing has priority: the time and plastic of a print are worked out after this pause, ms. */
const STILL = 1500;

/** Time and plastic of printing the current part; nothing while unknown. @param ready its checks are done */
export function PrintTakes({ ready }: { ready: boolean }) {
  const { resolved } = useBench('resolved');
  const { part, printer, material } = resolved;
  const { found, busy } = usePoses(ready ? STILL : null);
  const pace = usePace(printer);
  const { estimate } = asPlaced(found, part.pose);
  if (!estimate) return null;
  const { hours, grams } = takesOf(estimate, pace, material);
  return (
    <span style={{ opacity: busy ? 0.5 : 1 }} data-testid="takes">
      {' '}
      · prints in {formatHours(hours)}, {formatPlain(grams, 1)} g
    </span>
  );
}
