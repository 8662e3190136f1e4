import { useState } from 'react';
import type { Point3 } from '../../../core/shape/vector';
import { useBench } from '../../job/bench-context';
import { kernelLine } from '../../solid/kernel-worker';
import { Button } from '../../ui/controls';
import { useAttempt } from './use-attempt';

/**
 * Offers to cut a part that is too large for the bed where it suffers least. @param weak where a load stresses it most
 */
export function SplitOffer({ weak }: { weak: readonly Point3[] }) {
  const { resolved, say } = useBench('resolved', 'say');
  const make = useAttempt();
  const [looking, setLooking] = useState(false);
  const split = async () => {
    setLooking(true);
    try {
      const { part, parameters, printer } = resolved;
      const answer = await kernelLine('split').ask(api =>
        api.split({ recipe: part.recipe, additions: part.additions, parameters }, { bed: printer.bed, weak }),
      );
      if (!answer) return;
      if (answer.ok && answer.attempt) await make(answer.attempt);
      else
        say(
          answer.ok
            ? 'No single cut makes pieces that lie on this bed: make the part shorter, split it by hand on Shape, or choose a larger printer.'
            : (answer.findings[0]?.message ?? 'The solid could not be built.'),
          'stop',
        );
    } catch (error) {
      say((error as Error).message, 'stop');
    } finally {
      setLooking(false);
    }
  };
  return (
    <Button $small isDisabled={looking} onPress={() => void split()}>
      {looking ? 'Looking for a cut…' : 'Split it where it suffers least'}
    </Button>
  );
}
