import type { JobView } from '../../contract/jobs';
import type { Rack, RackJob } from '../../contract/rack';
import type { Workshop } from '../../core/job/workshop';
import { thumbnailOf } from '../../core/shape/drawing/thumbnail';
import { Work } from '../../core/work/work';
import type { Database } from '../store/database';
import { readWorkshop } from '../workshop/repository';
import { readJob, readJobStamps, UnreadableJob } from './repository';

/** The rack, each tag worked out again only when its job or the workshop has changed. */
export class RackReader {
  private readonly tags = new Map<string, { stamp: string; tag: RackJob }>();

  async read(db: Database): Promise<Rack> {
    const { workshop, revision } = await readWorkshop(db);
    const jobs: RackJob[] = [];
    const unreadable: Rack['unreadable'] = [];
    for (const { id, stamp, number, title } of await readJobStamps(db)) {
      const known = this.tags.get(id);
      const now = `${stamp} ${revision}`;
      if (known?.stamp === now) {
        jobs.push(known.tag);
        continue;
      }
      const job = await readJob(db, id).catch((error: unknown) => {
        if (error instanceof UnreadableJob) return error;
        throw error;
      });
      if (job instanceof UnreadableJob) {
        unreadable.push({ id, number, title, why: job.why });
        continue;
      }
      const tag = rackJob(job, workshop);
      this.tags.set(id, { stamp: now, tag });
      jobs.push(tag);
    }
    return { workshop: workshop.name, jobs, unreadable };
  }
}

/** A job as its tag; worked out from the document, so it is never behind. */
function rackJob(job: JobView, workshop: Workshop): RackJob {
  const work = new Work(job.document, workshop, job.history);
  const { overview } = work;
  return {
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
    thumbnail: thumbnailOf(work.part(overview.partId).drawing),
  };
}
