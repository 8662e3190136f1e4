import { counting, type History } from '.';

/** The current note on a version; empty where there is none. */
export const remarkOf = (history: History, versionId: string): string =>
  counting(history).remarks.findLast(r => r.versionId === versionId)?.text ?? '';
