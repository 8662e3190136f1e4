import type { Attempt } from '../../../core/print/attempt';
import { useBench } from '../../job/bench-context';

/** Applies a change that was tried on the solid: its additions and numbers, each an edit that can be undone. */
export function useAttempt(): (attempt: Attempt) => Promise<void> {
  const { resolved, edit, say } = useBench('resolved', 'edit', 'say');
  const partId = resolved.part.id;
  const written = (text: string) => ({ text, unit: 'mm' as const });
  return async ({ additions, numbers, label }) => {
    for (const { addition, begins: texts } of additions) {
      const begins = Object.fromEntries(Object.entries(texts).map(([name, text]) => [name, written(text)]));
      if (!(await edit({ kind: 'add-addition', partId, addition, begins }))) return;
    }
    for (const [name, text] of Object.entries(numbers))
      if (!(await edit({ kind: 'parameter', partId, name, expression: written(text) }))) return;
    say(`${label}: done. It stands among the additions on Shape, and Undo takes it back.`);
  };
}
