import { useEffect, useState } from 'react';
import type { Part } from '../../../core/job/document';
import type { Version } from '../../../core/job/history';
import type { Finding } from '../../../core/shape/findings/finding';
import type { Parameters } from '../../../core/shape/recipes/parameters';
import { brokenKernel, kernelLine } from '../../solid/kernel-worker';
import type { ShownChange } from '../../workers/solid-protocol';

export interface Comparison {
  grown: ShownChange | null;
  shrunk: ShownChange | null;
}
interface State {
  key: string;
  change: Comparison | null;
  failed: Finding[] | null;
}

/** What grew and shrank since a version; null when not asked for, or while it is computed. */
export function useCompare(
  { recipe, additions }: Pick<Part, 'recipe' | 'additions'>,
  parameters: Parameters,
  version: Version | null,
): { change: Comparison | null; failed: Finding[] | null; busy: boolean } {
  const key = version ? JSON.stringify([recipe, additions, parameters, version.id]) : '';
  const [state, setState] = useState<State>({ key: '', change: null, failed: null });
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all that it depends on
  useEffect(() => {
    if (!version) return;
    let current = true;
    const part = { recipe, additions, parameters };
    const before = {
      recipe: version.recipe,
      additions: version.additions,
      parameters: version.parameters,
    };
    void kernelLine('compare')
      .ask(api => api.compare(part, before))
      .catch((error: Error) => ({ ok: false as const, findings: brokenKernel(error) }))
      .then(answer => {
        if (!current || !answer) return;
        if (answer.ok)
          setState({ key, change: { grown: answer.grown, shrunk: answer.shrunk }, failed: null });
        else setState({ key, change: null, failed: answer.findings });
      });
    return () => {
      current = false;
    };
  }, [key]);
  // Results for other numbers are never shown.
  const fresh = state.key === key && key !== '';
  return {
    change: fresh ? state.change : null,
    failed: fresh ? state.failed : null,
    busy: key !== '' && !fresh,
  };
}
