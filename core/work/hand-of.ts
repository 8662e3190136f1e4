import type { History } from '../job/history';

/** Who judged a job last, as they called themselves; empty where nobody said. */
export const handOf = (history: Pick<History, 'tries'>): string =>
  history.tries.findLast(t => t.voided === null && t.by !== '')?.by ?? '';
