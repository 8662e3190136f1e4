import type { Response, Router } from 'express';
import { PiecesAsked } from '../../contract/jobs';
import { FILE_KINDS } from '../../core/files/part-files';
import { fitsOf } from '../../core/job/document';
import type { App } from '../context';
import { HttpError, notFound } from '../errors';
import { readWorkshop } from '../workshop/repository';
import { batchFile, batchOf } from './batch';
import { familyFile } from './family';
import { fileName } from './file-names';
import { type OtherSizes, otherFile } from './other-files';
import { sliceOfVersion } from './prints';
import { readJob } from './repository';
import { togetherFile } from './together';
import { versionFile } from './versions';

const TYPES = { stl: 'model/stl', '3mf': 'model/3mf', step: 'model/step' };

/** Files for the printer. */
export function addFileRoutes(router: Router, app: App): void {
  const { store, pool, solids, blobs } = app;
  const makers = { solids, blobs };

  const versionAsked = async (params: { id: string; versionId: string }) => {
    const job = await readJob(store.db, params.id);
    const version = job.history.versions.find(v => v.id === params.versionId);
    if (!version) throw notFound('That version');
    const { workshop } = await readWorkshop(store.db);
    return { job, version, workshop };
  };

  router.get('/:id/versions/:versionId/files/:kind', async (req, res) => {
    const kind = FILE_KINDS.find(k => k === req.params.kind);
    if (!kind) throw new HttpError(400, 'bad-input', 'Files come as 3mf, step or stl.');
    const sizes = sizesAsked(req.query);
    const { job, version, workshop } = await versionAsked(req.params);
    const file =
      sizes === null
        ? await versionFile(job, version, kind, workshop, makers)
        : await otherFile(job, version, kind, sizes, workshop, makers);
    sendFile(res, kind, file);
  });

  router.get('/:id/versions/:versionId/batch', async (req, res) => {
    const { pieces } = PiecesAsked.parse(req.query);
    const { job, version, workshop } = await versionAsked(req.params);
    res.json(await batchOf(job, version, pieces, workshop, { solids, db: store.db }));
  });

  router.get('/:id/versions/:versionId/batch.3mf', async (req, res) => {
    const { pieces } = PiecesAsked.parse(req.query);
    const { job, version, workshop } = await versionAsked(req.params);
    sendFile(res, '3mf', await batchFile(job, version, pieces, workshop, solids));
  });

  router.get('/:id/versions/:versionId/slices/:mateIds/slice.:kind', async (req, res) => {
    const kind = fileKind(req.params.kind, 'Slices come');
    const { job, version, workshop } = await versionAsked(req.params);
    const slice = await sliceOfVersion(job, version, req.params.mateIds.split(','), workshop, solids);
    if (!slice.ok) throw new HttpError(422, 'no-slice', slice.why);
    const name = fileName(job, version, kind, workshop).replace(/\.(\w+)$/, '-slice.$1');
    sendFile(res, kind, { name, bytes: slice.files[kind] });
  });

  router.get('/:id/parts/:partId/family.3mf', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const { workshop } = await readWorkshop(store.db);
    const { parameter, from, to, step } = req.query;
    const wish = { parameter: String(parameter), from: Number(from), to: Number(to), step: Number(step) };
    const part = job.document.parts.find(p => p.id === req.params.partId);
    if (!part) throw notFound('That part');
    sendFile(
      res,
      '3mf',
      await familyFile(job, part.id, wish, workshop, await app.rack.lessons(job.id), solids),
    );
  });

  router.get('/:id/together.3mf', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const { workshop } = await readWorkshop(store.db);
    sendFile(res, '3mf', await togetherFile(job, workshop, solids));
  });

  router.get('/:id/gauges/:gaugeId/gauge.:kind', async (req, res) => {
    const kind = fileKind(req.params.kind, 'A gauge comes');
    const job = await readJob(store.db, req.params.id);
    const gauge = job.history.gauges.find(g => g.id === req.params.gaugeId);
    if (!gauge) throw notFound('That gauge');
    const { side, form, drawn: size } = gauge;
    const files = await pool.run('gauge', { side, form, size, name: `${job.document.title}, gauge` });
    sendFile(res, kind, { name: `sagoma-job-${job.number}-gauge.${kind}`, bytes: files[kind] });
  });

  router.get('/:id/ladders/:ladderId/ladder.:kind', async (req, res) => {
    const kind = fileKind(req.params.kind, 'A ladder comes');
    const job = await readJob(store.db, req.params.id);
    const ladder = job.history.ladders.find(l => l.id === req.params.ladderId);
    const mate = fitsOf(job.document).find(m => m.id === ladder?.mateId);
    if (!ladder || !mate) throw notFound('That ladder');
    const name = `${job.document.title}, ladder`;
    const { printers } = (await readWorkshop(store.db)).workshop;
    const { bed } = printers.find(p => p.id === ladder.printerId) ?? printers[0]!;
    const files = await pool.run('ladder', { side: mate.side, sizes: ladder.sizes, name, bed });
    sendFile(res, kind, { name: `sagoma-job-${job.number}-ladder.${kind}`, bytes: files[kind] });
  });
}

function fileKind(kind: string | undefined, what: string): '3mf' | 'stl' {
  const known = (['3mf', 'stl'] as const).find(k => k === kind);
  if (!known) throw new HttpError(400, 'bad-input', `${what} as 3mf or stl.`);
  return known;
}

export function sendFile(
  res: Response,
  kind: keyof typeof TYPES,
  { name, bytes }: { name: string; bytes: Uint8Array },
) {
  res.set({
    'content-type': TYPES[kind],
    'content-disposition': `attachment; filename="${name}"`,
    'cache-control': 'no-store',
  });
  res.end(bytes);
}

/** By default, a file's sizes are those of its version. */
function sizesAsked({ sizes, printer, plastic }: Record<string, unknown>): OtherSizes | null {
  if (sizes === undefined) return null;
  if (sizes === 'designed') return { for: 'designed' };
  if (sizes === 'other-hand') return { for: 'other-hand' };
  if (sizes === 'profile' && typeof printer === 'string' && typeof plastic === 'string')
    return { for: 'profile', printerId: printer, materialId: plastic };
  throw new HttpError(
    400,
    'bad-input',
    'Sizes are “designed”, “other-hand”, or “profile” with a printer and a plastic of the workshop; left out, as made for this job.',
  );
}
