import { addDays, differenceInCalendarDays, parseISO } from 'date-fns';
import type { Brief } from '../job/document';
import { counting, type History, type Print, type Version } from '../job/history';
import { FAILED_IN_SERVICE, type Look, type Looked } from '../job/history/look';
import { wholePrints } from './outcome';
import type { ResolvedPart } from './resolved';

/** A piece that failed in service: its design counts as failed until it is changed. */
export interface FailedPiece {
  look: Look;
  print: Print;
  version: Version;
  /** How long it served, days; null where its start is not known. */
  days: number | null;
  /** Whether a version was made since. */
  mended: boolean;
}

/** The last failure of a part in service; null while everything that was looked at holds. */
export function failedPiece(history: History, since: string | null): FailedPiece | null {
  const { looks, prints, versions } = counting(history);
  const look = looks.findLast(l => FAILED_IN_SERVICE.includes(l.found));
  const print = prints.find(p => p.id === look?.printId);
  const version = versions.find(v => v.id === print?.versionId);
  if (!look || !print || !version) return null;
  // Somebody looked at the same piece again and found that it holds after all.
  const after = looks.findLast(l => l.printId === look.printId && l.piece === look.piece);
  if (after && after.found === 'holds') return null;
  const from = since && since < look.at ? since : print.at;
  return {
    look,
    print,
    version,
    days: differenceInCalendarDays(parseISO(look.at), parseISO(from)),
    mended: versions.some(v => v.at > look.at),
  };
}

/** Pieces that came out right, and how many of them no longer serve. */
export interface Pieces {
  right: number;
  gone: number;
}

/** A piece with this finding cannot be put on. */
const GONE: readonly Looked[] = [...FAILED_IN_SERVICE, 'worn', 'taken-off'];

/** The number of pieces of prints that sat right, or were put right by hand. The last look at each counts. */
export function piecesOf(history: History): Pieces {
  const right = wholePrints(counting(history)).filter(p => p.outcome?.right || p.outcome?.saved);
  const { looks } = counting(history);
  const pieces = right.flatMap(({ print }) =>
    Array.from({ length: print.pieces }, (_, i) =>
      looks.findLast(l => l.printId === print.id && l.piece === i + 1),
    ),
  );
  return {
    right: pieces.length,
    gone: pieces.filter(look => look && GONE.includes(look.found)).length,
  };
}

/** Days in service until the first look, then between looks. Common practice, no source. */
const LOOK_AFTER: Record<NonNullable<Brief['ifItBreaks']>, readonly [first: number[], then: number]> = {
  nuisance: [[14, 90], 365],
  damage: [[3, 14, 60], 90],
  injury: [[1, 7], 30],
};

/**
 * When somebody should look at it again: as the maker said, else by the consequence of a failure. Null while nothing is
 * in service, or the part in service has failed.
 */
export function lookAgainAt({
  document,
  history,
}: Pick<ResolvedPart, 'document' | 'history'>): string | null {
  const { since, lookAt } = document.service;
  if (since === null) return null;
  const failed = failedPiece(history, since);
  if (failed && !failed.mended) return null;
  const last = counting(history).looks.at(-1)?.at ?? '';
  const notes = document.service.notes.at(-1)?.at ?? '';
  const looked = [since, last, notes].sort().at(-1)!;
  if (lookAt && lookAt > looked) return lookAt;
  const [first, then] = LOOK_AFTER[document.brief.ifItBreaks ?? 'nuisance'];
  const begun = parseISO(since);
  const passed = differenceInCalendarDays(parseISO(looked), begun);
  const day = first.find(d => d > passed);
  return (day === undefined ? addDays(parseISO(looked), then) : addDays(begun, day)).toISOString();
}

/** What to look for, by how it holds and what it touches. Common practice, no source. */
export function lookFor({
  document,
  ledger,
  material,
  part,
}: Pick<ResolvedPart, 'document' | 'ledger' | 'material' | 'part'>): string[] {
  const { brief } = document;
  const wants = new Set(ledger.mates.map(m => m.mate.want.name));
  const found: string[] = [];
  if (wants.has('stretch') || wants.has('click'))
    found.push('whitening or cracks where it stretches or clicks, and whether it still grips');
  if (wants.has('press') || wants.has('snug') || wants.has('jam'))
    found.push('whether it has worked loose: plastics creep under a steady press');
  if (wants.has('screw') || wants.has('insert') || wants.has('bolt'))
    found.push('screws that have lost their hold, and cracks around them');
  if (wants.has('glue') || wants.has('tape') || wants.has('seal'))
    found.push('a joint that lets go at its edge');
  if (part.loads.length > 0 || brief.loads.length > 0)
    found.push('cracks at inner corners and along the layers, where the load goes');
  if (brief.hottestC !== null && brief.hottestC > material.softensC - 25)
    found.push('whether it sags or bows: it gets nearly as hot as its plastic bears');
  if (brief.outdoors) found.push('a chalky, brittle surface: sun and frost');
  if (brief.mustHold.length > 0) found.push(`whether it still holds ${brief.mustHold.join(' and ')}`);
  return found.length > 0 ? found : ['wear where it rubs, and cracks'];
}
