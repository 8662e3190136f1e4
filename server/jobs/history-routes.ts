import type { Router } from 'express';
import { ulid } from 'ulid';
import type { z } from 'zod';
import {
  type JobView,
  MakeGauge,
  MakeLadder,
  MakeVersion,
  RecordGaugeSize,
  RecordLadderTry,
  RecordLook,
  RecordPrint,
  RecordRemark,
  RecordRework,
  RecordStart,
  RecordTry,
  VoidRow,
} from '../../contract/jobs';
import { counting, type HistoryRow, type Version } from '../../core/job/history';
import { countedPrints } from '../../core/work/outcome';
import type { App } from '../context';
import { HttpError, notFound } from '../errors';
import { readWorkshop } from '../workshop/repository';
import { answers } from './answering';
import { prepareGauge } from './gauges';
import { prepareLadder } from './ladders';
import { preparePrint, prepareStart, printFiles } from './prints';
import { appendRow, readJob, voidHistoryRow } from './repository';
import { prepareVersion } from './versions';

/** @throws HttpError for a mate that neither the job nor the version has, or that is judged in another way */
function refuseStrangers(job: JobView, version: Version, wish: z.infer<typeof RecordTry>): void {
  const signed = new Set(version.signed.map(m => m.mateId));
  const known = new Set([
    ...job.document.mates.map(m => m.id),
    ...version.mates.map(m => m.mateId),
    ...signed,
  ]);
  for (const [id, said] of Object.entries(wish.mates)) {
    if (!known.has(id)) throw new HttpError(400, 'bad-input', `This job has no mate “${id}”.`);
    if (said.verdict && signed.has(id))
      throw new HttpError(400, 'bad-input', `“${id}” is judged by an amount, not by a word.`);
    if (said.gauge && counting(job.history).gaugeSizes.every(g => g.gaugeId !== said.gauge))
      throw new HttpError(400, 'bad-input', 'That gauge was not measured yet: say what it measures first.');
    if (said.off && !signed.has(id))
      throw new HttpError(400, 'bad-input', `“${id}” is judged by a word, not by an amount.`);
  }
  refuseStrangePhotos(job, wish.photos);
}

function refuseStrangePhotos({ document }: JobView, ids: readonly string[]): void {
  if (ids.some(id => document.photos.every(p => p.id !== id)))
    throw new HttpError(400, 'bad-input', 'One of the photos is no longer in the job.');
}

/** A measured gauge never differs from its drawn size by more than this, as a share. */
const FAR_OFF = 0.2;

