import { useRef, useState } from 'react';
import type { ParameterSpec } from '../../../../core/shape/recipes/parameters';
import { useBench } from '../../../job/bench-context';

/** A written outline or list of holes: every keystroke shows on the solid; leaving the field stores it. */
export function useWritten(spec: ParameterSpec) {
  const { resolved, edit, draft } = useBench('resolved', 'edit', 'draft');
  const { part, expressions, problems } = resolved;
  const kept = expressions[spec.name]?.text ?? '';
  const [typed, setTyped] = useState<string | null>(null);
  const problem = problems[spec.name];
  // Two cells may be left faster than the page renders: the last typed text counts.
  const latest = useRef({ text: kept, typed: false, problem });
  latest.current = { text: typed ?? kept, typed: typed !== null, problem };

  const type = (text: string) => {
    latest.current = { text, typed: true, problem: undefined };
    setTyped(text);
    draft(spec.name, { text, unit: 'mm' });
  };
  const keep = (text: string) => {
    latest.current = { text, typed: false, problem: undefined };
    setTyped(null);
    draft(spec.name, null);
    void edit({ kind: 'parameter', partId: part.id, name: spec.name, expression: { text, unit: 'mm' } });
  };
  return {
    text: typed ?? kept,
    problem,
    type,
    /** What cannot be understood stays as typed, with its problem. */
    leave: () => {
      if (latest.current.typed && !latest.current.problem) keep(latest.current.text);
    },
    /** A whole step at once: one corner more, one hole less. */
    put: keep,
    latest: () => latest.current.text,
    reset: part.parameters[spec.name]
      ? () => {
          setTyped(null);
          draft(spec.name, null);
          void edit({ kind: 'parameter', partId: part.id, name: spec.name, expression: null });
        }
      : undefined,
  };
}
