import { ulid } from 'ulid';
import type { JobView } from '../../contract/jobs';
import type { Gauge } from '../../core/job/history';
import type { Workshop } from '../../core/job/workshop';
import type { Evidence } from '../../core/learn/lessons';
import { fitsBed, gaugeAsked, hasGauge } from '../../core/print/gauge';
import { Work } from '../../core/work/work';
import { HttpError, notFound } from '../errors';

/** A stand-in for the object, drawn at the size that was read. */
export function prepareGauge(
  job: JobView,
  workshop: Workshop,
  lessons: readonly Evidence[],
  partId: string,
  mateId: string,
): Gauge {
  const { ledger, printer, material, recipe } = Work.of(job, workshop, lessons).part(partId);
  if (ledger.unread.some(m => m.id === mateId))
    throw new HttpError(422, 'not-measured', 'It is not measured yet: a gauge would be a guess.');
  const own = ledger.mates.find(m => m.mate.id === mateId);
  if (!own) throw notFound('That mate');
  if (!hasGauge(own))
    throw new HttpError(422, 'no-gauge', 'Nothing printed can stand in for that: it gives, screws or hooks.');
  const asked = gaugeAsked(own, recipe.mates);
  if (!fitsBed(asked, printer.bed))
    throw new HttpError(422, 'no-gauge', `A gauge of ${asked.size} mm does not fit on ${printer.name}.`);
  return {
    id: ulid(),
    at: new Date().toISOString(),
    voided: null,
    mateId,
    partId,
    printerId: printer.id,
    materialId: material.id,
    side: asked.side,
    form: asked.form,
    drawn: asked.size,
  };
}
