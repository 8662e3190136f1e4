import { useState } from 'react';
import type { Scan } from '../../core/job/scans';
import { useBench } from '../job/bench-context';
import { followEdits, followedBy } from './take-surface';
import type { OpenScan } from './use-scan';

/** Makes a part follow one of the job's scans: the surface becomes a body of the job, its sizes readings. */
export function useFollow() {
  const { job, document, resolved, edit } = useBench('job', 'document', 'resolved', 'edit');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const spec = followedBy(resolved.recipe);
  /** @param ask the scan's worker, where the scan is open on the page */
  const follow = async (scan: Scan, ask?: OpenScan['ask']): Promise<boolean> => {
    if (!spec) return false;
    setBusy(true);
    setProblem(null);
    try {
      const { lies, turn } = resolved.parameters;
      const changes = await followEdits(job.id, document, scan, {
        lies: String(lies),
        turn: Number(turn),
        partId: resolved.part.id,
        spec,
        reads: ask && (asked => ask(api => api.surface(asked))),
      });
      for (const change of changes) if (!(await edit(change))) return false;
      return changes.length > 0;
    } catch (error) {
      setProblem((error as Error).message);
      return false;
    } finally {
      setBusy(false);
    }
  };
  return { busy, problem, follow, spec };
}
