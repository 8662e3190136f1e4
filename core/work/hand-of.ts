import { counting, type History } from '../job/history';

/** The name of whoever judged the job last, as they gave it; empty where none was given. */
export const handOf = (history: History): string =>
  counting(history).tries.findLast(t => t.by !== '')?.by ?? '';
