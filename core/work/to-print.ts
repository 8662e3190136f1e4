import type { JobDocument } from '../job/document';
import { counting, type History } from '../job/history';
import { pieceWords } from '../job/history/print';
import { countedPrints, wholePrints } from './outcome';
import type { ResolvedPart } from './resolved';
import { runningPrints } from './running';
import { versionWords } from './show';

/** A version that waits for a printer. */
export interface ToPrint {
  partId: string;
  versionId: string;
  /** “version 2 of the lid”. */
  words: string;
  printerId: string | null;
  materialId: string | null;
  pieces: number;
}

/**
 * The prints of a part that wait for a printer: its newest version while no print of it came out, and the rest of a
 * batch once one sat right. A part that waits for a try does not wait for a printer.
 */
export function toPrint({ history, document, part }: ResolvedPart): ToPrint | null {
  const now = counting(history);
  const version = now.versions.at(-1);
  if (!version) return null;
  const own = countedPrints(now).filter(p => p.version.id === version.id);
  if (own.some(p => p.outcome === null)) return null;
  const whole = wholePrints(now).filter(p => p.version.id === version.id);
  const wanted = document.brief.quantity ?? 1;
  const made = whole.reduce((sum, p) => sum + p.print.pieces, 0);
  const running = runningPrints(history)
    .filter(r => r.version.id === version.id && r.start.slice === null)
    .reduce((sum, r) => sum + r.start.pieces, 0);
  const pieces = (whole.length === 0 ? 1 : whole.some(p => p.outcome?.right) ? wanted - made : 0) - running;
  if (pieces <= 0) return null;
  const { id: versionId, printerId, materialId } = version;
  return {
    partId: part.id,
    versionId,
    words: versionWords(version.number, part.id, document),
    printerId,
    materialId,
    pieces,
  };
}

/** A test piece that waits for a printer: a ladder that was not tried, or a gauge that was not measured. */
export interface AidToPrint {
  kind: 'ladder' | 'gauge';
  id: string;
  /** “ladder of 5 rings, Bore”. */
  words: string;
  printerId: string | null;
  materialId: string | null;
}

/** Of all parts of a job. */
export function aidsToPrint(history: History, { mates }: Pick<JobDocument, 'mates'>): AidToPrint[] {
  const now = counting(history);
  const of = (mateId: string) => mates.find(m => m.id === mateId)?.name ?? 'a surface';
  const aid = (kind: AidToPrint['kind'], row: Omit<AidToPrint, 'kind' | 'words'>, words: string) => ({
    kind,
    id: row.id,
    words,
    printerId: row.printerId,
    materialId: row.materialId,
  });
  return [
    ...now.ladders
      .filter(l => !now.ladderTries.some(t => t.ladderId === l.id))
      .map(l => aid('ladder', l, `ladder of ${l.sizes.length} rings, ${of(l.mateId)}`)),
    ...now.gauges
      .filter(g => !now.gaugeSizes.some(s => s.gaugeId === g.id))
      .map(g => aid('gauge', g, `gauge of the object, ${of(g.mateId)}`)),
  ];
}

/** What is on a printer now. */
export interface OnPrinter {
  partId: string;
  startId: string;
  /** “version 2 of the lid”, “the other hand of version 1”. */
  words: string;
  printerId: string | null;
  pieces: number;
  since: string;
  ready: string | null;
}

/** Of all parts of a job. */
export const onPrinter = (history: History, document: JobDocument): OnPrinter[] =>
  runningPrints(history).map(({ start, version, ready }) => ({
    partId: version.partId,
    startId: start.id,
    words: `${pieceWords(start)}${versionWords(version.number, version.partId, document)}`,
    printerId: version.printerId,
    pieces: start.pieces,
    since: start.at,
    ready,
  }));
