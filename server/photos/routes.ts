import express, { type Router } from 'express';
import { ulid } from 'ulid';
import { z } from 'zod';
import { Photo } from '../../core/job/document';
import { Id } from '../../core/job/fields';
import type { App } from '../context';
import { HttpError, notFound } from '../errors';
import { editJob } from '../jobs/editing';
import { readDocument, readJob } from '../jobs/repository';
import { readWorkshop } from '../workshop/repository';
import { PHOTO_HEAD } from './read-photo';

/** A photo for tracing comes with all of its pixels. */
const MOST_PHOTO = '32mb';

type Editor = (req: express.Request) => { tab: string; isOpen: (tab: string) => boolean };

/** Photos of a job's object: bytes in, checked by their content and not by their name. */
export function addPhotoRoutes(router: Router, app: App, editor: Editor): void {
  const { store, blobs, events, reader } = app;

  router.post('/:id/photos', express.raw({ type: () => true, limit: MOST_PHOTO }), async (req, res) => {
    const id = String(req.params.id);
    const job = await readJob(store.db, id);
    // Sent again by a sender that did not get the answer: it is stored once.
    const own = Id.parse(req.query.id ?? ulid());
    const there = job.document.photos.find(p => p.id === own);
    if (there) {
      res.json({ photo: there, revision: job.revision });
      return;
    }
    const bytes = Buffer.isBuffer(req.body) ? new Uint8Array(req.body) : new Uint8Array();
    const { photo: seen } = await reader.run('readPhoto', { head: bytes.subarray(0, PHOTO_HEAD) });
    if (!seen.ok) throw new HttpError(422, seen.code, seen.message);
    const { type, width, height } = seen;
    const label = Photo.shape.label.parse(
      z.string().max(400).catch('').parse(req.query.label) || `photo ${job.document.photos.length + 1}`,
    );
    const photo: Photo = { id: own, sha256: await blobs.put(bytes), type, width, height, label };
    const { workshop } = await readWorkshop(store.db);
    const { revision } = await store.write(async tx => {
      const now = await readDocument(tx, id);
      return editJob(tx, id, now.revision, { kind: 'add-photo', photo }, workshop, editor(req));
    });
    events.send({ kind: 'job', jobId: id, revision, tab: null });
    res.status(201).json({ photo, revision });
  });

  router.get('/:id/photos/:photoId', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const photo = job.document.photos.find(p => p.id === req.params.photoId);
    const bytes = photo && (await blobs.get(photo.sha256));
    if (!photo || !bytes) throw notFound('That photo');
    res.set({ 'content-type': photo.type, 'cache-control': 'private, max-age=31536000, immutable' });
    res.end(bytes);
  });
}
