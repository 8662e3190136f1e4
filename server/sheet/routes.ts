import type { Router } from 'express';
import { readingsToCsv } from '../../core/files/readings-csv';
import { resolvePart } from '../../core/job/resolve';
import { sheetOf } from '../../core/job/sheet';
import type { App } from '../app';
import { readJob } from '../jobs/repository';
import { readWorkshop } from '../workshop/repository';
import { sheetPdf } from './pdf';

/** What is taken away on paper or to a spreadsheet. */
export function addSheetRoutes(router: Router, { store }: App): void {
  router.get('/:id/sheet.pdf', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const { workshop } = await readWorkshop(store.db);
    const resolved = resolvePart(job.document, job.document.parts[0]!.id, workshop, job.history);
    const bytes = await sheetPdf(sheetOf(job.document, resolved, workshop), new Date(job.updatedAt));
    res.set({
      'content-type': 'application/pdf',
      'content-disposition': `attachment; filename="sagoma-job-${job.number}-sheet.pdf"`,
      'cache-control': 'no-store',
    });
    res.end(bytes);
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