/** What was made and tried: rows that are only ever added, or voided with a reason. */
export function addHistoryRoutes(router: Router, app: App): void {
  const { store, solids, blobs, builds, rack } = app;
  const { change, tell } = answers(app);
  const now = () => ({ id: ulid(), at: new Date().toISOString(), voided: null });

  router.post('/:id/versions', async (req, res) => {
    const wish = MakeVersion.parse(req.body);
    const { id } = req.params;
    const job = await readJob(store.db, id);
    if (job.revision !== wish.revision)
      throw new HttpError(
        409,
        'stale',
        'Another window changed the numbers meanwhile: look at them again, then make the version.',
      );
    const { workshop } = await readWorkshop(store.db);
    const lessons = await rack.lessons(job.id);
    const row = await builds.run(wish.buildId, maker =>
      prepareVersion(job, workshop, lessons, wish, { solids, blobs }, { owner: id, ...maker }),
    );
    await store.write(async tx => {
      const then = await readJob(tx, id);
      if (then.revision !== wish.revision || then.history.versions.length !== job.history.versions.length)
        throw new HttpError(
          409,
          'stale',
          'Another window changed the job while the solid was built: make the version again. The solid is kept.',
        );
      await appendRow(tx, id, { kind: 'version', row });
    });
    tell(req, id, job.revision);
    res.status(201).json(await change(req, id, { added: [{ kind: 'version', row }] }));
  });

  router.post('/:id/prints', async (req, res) => {
    const wish = RecordPrint.parse(req.body);
    const { id } = req.params;
    const job = await readJob(store.db, id);
    const { workshop } = await readWorkshop(store.db);
    const prepared = await preparePrint(job, wish, false, workshop, { db: store.db, solids });
    const files = await printFiles(job, prepared, workshop, { solids, blobs });
    const added = await store.write(async tx => {
      const then = await readJob(tx, id);
      const row = { ...prepared, files, number: then.history.prints.length + 1 };
      await appendRow(tx, id, { kind: 'print', row });
      return { kind: 'print' as const, row };
    });
    tell(req, id, job.revision);
    res.status(201).json(await change(req, id, { added: [added] }));
  });

  router.post('/:id/starts', async (req, res) => {
    const wish = RecordStart.parse(req.body);
    const { id } = req.params;
    const job = await readJob(store.db, id);
    const { workshop } = await readWorkshop(store.db);
    const row = await prepareStart(job, wish, workshop, { db: store.db, solids });
    await store.write(tx => appendRow(tx, id, { kind: 'start', row }));
    tell(req, id, job.revision);
    res.status(201).json(await change(req, id, { added: [{ kind: 'start', row }] }));
  });

  router.post('/:id/tries', async (req, res) => {
    const wish = RecordTry.parse(req.body);
    const { id } = req.params;
    const { added, revision } = await store.write(async tx => {
      const job = await readJob(tx, id);
      const standing = countedPrints(counting(job.history)).find(p => p.print.id === wish.printId);
      if (!standing) throw notFound('That print');
      refuseStrangers(job, standing.version, wish);
      const row: HistoryRow = { kind: 'try', row: { ...now(), ...wish } };
      await appendRow(tx, id, row);
      return { added: [row], revision: job.revision };
    });
    tell(req, id, revision);
    res.status(201).json(await change(req, id, { added }));
  });

  router.post('/:id/looks', async (req, res) => {
    const wish = RecordLook.parse(req.body);
    const { id } = req.params;
    const { added, revision } = await store.write(async tx => {
      const job = await readJob(tx, id);
      const print = counting(job.history).prints.find(p => p.id === wish.printId);
      if (!print || print.failed !== null) throw notFound('That print');
      if (wish.piece > print.pieces)
        throw new HttpError(400, 'bad-input', `That print has ${print.pieces} pieces.`);
      refuseStrangePhotos(job, wish.photos);
      const row: HistoryRow = { kind: 'look', row: { ...now(), ...wish } };
      await appendRow(tx, id, row);
      return { added: [row], revision: job.revision };
    });
    tell(req, id, revision);
    res.status(201).json(await change(req, id, { added }));
  });

  router.post('/:id/remarks', async (req, res) => {
    const wish = RecordRemark.parse(req.body);
    const { id } = req.params;
    const { added, revision } = await store.write(async tx => {
      const job = await readJob(tx, id);
      if (!counting(job.history).versions.some(v => v.id === wish.versionId)) throw notFound('That version');
      const row: HistoryRow = { kind: 'remark', row: { ...now(), ...wish } };
      await appendRow(tx, id, row);
      return { added: [row], revision: job.revision };
    });
    tell(req, id, revision);
    res.status(201).json(await change(req, id, { added }));
  });

  router.post('/:id/reworks', async (req, res) => {
    const wish = RecordRework.parse(req.body);
    const { id } = req.params;
    const { added, revision } = await store.write(async tx => {
      const job = await readJob(tx, id);
      const standing = countedPrints(counting(job.history)).find(p => p.print.id === wish.printId);
      if (!standing) throw notFound('That print');
      if (!standing.outcome?.said[wish.mateId]?.verdict)
        throw new HttpError(400, 'bad-input', 'Say first how that surface sat as it was printed.');
      const row: HistoryRow = { kind: 'rework', row: { ...now(), ...wish } };
      await appendRow(tx, id, row);
      return { added: [row], revision: job.revision };
    });
    tell(req, id, revision);
    res.status(201).json(await change(req, id, { added }));
  });

  router.post('/:id/ladders', async (req, res) => {
    const { mateId, partId } = MakeLadder.parse(req.body);
    const { id } = req.params;
    const job = await readJob(store.db, id);
    const { workshop } = await readWorkshop(store.db);
    // Worked out before the transaction, so that no other request waits for a posterior.
    const row = prepareLadder(job, workshop, await rack.lessons(job.id), partId, mateId);
    await store.write(tx => appendRow(tx, id, { kind: 'ladder', row }));
    tell(req, id, job.revision);
    res.status(201).json(await change(req, id, { added: [{ kind: 'ladder', row }] }));
  });

  router.post('/:id/ladder-tries', async (req, res) => {
    const wish = RecordLadderTry.parse(req.body);
    const { id } = req.params;
    const { added, revision } = await store.write(async tx => {
      const job = await readJob(tx, id);
      const ladder = counting(job.history).ladders.find(l => l.id === wish.ladderId);
      if (!ladder) throw notFound('That ladder');
      if (wish.verdicts.length !== ladder.sizes.length)
        throw new HttpError(
          400,
          'bad-input',
          `This ladder has ${ladder.sizes.length} rings: say of each, or leave it open.`,
        );
      const row: HistoryRow = { kind: 'ladder-try', row: { ...now(), ...wish } };
      await appendRow(tx, id, row);
      return { added: [row], revision: job.revision };
    });
    tell(req, id, revision);
    res.status(201).json(await change(req, id, { added }));
  });

  router.post('/:id/gauges', async (req, res) => {
    const { mateId, partId } = MakeGauge.parse(req.body);
    const { id } = req.params;
    const job = await readJob(store.db, id);
    const { workshop } = await readWorkshop(store.db);
    const row = prepareGauge(job, workshop, await rack.lessons(job.id), partId, mateId);
    await store.write(tx => appendRow(tx, id, { kind: 'gauge', row }));
    tell(req, id, job.revision);
    res.status(201).json(await change(req, id, { added: [{ kind: 'gauge', row }] }));
  });

  router.post('/:id/gauge-sizes', async (req, res) => {
    const wish = RecordGaugeSize.parse(req.body);
    const { id } = req.params;
    const { added, revision } = await store.write(async tx => {
      const job = await readJob(tx, id);
      const gauge = counting(job.history).gauges.find(g => g.id === wish.gaugeId);
      if (!gauge) throw notFound('That gauge');
      if (Math.abs(wish.value - gauge.drawn) > FAR_OFF * gauge.drawn)
        throw new HttpError(
          400,
          'bad-input',
          `It was drawn ${gauge.drawn.toFixed(2)} mm: ${wish.value} mm is another thing, or a slip.`,
        );
      const row: HistoryRow = { kind: 'gauge-size', row: { ...now(), ...wish } };
      await appendRow(tx, id, row);
      return { added: [row], revision: job.revision };
    });
    tell(req, id, revision);
    res.status(201).json(await change(req, id, { added }));
  });

  router.post('/:id/void', async (req, res) => {
    const voided = VoidRow.parse(req.body);
    const { id } = req.params;
    await store.write(tx => voidHistoryRow(tx, id, voided.kind, voided.id, voided.reason));
    tell(req, id, 0);
    res.json(await change(req, id, { voided }));
  });
}
