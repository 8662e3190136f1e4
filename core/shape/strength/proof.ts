import { formatPlain } from '../../quantity/format';
import { GRAVITY } from '../../quantity/load';

/** The proof load of a part: its load times the job's margin, in words. */
export const proofLoad = (
  { kind, amount }: { kind: 'force' | 'turn'; amount: number },
  times: number,
): string =>
  kind === 'turn'
    ? `${formatPlain(amount * times, 1)} N·m`
    : `${formatPlain(amount * times, 0)} N, as much as ${formatPlain((amount * times) / GRAVITY, 1)} kg pull down`;
