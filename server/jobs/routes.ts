import { type Request, Router } from 'express';
import { ulid } from 'ulid';
import {
  CreateJob,
  EditRequest,
  FILE_KINDS,
  MakeLadder,
  MakeVersion,
  RecordLadderTry,
  RecordPrint,
  RecordTry,
  UndoRequest,
  VoidRow,
} from '../../contract/jobs';
import { counting } from '../../core/job/history';
import { newJob } from '../../core/job/new-job';
import { recipeById } from '../../core/shape/recipes';
import { exportJob } from '../bundle/bundle';
import type { App } from '../context';
import { HttpError, notFound } from '../errors';
import { addPhotoRoutes } from '../photos/routes';
import { addSheetRoutes } from '../sheet/routes';
import { readWorkshop } from '../workshop/repository';
import { editJob, revertEdit } from './editing';
import { familyFile } from './family';
import { prepareLadder } from './ladders';
import { RackReader } from './rack';
import { answerJob, appendRow, insertJob, readActivity, readJob, voidHistoryRow } from './repository';
import { togetherFile } from './together';
import { type OtherSizes, otherFile, preparePrint, prepareVersion, versionFile } from './versions';

const MOST_ACTIVITY = 200;
const TYPES = { stl: 'model/stl', '3mf': 'model/3mf', step: 'model/step' };

/** Which window asks; a script without one is a window of its own. */
const tabOf = (req: Request) => (req.get('x-sagoma-tab') ?? 'script').slice(0, 60);

