import { ulid } from 'ulid';
import type { JobView } from '../../contract/jobs';
import type { Print } from '../../core/job/history';
import { counting } from '../../core/job/history';
import type { Workshop } from '../../core/job/workshop';
import { printEstimate } from '../../core/print/estimate';
import { HttpError, notFound } from '../errors';
import { filesOf, type Makers } from './versions';

export interface PrintWish {
  versionId: string;
  pieces: number;
  hours: number | null;
  grams: number | null;
  cost: number | null;
  note: string;
  failed: Print['failed'];
}

/** A print row: nothing is built for it, its files are those of its version. */
export function preparePrint(job: JobView, wish: PrintWish, practice: boolean, workshop: Workshop): Print {
  const { versions } = counting(job.history);
  const version = versions.find(v => v.id === wish.versionId);
  if (!version) throw notFound('That version');
  const material = workshop.materials.find(m => m.id === version.materialId) ?? workshop.materials[0]!;
  const guess = printEstimate(wish.pieces * version.volume, material);
  const before = job.history.prints.find(p => p.versionId === version.id);
  return {
    id: ulid(),
    at: new Date().toISOString(),
    voided: null,
    versionId: version.id,
    number: job.history.prints.length + 1,
    pieces: wish.pieces,
    hours: wish.hours ?? guess.hours,
    grams: wish.grams ?? guess.grams,
    cost:
      wish.cost ??
      (wish.grams !== null ? Number(((guess.cost / guess.grams) * wish.grams).toFixed(2)) : guess.cost),
    note: wish.note,
    failed: wish.failed,
    practice,
    // A version from before its files were kept has them with its first print.
    files: Object.keys(version.files).length > 0 ? version.files : (before?.files ?? {}),
  };
}

/** Files of a version from before they were kept with it: made with its first print, or none where they cannot be. */
export async function printFiles(
  job: JobView,
  print: Print,
  workshop: Workshop,
  makers: Makers,
): Promise<Print['files']> {
  const version = job.history.versions.find(v => v.id === print.versionId);
  if (!version || Object.keys(print.files).length > 0) return print.files;
  try {
    return (await filesOf(job, version, workshop, makers, { owner: job.id })).files;
  } catch (error) {
    // It is printed: record it even if the solid cannot be built today.
    if (error instanceof HttpError) return {};
    throw error;
  }
}
