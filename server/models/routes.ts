import express, { type Request, type Router } from 'express';
import { ulid } from 'ulid';
import { z } from 'zod';
import { Model } from '../../core/job/document';
import type { App } from '../app';
import { HttpError, notFound } from '../errors';
import { editJob } from '../jobs/editing';
import { readJob } from '../jobs/repository';
import { readWorkshop } from '../workshop/repository';

const MOST_FILE = '24mb';

type Editor = (req: Request) => { tab: string; isOpen: (tab: string) => boolean };

/** Bodies from files: read by a worker, kept as triangles; a part is kept clear of them. */
export function addModelRoutes(router: Router, app: App, editor: Editor): void {
  const { store, blobs, pool, events } = app;

  router.post('/:id/models', express.raw({ type: () => true, limit: MOST_FILE }), async (req, res) => {
    const id = String(req.params.id);
    const job = await readJob(store.db, id);
    const bytes = Buffer.isBuffer(req.body) ? new Uint8Array(req.body) : new Uint8Array();
    if (bytes.length === 0) throw new HttpError(422, 'bad-model', 'The file is empty.');
    const read = await pool.readModel(bytes);
    if (!read.ok) throw new HttpError(422, 'bad-model', read.message);
    const label = Model.shape.label.parse(
      z.string().max(400).catch('').parse(req.query.label).slice(0, 120) ||
        `body ${job.document.models.length + 1}`,
    );
    const model: Model = {
      id: ulid(),
      sha256: await blobs.put(read.stl),
      label,
      factor: 1,
      size: read.size,
      triangles: read.triangles,
      hull: read.hull,
    };
    const { workshop } = await readWorkshop(store.db);
    const revision = await store.write(async tx => {
      const now = await readJob(tx, id);
      return editJob(tx, id, now.revision, { kind: 'add-model', model }, workshop, editor(req));
    });
    events.send({ kind: 'job', jobId: id, revision, tab: null });
    res.status(201).json({ model, revision });
  });
}

/** Their triangles by SHA-256: a version keeps its own even where the job has let go of the body. */
export function modelRoutes({ blobs }: App): Router {
  const router = express.Router();
  router.get('/:sha256', async (req, res) => {
    const bytes = await blobs.get(req.params.sha256);
    // Only what is a kept body: photos and prints have their own ways.
    if (!bytes || bytes.length < 84 || !isStl(bytes)) throw notFound('That body');
    res.set({ 'content-type': 'model/stl', 'cache-control': 'private, max-age=31536000, immutable' });
    res.end(bytes);
  });
  return router;
}

const isStl = (bytes: Uint8Array) =>
  bytes.length === 84 + 50 * new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true);