export function jobRoutes(app: App): Router {
  const { store, pool, blobs, events } = app;
  const router = Router();
  const rack = new RackReader();
  const isOpen = (tab: string) => events.isOpen(tab);
  const editor = (req: Request) => ({ tab: tabOf(req), isOpen });
  const answer = (req: Request, id: string) => answerJob(store.db, id, tabOf(req), isOpen);
  const tell = (jobId: string, revision: number, tab: string) =>
    events.send({ kind: 'job', jobId, revision, tab });

  addPhotoRoutes(router, app, editor);
  addSheetRoutes(router, app);

  router.get('/', async (_req, res) => {
    res.json(await rack.read(store.db));
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
    tell(id, 1, tabOf(req));
    res.status(201).json(await answer(req, id));
  });

  router.get('/:id', async (req, res) => {
    events.hear(tabOf(req));
    res.json(await answer(req, req.params.id));
  });

  router.get('/:id/activity', async (req, res) => {
    await readJob(store.db, req.params.id);
    res.json({ activity: await readActivity(store.db, req.params.id, MOST_ACTIVITY) });
  });

  router.post('/:id/edits', async (req, res) => {
    const { revision, edit } = EditRequest.parse(req.body);
    const { id } = req.params;
    events.hear(tabOf(req));
    const { workshop } = await readWorkshop(store.db);
    const now = await store.write(tx => editJob(tx, id, revision, edit, workshop, editor(req)));
    tell(id, now, tabOf(req));
    res.json(await answer(req, id));
  });

  for (const role of ['undo', 'redo'] as const) {
    router.post(`/:id/${role}`, async (req, res) => {
      const { editId } = UndoRequest.parse(req.body);
      const id = String(req.params.id);
      const now = await store.write(tx => revertEdit(tx, id, editId, role, editor(req)));
      tell(id, now, tabOf(req));
      res.json(await answer(req, id));
    });
  }

  router.post('/:id/versions', async (req, res) => {
    const wish = MakeVersion.parse(req.body);
    const { id } = req.params;
    const job = await readJob(store.db, id);
    if (job.revision !== wish.revision) {
      throw new HttpError(
        409,
        'stale',
        'Another window changed the numbers meanwhile: look at them again, then make the version.',
      );
    }
    const { workshop } = await readWorkshop(store.db);
    const row = await prepareVersion(job, workshop, wish, pool);
    await store.write(async tx => {
      const now = await readJob(tx, id);
      if (now.revision !== wish.revision || now.history.versions.length !== job.history.versions.length) {
        throw new HttpError(
          409,
          'stale',
          'Another window changed the job while the solid was built: make the version again.',
        );
      }
      await appendRow(tx, id, { kind: 'version', row });
    });
    tell(id, job.revision, tabOf(req));
    res.status(201).json(await answer(req, id));
  });

  router.get('/:id/versions/:versionId/files/:kind', async (req, res) => {
    const kind = FILE_KINDS.find(k => k === req.params.kind);
    if (!kind) throw new HttpError(400, 'bad-input', 'Files come as 3mf, step or stl.');
    const job = await readJob(store.db, req.params.id);
    const { workshop } = await readWorkshop(store.db);
    const { versionId } = req.params;
    const sizes = sizesAsked(req.query);
    const { name, bytes } =
      sizes !== null
        ? await otherFile(job, versionId, kind, sizes, workshop, pool)
        : await versionFile(job, versionId, kind, workshop, pool, blobs);
    res.set({
      'content-type': TYPES[kind],
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    });
    res.end(bytes);
  });

  router.get('/:id/parts/:partId/family.3mf', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const { workshop } = await readWorkshop(store.db);
    const { parameter, from, to, step } = req.query;
    const wish = { parameter: String(parameter), from: Number(from), to: Number(to), step: Number(step) };
    const part = job.document.parts.find(p => p.id === req.params.partId);
    if (!part) throw notFound('That part');
    const { name, bytes } = await familyFile(job, part.id, wish, workshop, pool);
    res.set({
      'content-type': TYPES['3mf'],
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    });
    res.end(bytes);
  });

  router.get('/:id/together.3mf', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const { workshop } = await readWorkshop(store.db);
    const { name, bytes } = await togetherFile(job, workshop, pool);
    res.set({
      'content-type': TYPES['3mf'],
      'content-disposition': `attachment; filename="${name}"`,
      'cache-control': 'no-store',
    });
    res.end(bytes);
  });

  router.post('/:id/prints', async (req, res) => {
    const wish = RecordPrint.parse(req.body);
    const { id } = req.params;
    const job = await readJob(store.db, id);
    const { workshop } = await readWorkshop(store.db);
    const row = await preparePrint(job, wish, false, workshop, pool, blobs);
    await store.write(async tx => {
      const now = await readJob(tx, id);
      await appendRow(tx, id, { kind: 'print', row: { ...row, number: now.history.prints.length + 1 } });
    });
    tell(id, job.revision, tabOf(req));
    res.status(201).json(await answer(req, id));
  });

  router.post('/:id/tries', async (req, res) => {
    const wish = RecordTry.parse(req.body);
    const { id } = req.params;
    const revision = await store.write(async tx => {
      const job = await readJob(tx, id);
      const print = counting(job.history).prints.find(p => p.id === wish.printId);
      if (!print) throw notFound('That print');
      const known = new Set(job.document.mates.map(m => m.id));
      const stray = Object.keys(wish.mates).find(m => !known.has(m));
      if (stray) throw new HttpError(400, 'bad-input', `This job has no mate “${stray}”.`);
      const row = { id: ulid(), at: new Date().toISOString(), voided: null, ...wish };
      await appendRow(tx, id, { kind: 'try', row });
      return job.revision;
    });
    tell(id, revision, tabOf(req));
    res.status(201).json(await answer(req, id));
  });

  router.post('/:id/ladders', async (req, res) => {
    const { mateId, partId } = MakeLadder.parse(req.body);
    const { id } = req.params;
    const job = await readJob(store.db, id);
    const { workshop } = await readWorkshop(store.db);
    // Worked out before the transaction: nobody waits for a posterior.
    const row = prepareLadder(job, workshop, partId, mateId);
    await store.write(tx => appendRow(tx, id, { kind: 'ladder', row }));
    tell(id, job.revision, tabOf(req));
    res.status(201).json(await answer(req, id));
  });

  router.get('/:id/ladders/:ladderId/ladder.:kind', async (req, res) => {
    const kind = (['3mf', 'stl'] as const).find(k => k === req.params.kind);
    if (!kind) throw new HttpError(400, 'bad-input', 'A ladder comes as 3mf or stl.');
    const job = await readJob(store.db, req.params.id);
    const ladder = job.history.ladders.find(l => l.id === req.params.ladderId);
    const mate = job.document.mates.find(m => m.id === ladder?.mateId);
    if (!ladder || !mate) throw notFound('That ladder');
    const files = await pool.ladder(mate.side, ladder.sizes, `${job.document.title}, ladder`);
    res.set({
      'content-type': TYPES[kind],
      'content-disposition': `attachment; filename="sagoma-job-${job.number}-ladder.${kind}"`,
      'cache-control': 'no-store',
    });
    res.end(files[kind]);
  });

  router.post('/:id/ladder-tries', async (req, res) => {
    const wish = RecordLadderTry.parse(req.body);
    const { id } = req.params;
    const revision = await store.write(async tx => {
      const job = await readJob(tx, id);
      const ladder = counting(job.history).ladders.find(l => l.id === wish.ladderId);
      if (!ladder) throw notFound('That ladder');
      if (wish.verdicts.length !== ladder.sizes.length)
        throw new HttpError(
          400,
          'bad-input',
          `This ladder has ${ladder.sizes.length} rings: say of each, or leave it open.`,
        );
      const row = { id: ulid(), at: new Date().toISOString(), voided: null, ...wish };
      await appendRow(tx, id, { kind: 'ladder-try', row });
      return job.revision;
    });
    tell(id, revision, tabOf(req));
    res.status(201).json(await answer(req, id));
  });

  router.post('/:id/void', async (req, res) => {
    const { kind, id: rowId, reason } = VoidRow.parse(req.body);
    const { id } = req.params;
    await store.write(tx => voidHistoryRow(tx, id, kind, rowId, reason));
    tell(id, 0, tabOf(req));
    res.json(await answer(req, id));
  });

  router.get('/:id/bundle', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const bytes = await exportJob(job, blobs, app.version);
    res.set({
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="sagoma-job-${job.number}.zip"`,
    });
    res.end(bytes);
  });

  return router;
}

/** Left out, a file's sizes are those of its version. */
function sizesAsked({ sizes, printer, plastic }: Record<string, unknown>): OtherSizes | null {
  if (sizes === undefined) return null;
  if (sizes === 'designed') return { for: 'designed' };
  if (sizes === 'profile' && typeof printer === 'string' && typeof plastic === 'string')
    return { for: 'profile', printerId: printer, materialId: plastic };
  throw new HttpError(
    400,
    'bad-input',
    'Sizes are “designed”, or “profile” with a printer and a plastic of the workshop; left out, as made for this job.',
  );
}
