import { useRef, useState } from 'react';
import type { ParameterSpec } from '../../../../core/shape/recipes/recipe';
import { useBench } from '../../../job/bench-context';

/** A written outline or list of holes: every keystroke shows on the solid, leaving the field keeps it. */
export function useWritten(spec: ParameterSpec) {
  const { resolved, edit, draft } = useBench();
  const { part, expressions, problems } = resolved;
  const kept = expressions[spec.name]?.text ?? '';
  const [typed, setTyped] = useState<string | null>(null);
  const problem = problems[spec.name];
  // Two cells may be left faster than the page draws: what was typed last is what counts.
  const latest = useRef({ text: kept, problem });
  latest.current = { text: typed ?? kept, problem };

  const type = (text: string) => {
    latest.current = { text, problem: undefined };
    setTyped(text);
    draft(spec.name, { text, unit: 'mm' });
  };
  const keep = (text: string) => {
    setTyped(null);
    draft(spec.name, null);
    void edit({ kind: 'parameter', partId: part.id, name: spec.name, expression: { text, unit: 'mm' } });
  };
  return {
    text: typed ?? kept,
    problem,
    type,
    /** What cannot be understood stays as it was typed, with its problem. */
    leave: () => {
      if (typed !== null && !latest.current.problem) keep(latest.current.text);
    },
    /** A whole step at once: a corner more, a hole less. */
    put: (text: string) => {
      latest.current = { text, problem: undefined };
      keep(text);
    },
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
