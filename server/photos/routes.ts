import express, { type Router } from 'express';
import { imageSize } from 'image-size';
import { ulid } from 'ulid';
import { z } from 'zod';
import { Photo } from '../../core/job/document';
import type { App } from '../context';
import { HttpError, notFound } from '../errors';
import { editJob } from '../jobs/editing';
import { readDocument, readJob } from '../jobs/repository';
import { readWorkshop } from '../workshop/repository';

const MOST_PHOTO = '12mb';
/** A page draws it: larger would fill a phone's memory. */
const MOST_PIXELS = 60e6;
const TYPES: Record<string, Photo['type']> = { jpg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };

type Editor = (req: express.Request) => { tab: string; isOpen: (tab: string) => boolean };

/** Photos of a job's object: bytes in, checked by what they are and not by what they are called. */
export function addPhotoRoutes(router: Router, app: App, editor: Editor): void {
  const { store, blobs, events } = app;

  router.post('/:id/photos', express.raw({ type: () => true, limit: MOST_PHOTO }), async (req, res) => {
    const id = String(req.params.id);
    const job = await readJob(store.db, id);
    const bytes = Buffer.isBuffer(req.body) ? new Uint8Array(req.body) : new Uint8Array();
    const { type, width, height } = lookAt(bytes);
    const label = Photo.shape.label.parse(
      z.string().max(400).catch('').parse(req.query.label) || `photo ${job.document.photos.length + 1}`,
    );
    const photo: Photo = { id: ulid(), sha256: await blobs.put(bytes), type, width, height, label };
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

function lookAt(bytes: Uint8Array): { type: Photo['type']; width: number; height: number } {
  const refused = new HttpError(
    422,
    'bad-photo',
    'This is not a photo Sagoma reads: take a JPEG, PNG or WebP file.',
  );
  let seen: ReturnType<typeof imageSize>;
  try {
    seen = imageSize(bytes);
  } catch (error) {
    // The reader of sizes says of a file that it does not know just that.
    if (error instanceof TypeError || error instanceof RangeError) throw refused;
    throw error;
  }
  const type = TYPES[seen.type ?? ''];
  if (!type || !(seen.width > 0) || !(seen.height > 0)) throw refused;
  if (seen.width * seen.height > MOST_PIXELS || seen.width > 20_000 || seen.height > 20_000) {
    throw new HttpError(
      422,
      'photo-too-large',
      `The photo has ${Math.round((seen.width * seen.height) / 1e6)} megapixels: send one of at most 60.`,
    );
  }
  // Held upright: a quarter turn swaps the sides.
  const turned = seen.orientation !== undefined && seen.orientation >= 5;
  return { type, width: turned ? seen.height : seen.width, height: turned ? seen.width : seen.height };
}
