import { Router } from 'express';
import { ulid } from 'ulid';
import { z } from 'zod';
import type { HoursAnswer, JobView } from '../../contract/jobs';
import { CreateJob, EditRequest, MakeAgain, UndoRequest } from '../../contract/jobs';
import type { Found } from '../../contract/rack';
import { asOwnRecipe, forAnotherObject } from '../../core/job/again';
import { emptyHistory } from '../../core/job/history';
import { newJob } from '../../core/job/new-job';
import { recipeById } from '../../core/shape/recipes';
import { minutesByStage } from '../../core/work/hours';
import { exportJob } from '../bundle/bundle';
import type { App } from '../context';
import { HttpError } from '../errors';
import { addPhotoRoutes } from '../photos/routes';
import { addScanRoutes } from '../scans/routes';
import { addSheetRoutes } from '../sheet/routes';
import { readWorkshop } from '../workshop/repository';
import { answers, tabOf } from './answering';
import { editJob, revertEdit } from './editing';
import { addFileRoutes } from './file-routes';
import { addHistoryRoutes } from './history-routes';
import {
  insertJob,
  readActivity,
  readJob,
  readMoments,
  readRaw,
  removeJob,
  UnreadableJob,
} from './repository';

const MOST_ACTIVITY = 200;

export function jobRoutes(app: App): Router {
  const { store, blobs, events, rack } = app;
  const router = Router();
  const { editor, whole, change, tell } = answers(app);

  addPhotoRoutes(router, app, editor);
  addScanRoutes(router, app, editor);
  addSheetRoutes(router, app);
  addFileRoutes(router, app);
  addHistoryRoutes(router, app);

  router.get('/', async (_req, res) => {
    // Megabytes with thousands of jobs: sent as they are, without a checksum.
    res
      .type('json')
      .set('cache-control', 'no-store')
      .end(await rack.read());
  });

  router.post('/', async (req, res) => {
    const wish = CreateJob.parse(req.body);
    const recipe = recipeById(wish.recipe);
    if (!recipe)
      throw new HttpError(400, 'bad-input', `There is no recipe “${wish.recipe}”: choose one from the list.`);
    const { workshop } = await readWorkshop(store.db);
    const document = newJob(wish.title, recipe, workshop, wish.materialId);
    document.object.name = wish.object ?? '';
    const id = await store.write(tx => insertJob(tx, document));
    tell(req, id, 1);
    res.status(201).json(await whole(req, id));
  });

  router.get('/search', async (req, res) => {
    const { q } = z
      .object({ q: z.string().trim().min(1, 'Say what to look for.').max(200) })
      .parse(req.query);
    const found: Found = { ids: await rack.search(q) };
    res.json(found);
  });

  router.post('/:id/again', async (req, res) => {
    const { title, object = '' } = MakeAgain.parse(req.body);
    const { document } = await readJob(store.db, req.params.id);
    const id = await store.write(tx => insertJob(tx, forAnotherObject(document, title, object)));
    tell(req, id, 1);
    res.status(201).json(await whole(req, id));
  });

  router.get('/:id', async (req, res) => {
    events.hear(tabOf(req));
    res.json(await whole(req, req.params.id));
  });

  router.get('/:id/raw', async (req, res) => {
    const raw = await readRaw(store.db, req.params.id);
    res.set({
      'content-type': 'application/json',
      'content-disposition': `attachment; filename="sagoma-job-${raw.job.number}-raw.json"`,
    });
    res.end(JSON.stringify(raw, null, 2));
  });

  // Only what can no longer be read: a job with readings is not deleted by one request.
  router.delete('/:id', async (req, res) => {
    const { id } = req.params;
    const readable = await readJob(store.db, id).catch((error: unknown) => {
      if (error instanceof UnreadableJob) return null;
      throw error;
    });
    if (readable)
      throw new HttpError(
        409,
        'readable',
        'This job can be read: only one that cannot is removed like this.',
      );
    await store.write(tx => removeJob(tx, id));
    tell(req, id, 0);
    res.json({ removed: true });
  });

  router.get('/:id/activity', async (req, res) => {
    await readJob(store.db, req.params.id);
    res.json({ activity: await readActivity(store.db, req.params.id, MOST_ACTIVITY) });
  });

  router.get('/:id/hours', async (req, res) => {
    await readJob(store.db, req.params.id);
    const answer: HoursAnswer = { minutes: minutesByStage(await readMoments(store.db, req.params.id)) };
    res.json(answer);
  });

  router.post('/:id/edits', async (req, res) => {
    const { revision, edit } = EditRequest.parse(req.body);
    const { id } = req.params;
    events.hear(tabOf(req));
    const { workshop } = await readWorkshop(store.db);
    const done = await store.write(tx => editJob(tx, id, revision, edit, workshop, editor(req)));
    tell(req, id, done.revision);
    res.json(await change(req, id, { changes: done.changes }));
  });

  for (const role of ['undo', 'redo'] as const) {
    router.post(`/:id/${role}`, async (req, res) => {
      const { editId } = UndoRequest.parse(req.body);
      const id = String(req.params.id);
      const done = await store.write(tx => revertEdit(tx, id, editId, role, editor(req)));
      tell(req, id, done.revision);
      res.json(await change(req, id, { changes: done.changes }));
    });
  }

  router.get('/:id/bundle', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const bytes = await exportJob(job, blobs, app.version);
    res.set({
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="sagoma-job-${job.number}.zip"`,
    });
    res.end(bytes);
  });

  // A job as a recipe of the maker's own, for another workshop: nothing that was measured or printed is included.
  router.get('/:id/recipe', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const now = new Date().toISOString();
    const recipe: JobView = {
      ...job,
      id: ulid(),
      revision: 1,
      createdAt: now,
      updatedAt: now,
      document: asOwnRecipe(job.document, now),
      history: emptyHistory(),
    };
    res.set({
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="sagoma-recipe-${job.number}.zip"`,
    });
    res.end(await exportJob(recipe, blobs, app.version));
  });

  return router;
}
