import { counting, type History } from '.';

/** What is noted of a version by now; empty where nothing is. */
export const remarkOf = (history: History, versionId: string): string =>
  counting(history).remarks.findLast(r => r.versionId === versionId)?.text ?? '';
