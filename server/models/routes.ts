import express, { Router } from 'express';
import { ulid } from 'ulid';
import { z } from 'zod';
import { Model } from '../../core/job/document';
import type { App } from '../context';
import { HttpError, notFound } from '../errors';

const MOST_FILE = '24mb';

/**
 * Bodies from files: read by a worker, stored as triangles by their SHA-256. Using one in a job is an ordinary edit; a
 * version keeps its own even where the job no longer has the body.
 */
export function modelRoutes({ blobs, reader }: App): Router {
  const router = Router();

  router.post('/', express.raw({ type: () => true, limit: MOST_FILE }), async (req, res) => {
    const bytes = Buffer.isBuffer(req.body) ? new Uint8Array(req.body) : new Uint8Array();
    if (bytes.length === 0) throw new HttpError(422, 'bad-model', 'The file is empty.');
    const as = z.enum(['body', 'surface']).catch('body').parse(req.query.as);
    const { body: read } = await reader.run('readBody', { file: bytes, as });
    if (!read.ok) throw new HttpError(422, 'bad-model', read.message);
    const model: Model = {
      id: ulid(),
      sha256: await blobs.put(read.stl),
      label: z.string().trim().max(400).catch('').parse(req.query.label).slice(0, 120) || 'body',
      factor: 1,
      size: read.size,
      triangles: read.triangles,
      hull: read.hull,
      ...(as === 'surface' ? { surface: true } : {}),
    };
    res.status(201).json({ model: Model.parse(model) });
  });

  router.get('/:sha256', async (req, res) => {
    const bytes = await blobs.get(req.params.sha256);
    // Only stored bodies: photos and prints have their own routes.
    if (!bytes || bytes.length < 84 || !isStl(bytes)) throw notFound('That body');
    res.set({ 'content-type': 'model/stl', 'cache-control': 'private, max-age=31536000, immutable' });
    res.end(bytes);
  });
  return router;
}

const isStl = (bytes: Uint8Array) =>
  bytes.length === 84 + 50 * new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true);
