import type { JobView } from '../../contract/jobs';
import type { RackJob } from '../../contract/rack';
import type { Workshop } from '../../core/job/workshop';
import type { Evidence } from '../../core/learn/lessons';
import { thumbnailOf } from '../../core/shape/drawing/thumbnail';
import { taughtBy } from '../../core/work/taught';
import { aidsToPrint, onPrinter, toPrint } from '../../core/work/to-print';
import { Work } from '../../core/work/work';

/** A job's tag on the rack, worked out from the document, and what its tries teach other jobs. */
export function rackTag(
  job: JobView,
  workshop: Workshop,
  lessons: readonly Evidence[],
): { tag: RackJob; taught: Evidence[] } {
  const work = Work.of(job, workshop, lessons);
  const { overview } = work;
  const tag: RackJob = {
    id: job.id,
    number: job.number,
    title: job.document.title,
    object: job.document.object.name,
    updatedAt: job.updatedAt,
    state: overview.state,
    partId: overview.partId,
    next: overview.next,
    marks: overview.marks,
    inService: job.document.service.since !== null,
    away: job.document.away?.how ?? null,
    lookAt: overview.lookAt,
    toPrint: work.parts.flatMap(part => toPrint(part) ?? []),
    aids: aidsToPrint(job.history, job.document),
    onPrinter: onPrinter(job.history, job.document),
    thumbnail: thumbnailOf(work.part(overview.partId).drawing),
  };
  return { tag, taught: taughtBy(work, job.id) };
}
