import { ulid } from 'ulid';
import type { JobView } from '../../contract/jobs';
import type { Ladder } from '../../core/job/history';
import type { Workshop } from '../../core/job/workshop';
import type { Evidence } from '../../core/learn/lessons';
import { hasLadder, ladderSizes } from '../../core/print/ladder';
import { Work } from '../../core/work/work';
import { HttpError, notFound } from '../errors';

/** A ladder around the ledger's current number; its sizes are fixed from here on. */
export function prepareLadder(
  job: JobView,
  workshop: Workshop,
  lessons: readonly Evidence[],
  partId: string,
  mateId: string,
): Ladder {
  const { ledger, printer, material } = Work.of(job, workshop, lessons).part(partId);
  if (ledger.unread.some(m => m.id === mateId))
    throw new HttpError(422, 'not-measured', 'It is not measured yet: a ladder would be about a guess.');
  const own = ledger.mates.find(m => m.mate.id === mateId);
  if (!own) throw notFound('That mate');
  if (!hasLadder(own, printer.bed))
    throw new HttpError(422, 'no-ladder', 'Short rings cannot stand in for this one: print the part.');
  return {
    id: ulid(),
    at: new Date().toISOString(),
    voided: null,
    mateId,
    partId,
    printerId: printer.id,
    materialId: material.id,
    want: own.mate.want,
    sizes: ladderSizes(own),
  };
}
