import { kindOf } from '../../../../core/shape/additions';
import { nameForNew } from '../../../../core/shape/additions/addition';
import { freeName } from '../../../../core/shape/additions/free-name';
import type { clearOfNeighbour } from '../../../../core/work/keep-clear';
import { useBench } from '../../../job/bench-context';

/** Adds a “Keep clear” with these initial numbers. */
export function useKeepClear() {
  const { resolved, edit, say } = useBench('resolved', 'edit', 'say');
  const { part } = resolved;
  return async (name: string, begins: ReturnType<typeof clearOfNeighbour>) => {
    const addition = {
      id: freeName(kindOf('keep-clear').short, part.additions),
      kind: 'keep-clear' as const,
      name: nameForNew(name.slice(0, 80), part.additions),
      on: true,
    };
    if (await edit({ kind: 'add-addition', partId: part.id, addition, begins }))
      say(`“${addition.name}” is among the additions now. It stays where it is if what it is for is moved.`);
  };
}
