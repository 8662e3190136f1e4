import type { Router } from 'express';
import { writeDrawingDxf } from '../../core/files/drawing-dxf';
import { writeDrawingSvg } from '../../core/files/drawing-svg';
import { readingsToCsv } from '../../core/files/readings-csv';
import type { DrawDimension } from '../../core/shape/drawing/drawing';
import { type PartWork, Work } from '../../core/work/work';
import type { App } from '../context';
import { HttpError } from '../errors';
import { readJob } from '../jobs/repository';
import { readWorkshop } from '../workshop/repository';
import { drawingPdf, sheetPdf } from './pdf';

const DRAWING_TYPES = { svg: 'image/svg+xml', dxf: 'image/vnd.dxf', pdf: 'application/pdf' };

/** What is taken away on paper or to a spreadsheet. */
export function addSheetRoutes(router: Router, { store }: App): void {
  router.get('/:id/sheet.pdf', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const { workshop } = await readWorkshop(store.db);
    const { sheet } = new Work(job.document, workshop, job.history);
    const bytes = await sheetPdf(sheet, new Date(job.updatedAt));
    res.set({
      'content-type': 'application/pdf',
      'content-disposition': `attachment; filename="sagoma-job-${job.number}-sheet.pdf"`,
      'cache-control': 'no-store',
    });
    res.end(bytes);
  });

  router.get('/:id/drawing.:kind', async (req, res) => {
    const { kind } = req.params;
    const type = DRAWING_TYPES[kind as keyof typeof DRAWING_TYPES];
    if (!type) throw new HttpError(400, 'bad-input', 'The drawing comes as svg, dxf or pdf.');
    const job = await readJob(store.db, req.params.id);
    const { workshop } = await readWorkshop(store.db);
    const work = partAsked(new Work(job.document, workshop, job.history), req.query.part);
    const { drawing } = work;
    const valueFor = (d: DrawDimension) => work.drawnSize(d).toFixed(2);
    const title = `${job.document.title}: ${work.part.name}`;
    res.set({
      'content-type': type,
      'content-disposition': `attachment; filename="sagoma-job-${job.number}-drawing.${kind}"`,
      'cache-control': 'no-store',
    });
    if (kind === 'svg') res.end(writeDrawingSvg(drawing, title, valueFor));
    else if (kind === 'dxf') res.end(writeDrawingDxf(drawing, valueFor));
    else {
      const values = Object.fromEntries(drawing.dimensions.map(d => [d.key, valueFor(d)]));
      res.end(await drawingPdf(title, drawing, values, new Date(job.updatedAt)));
    }
  });

  router.get('/:id/readings.csv', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const { workshop } = await readWorkshop(store.db);
    res.set({
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="sagoma-job-${job.number}-readings.csv"`,
      'cache-control': 'no-store',
    });
    // The mark tells a spreadsheet that it is UTF-8.
    res.end(`\uFEFF${readingsToCsv(job.document, workshop.instruments)}`);
  });
}

/** The part that was asked for; a job of one part needs no asking. @throws HttpError */
function partAsked(work: Work, id: unknown): PartWork {
  const [only, ...more] = work.parts;
  if (id === undefined && only && more.length === 0) return only;
  if (!work.document.parts.some(p => p.id === id))
    throw new HttpError(
      400,
      'bad-input',
      `Say of which part: ${work.document.parts.map(p => p.id).join(', ')}.`,
    );
  return work.part(String(id));
}
