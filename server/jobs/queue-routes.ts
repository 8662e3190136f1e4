import { Router } from 'express';
import { PlateAsked, type QueueTakes } from '../../contract/queue';
import type { App } from '../context';
import { sendFile } from './file-routes';
import { plateOf, queueOf, queueTakes } from './queue';

/** What waits for a printer, and plates of it. */
export function queueRoutes(app: App): Router {
  const router = Router();
  router.get('/', async (_req, res) => {
    res.json(await queueOf(app));
  });
  router.get('/takes/:jobId/:versionId', async (req, res) => {
    const answer: QueueTakes = { takes: await queueTakes(req.params.jobId, req.params.versionId, app) };
    res.json(answer);
  });
  router.get('/plate', async (req, res) => {
    const { plate } = await plateOf(PlateAsked.parse(req.query), app, false);
    res.json(plate);
  });
  router.get('/plate.3mf', async (req, res) => {
    const { file } = await plateOf(PlateAsked.parse(req.query), app, true);
    sendFile(res, '3mf', file!);
  });
  return router;
}
