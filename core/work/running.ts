import { counting, type History, type Start, type Version } from '../job/history';

/** A print that is on a printer, and nobody said yet how it came out. */
export interface Running {
  start: Start;
  version: Version;
  /** When it should be ready; null where nobody knows what it takes. */
  ready: string | null;
}

/** The oldest first. */
export function runningPrints(history: History): Running[] {
  const now = counting(history);
  // A print that does not count any more has come off the printer all the same.
  const ended = new Set(history.prints.map(p => p.start));
  return now.starts
    .filter(s => !ended.has(s.id))
    .sort((a, b) => a.at.localeCompare(b.at))
    .map(start => ({
      start,
      version: now.versions.find(v => v.id === start.versionId)!,
      ready:
        start.expectedHours === null
          ? null
          : new Date(Date.parse(start.at) + 3600e3 * start.expectedHours).toISOString(),
    }));
}

type OfVersion = Pick<Start, 'versionId' | 'hand' | 'slice'>;

/** The one that a print ends by being recorded: of its version, its hand and its slice, the oldest. */
export const endedBy = (history: History, print: OfVersion): Start | null =>
  runningPrints(history)
    .map(r => r.start)
    .find(
      s =>
        s.versionId === print.versionId &&
        s.hand === print.hand &&
        [...(s.slice ?? [])].sort().join() === [...(print.slice ?? [])].sort().join(),
    ) ?? null;

/** How long it was on the printer, where somebody said when it came off; hours. */
export const hoursBetween = (start: Pick<Start, 'at'> | null, finished: string | null): number | null => {
  if (!start || finished === null) return null;
  const hours = (Date.parse(finished) - Date.parse(start.at)) / 3600e3;
  return hours > 0 ? Number(hours.toFixed(2)) : null;
};
