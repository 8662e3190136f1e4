import type { JobView } from '../../contract/jobs';
import type { Rack, RackJob } from '../../contract/rack';
import { overviewOf } from '../../core/job/guidance';
import { resolvePart } from '../../core/job/resolve';
import type { Workshop } from '../../core/job/workshop';
import type { DrawShape } from '../../core/shape/drawing/drawing';
import type { Database } from '../store/database';
import { readWorkshop } from '../workshop/repository';
import { readJob, readJobStamps } from './repository';

/** The rack, each tag worked out again only when its job or the workshop has changed. */
export class RackReader {
  private readonly tags = new Map<string, { stamp: string; tag: RackJob }>();

  async read(db: Database): Promise<Rack> {
    const { workshop, revision } = await readWorkshop(db);
    const jobs: RackJob[] = [];
    for (const { id, stamp } of await readJobStamps(db)) {
      const known = this.tags.get(id);
      const now = `${stamp} ${revision}`;
      if (known?.stamp === now) {
        jobs.push(known.tag);
        continue;
      }
      const tag = rackJob(await readJob(db, id), workshop);
      this.tags.set(id, { stamp: now, tag });
      jobs.push(tag);
    }
    return { jobs };
  }
}

/** A job as its tag; worked out from the document, so it is never behind. */
function rackJob(job: JobView, workshop: Workshop): RackJob {
  const resolved = resolvePart(job.document, job.document.parts[0]!.id, workshop, job.history);
  const overview = overviewOf(job.document, resolved, job.history);
  const drawing = resolved.recipe.drawing(resolved.parameters);
  const [minX, minY, maxX, maxY] = frameOfShapes(drawing.shapes);
  const margin = 0.06 * Math.max(maxX - minX, maxY - minY);
  const paths = (ink: DrawShape['ink']) => drawing.shapes.filter(s => s.ink === ink).map(pathOf);
  return {
    id: job.id,
    number: job.number,
    title: job.document.title,
    object: job.document.object.name,
    updatedAt: job.updatedAt,
    state: overview.state,
    next: overview.next,
    marks: overview.marks,
    inService: job.document.service.since !== null,
    thumbnail: {
      viewBox: [minX - margin, -maxY - margin, maxX - minX + 2 * margin, maxY - minY + 2 * margin]
        .map(x => x.toFixed(2))
        .join(' '),
      cut: paths('cut'),
      mate: paths('mate'),
      edge: paths('edge'),
    },
  };
}

/** SVG's y runs down. */
const pathOf = (shape: DrawShape) =>
  `M${shape.points.map(([x, y]) => `${x.toFixed(2)} ${(-y).toFixed(2)}`).join('L')}${shape.closed ? 'Z' : ''}`;

function frameOfShapes(shapes: readonly DrawShape[]): [number, number, number, number] {
  const points = shapes.filter(s => s.ink === 'cut' || s.ink === 'edge').flatMap(s => s.points);
  const xs = points.map(p => p[0]);
  const ys = points.map(p => p[1]);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}
