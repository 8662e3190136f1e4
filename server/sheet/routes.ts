import type { Router } from 'express';
import { readingsToCsv } from '../../core/files/readings-csv';
import type { JobDocument } from '../../core/job/document';
import type { App } from '../context';
import { HttpError } from '../errors';
import { readJob } from '../jobs/repository';
import { readWorkshop } from '../workshop/repository';
import { DRAWING_TYPES, type DrawingKind } from './paper';

/** Paper and spreadsheets to take away. */
export function addSheetRoutes(router: Router, { store, reader, rack }: App): void {
  const paper = { sheet: 'drawSheet', 'hand-over': 'drawHandOver' } as const;
  for (const [name, task] of Object.entries(paper))
    router.get(`/:id/${name}.pdf`, async (req, res) => {
      const job = await readJob(store.db, req.params.id as string);
      const { workshop } = await readWorkshop(store.db);
      const { file } = await reader.run(task, { job, workshop, lessons: await rack.lessons(job.id) });
      res.set({
        'content-type': 'application/pdf',
        'content-disposition': `attachment; filename="sagoma-job-${job.number}-${name}.pdf"`,
        'cache-control': 'no-store',
      });
      res.end(file);
    });

  router.get('/:id/drawing.:kind', async (req, res) => {
    const { kind } = req.params;
    const type = Object.hasOwn(DRAWING_TYPES, kind) && DRAWING_TYPES[kind as DrawingKind];
    if (!type) throw new HttpError(400, 'bad-input', 'The drawing comes as svg, dxf or pdf.');
    const job = await readJob(store.db, req.params.id);
    const { workshop } = await readWorkshop(store.db);
    const partId = partAsked(job.document, req.query.part);
    const { file } = await reader.run('drawPart', {
      job,
      workshop,
      lessons: await rack.lessons(job.id),
      partId,
      kind: kind as DrawingKind,
    });
    res.set({
      'content-type': type,
      'content-disposition': `attachment; filename="sagoma-job-${job.number}-drawing.${kind}"`,
      'cache-control': 'no-store',
    });
    res.end(file);
  });

  router.get('/:id/readings.csv', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const { workshop } = await readWorkshop(store.db);
    res.set({
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="sagoma-job-${job.number}-readings.csv"`,
      'cache-control': 'no-store',
    });
    // The byte order mark tells a spreadsheet that it is UTF-8.
    res.end(`\uFEFF${readingsToCsv(job.document, workshop.instruments)}`);
  });
}

/** The requested part; for a job of one part it need not be named. @throws HttpError */
function partAsked({ parts }: JobDocument, id: unknown): string {
  const [only, ...more] = parts;
  if (id === undefined && only && more.length === 0) return only.id;
  const part = parts.find(p => p.id === id);
  if (!part) throw new HttpError(400, 'bad-input', `Say of which part: ${parts.map(p => p.id).join(', ')}.`);
  return part.id;
}
