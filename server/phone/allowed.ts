import express, { type RequestHandler, Router } from 'express';
import { z } from 'zod';
import { HttpError } from '../errors';

/**
 * What a phone may ask for: the job on the bench, its photos, readings and verdicts. Everything else is refused, so
 * that a route that is added later is closed to phones until somebody opens it.
 */

const JOB = '/jobs/[0-9A-Za-z]{26}';
const ROUTES: readonly (readonly [method: string, path: RegExp])[] = [
  ['GET', /^\/health$/],
  ['GET', /^\/on-bench$/],
  ['GET', /^\/workshop$/],
  ['GET', /^\/lessons$/],
  ['GET', /^\/events$/],
  ['POST', /^\/presence$/],
  ['GET', new RegExp(`^${JOB}$`)],
  ['GET', new RegExp(`^${JOB}/photos/[\\w-]{1,40}$`)],
  ['POST', new RegExp(`^${JOB}/(photos|tries|edits)$`)],
];

/** Edits from a phone: readings, and how a photo is traced. */
const EDITS = new Set([
  'add-reading',
  'take-back-reading',
  'strike-reading',
  'describe-dimension',
  'add-trace',
]);
const Asked = z.looseObject({ edit: z.looseObject({ kind: z.string() }) });

const NOT_HERE = 'A phone takes photos, readings and verdicts. Do this at the bench.';

const onlyRoutes: RequestHandler = (req, _res, next) => {
  if (!ROUTES.some(([method, path]) => method === req.method && path.test(req.path)))
    throw new HttpError(403, 'not-for-phones', NOT_HERE);
  next();
};

const onlyEdits: RequestHandler = (req, _res, next) => {
  const asked = Asked.safeParse(req.body);
  if (asked.success && !EDITS.has(asked.data.edit.kind)) throw new HttpError(403, 'not-for-phones', NOT_HERE);
  // A body that is not an edit is reported by the route itself.
  next();
};

export function onlyForThumbs(): Router {
  const router = Router();
  router.use(onlyRoutes);
  router.post('/jobs/:id/edits', express.json({ limit: '1mb' }), onlyEdits);
  return router;
}
