import type express from 'express';
import type { Router } from 'express';
import { ulid } from 'ulid';
import { z } from 'zod';
import { Scan } from '../../core/job/scans';
import { MOST_BYTES } from '../../core/scan/scan-file';
import { TooLong } from '../blobs/blobs';
import type { App } from '../context';
import { HttpError, notFound } from '../errors';
import { editJob } from '../jobs/editing';
import { readDocument, readJob } from '../jobs/repository';
import { readWorkshop } from '../workshop/repository';

type Editor = (req: express.Request) => { tab: string; isOpen: (tab: string) => boolean };

/** Scans of a job's object: a file of up to hundreds of megabytes is streamed to the disk and read by a thread. */
export function addScanRoutes(router: Router, app: App, editor: Editor): void {
  const { store, blobs, events, reader } = app;

  router.post('/:id/scans', async (req, res) => {
    const id = String(req.params.id);
    const job = await readJob(store.db, id);
    const asked = z.object({ label: z.string().max(400).catch('') }).parse(req.query);
    const sha256 = await blobs
      .receive(req, MOST_BYTES, async path => {
        const { scan } = await reader.run('readScan', { path });
        if (!scan.ok) throw new HttpError(422, 'bad-scan', scan.message);
      })
      .catch(error => {
        if (error instanceof TooLong)
          throw new HttpError(
            413,
            'too-large',
            `A scan of more than ${MOST_BYTES / 1e6} MB is not taken: export it coarser.`,
          );
        throw error;
      });
    const scan: Scan = Scan.parse({
      id: ulid(),
      sha256,
      label: asked.label.trim().slice(0, 120) || `scan ${job.document.scans.length + 1}`,
      unit: 'mm',
      steps: [],
    });
    const { workshop } = await readWorkshop(store.db);
    const { revision } = await store.write(async tx => {
      const now = await readDocument(tx, id);
      return editJob(tx, id, now.revision, { kind: 'add-scan', scan }, workshop, editor(req));
    });
    events.send({ kind: 'job', jobId: id, revision, tab: null });
    res.status(201).json({ scan, revision });
  });

  router.get('/:id/scans/:scanId', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const scan = job.document.scans.find(s => s.id === req.params.scanId);
    const bytes = scan && (await blobs.get(scan.sha256));
    if (!bytes) throw notFound('That scan');
    res.set({
      'content-type': 'application/octet-stream',
      'cache-control': 'private, max-age=31536000, immutable',
    });
    res.end(bytes);
  });
}
