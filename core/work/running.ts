import { counting, type History, type Start, type Version } from '../job/history';

/** A print that is on a printer and has no outcome yet. */
export interface Running {
  start: Start;
  version: Version;
  /** When it should be ready; null where its duration is not known. */
  ready: string | null;
}

/** The oldest first. */
export function runningPrints(history: History): Running[] {
  const now = counting(history);
  // A print that was voided has come off the printer all the same.
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

/** The started print that ends when a print is recorded: the oldest of the same version, hand and slice. */
export const endedBy = (history: History, print: OfVersion): Start | null =>
  runningPrints(history)
    .map(r => r.start)
    .find(
      s =>
        s.versionId === print.versionId &&
        s.hand === print.hand &&
        [...(s.slice ?? [])].sort().join() === [...(print.slice ?? [])].sort().join(),
    ) ?? null;

/** How long it was on the printer, where the time it came off is known; hours. */
export const hoursBetween = (start: Pick<Start, 'at'> | null, finished: string | null): number | null => {
  if (!start || finished === null) return null;
  const hours = (Date.parse(finished) - Date.parse(start.at)) / 3600e3;
  return hours > 0 ? Number(hours.toFixed(2)) : null;
};
