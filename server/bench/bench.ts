import { eq } from 'drizzle-orm';
import express, { Router } from 'express';
import { ulid } from 'ulid';
import { z } from 'zod';
import type { JobView } from '../../contract/jobs';
import type { Filed } from '../../core/bench/filed';
import { printRun } from '../../core/bench/print-run';
import { drawPrinter, readPiece } from '../../core/bench/printer';
import { seedOf } from '../../core/bench/random';
import {
  type BenchMate,
  drawWorld,
  printSizes,
  readCaliper,
  tryOn,
  type World,
} from '../../core/bench/world';
import { featureOf } from '../../core/calibration/piece';
import { windowForSize } from '../../core/fit/wants';
import { type FitMate, fitsOf } from '../../core/job/document';
import type { Print, Try, Version } from '../../core/job/history';
import { recipeOf } from '../../core/job/parts';
import { type Calibration, type Instrument, MOST_PIECE_READINGS } from '../../core/job/workshop';
import { secondsAt } from '../../core/print/time';
import { Work } from '../../core/work/work';
import type { App } from '../context';
import { HttpError, notFound } from '../errors';
import { preparePrint } from '../jobs/prints';
import { appendRow, readJob } from '../jobs/repository';
import type { Store } from '../store/database';
import { bench } from '../store/schema';
import { readWorkshop } from '../workshop/repository';

/** The most bytes of a file that the practice printer accepts. */
const MOST_FILE = 64e6;
const PrintAsked = z.object({
  versionId: z.string(),
  mayFail: z.preprocess(x => x === true || x === 'yes', z.boolean()),
});

/** The stand-ins for hardware. They answer through the same paths as a caliper, a printer, a maker. */
export function benchRoutes(app: App): Router {
  const router = Router();
  const { store, events, solids, reader } = app;

  router.use(async (_req, _res, next) => {
    const { workshop } = await readWorkshop(store.db);
    if (!workshop.practiceBench)
      throw new HttpError(409, 'bench-off', 'The practice bench is off: switch it on in Workshop.');
    next();
  });

  /** Presses the simulated caliper's data button: the reading arrives at the stream like any other. */
  router.post('/jobs/:id/caliper', async (req, res) => {
    const { dimensionId, instrumentId } = z
      .object({ dimensionId: z.string(), instrumentId: z.string().nullable().default(null) })
      .parse(req.body);
    const job = await readJob(store.db, req.params.id);
    const dimension = job.document.dimensions.find(d => d.id === dimensionId);
    if (!dimension) throw notFound('That dimension');
    const { workshop } = await readWorkshop(store.db);
    const resolution = workshop.instruments.find(i => i.id === instrumentId)?.resolution ?? 0.01;
    const world = await worldOf(store, job);
    const value = readCaliper(world, dimension.name, dimension.readings.length, resolution);
    if (value === undefined)
      throw new HttpError(
        422,
        'not-on-object',
        'The practice object has no such dimension: type a reading instead.',
      );
    events.send({ kind: 'reading', text: value.toFixed(2), instrumentId, jobId: job.id, dimensionId });
    res.status(202).json({ sent: true });
  });

  /** Scans the hidden object: the page sends the file on as it would any other. */
  router.post('/jobs/:id/scan', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const { partId } = z.object({ partId: z.string() }).parse(req.body);
    const part = job.document.parts.find(p => p.id === partId);
    if (!part) throw notFound('That part');
    const world = await worldOf(store, job);
    const count = job.document.scans.length;
    const { file } = await reader.run('practiceScan', { recipe: part.recipe, world, count });
    if (!file)
      throw new HttpError(
        422,
        'no-object',
        'The practice scanner has no object for this recipe: it has one for caps, tubes, bores, knobs and what a part follows.',
      );
    res.set('content-type', 'model/stl').end(Buffer.from(file));
  });

  /** Photographs it on the sheet: the accompanying readings are in the headers. */
  router.post('/jobs/:id/photo', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const { partId } = z.object({ partId: z.string() }).parse(req.body);
    const part = job.document.parts.find(p => p.id === partId);
    if (!part) throw notFound('That part');
    const world = await worldOf(store, job);
    const count = job.document.traces?.length ?? 0;
    const { photo } = await reader.run('practicePhoto', { recipe: part.recipe, world, count });
    if (!photo)
      throw new HttpError(
        422,
        'no-object',
        'The practice camera has no flat object for this recipe: it has one for profile parts, caps and bushes.',
      );
    res.set({
      'content-type': 'image/jpeg',
      'x-sagoma-thickness': String(photo.thickness),
      'x-sagoma-f35': String(photo.f35),
      'x-sagoma-bar-across': String(photo.bars.across),
      'x-sagoma-bar-along': String(photo.bars.along),
    });
    res.end(Buffer.from(photo.file));
  });

  /** Prints a version, or the uploaded file, right or wrong, as any printer does. */
  router.post(
    '/jobs/:id/print',
    express.raw({ type: 'application/octet-stream', limit: MOST_FILE }),
    async (req, res) => {
      const asked = Buffer.isBuffer(req.body) ? req.query : req.body;
      const { versionId, mayFail } = PrintAsked.parse(asked);
      const job = await readJob(store.db, String(req.params.id));
      const { workshop } = await readWorkshop(store.db);
      const version = job.history.versions.find(v => v.id === versionId);
      const filed = Buffer.isBuffer(req.body) && version ? await fileFor(job, version, req.body) : null;
      const wish = {
        versionId,
        pieces: 1,
        hours: null,
        grams: null,
        cost: null,
        note: 'Made on the practice bench',
        failed: null,
        slice: null,
        ...(filed?.mirrored ? { hand: 'other' as const } : {}),
      };
      const prepared = await preparePrint(job, wish, true, workshop, { db: store.db, solids });
      const { expected, grams, cost } = prepared;
      const run = expected && printRun(expected.printerId, prepared.id, secondsAt(expected) / 3600, mayFail);
      const part = (x: number | null) => x && Number((x * (run?.share ?? 1)).toFixed(2));
      const row: Print = {
        ...prepared,
        hours: run ? Number(run.hours.toFixed(2)) : prepared.hours,
        failed: run?.failed ?? null,
        grams: part(grams),
        cost: part(cost),
        ...(filed ? { asFiled: sizesByMate(filed, version!) } : {}),
      };
      await store.write(tx => appendRow(tx, job.id, { kind: 'print', row }));
      events.send({ kind: 'job', jobId: job.id, revision: job.revision, tab: null });
      res.status(201).json({
        printId: row.id,
        hours: row.hours,
        failed: row.failed,
        filed: filed && { scale: filed.scale, mirrored: filed.mirrored },
      });
    },
  );

  /** What the file would print. @throws HttpError where it is another part, or none */
  async function fileFor(job: JobView, version: Version, file: Buffer): Promise<Filed> {
    const solid = await solids.built(version, { owner: job.id });
    if (!solid.ok) throw new HttpError(422, 'no-solid', 'The version’s solid could not be built.');
    const asked = { file: new Uint8Array(file), solid, pose: version.pose };
    const { filed, why } = await solids.pool.run('practiceFile', asked, { owner: job.id });
    if (filed) return filed;
    throw new HttpError(
      422,
      'other-file',
      why ?? 'That is not this version: another part, or stretched. Take the file from this version.',
    );
  }

  /** Puts the print on the hidden object and answers what hands would say; the maker records it or not. */
  router.post('/jobs/:id/try-on', async (req, res) => {
    const { printId } = z.object({ printId: z.string() }).parse(req.body);
    const job = await readJob(store.db, req.params.id);
    const print = job.history.prints.find(p => p.id === printId);
    const version = job.history.versions.find(v => v.id === print?.versionId);
    if (!print || !version) throw notFound('That print');
    const world = await worldOf(store, job);
    const verdicts = feel(world, job, version, print);
    res.json({ verdicts });
  });

  /** Puts each ring of a ladder on the hidden object. */
  router.post('/jobs/:id/ladders/:ladderId/try-on', async (req, res) => {
    const job = await readJob(store.db, req.params.id);
    const ladder = job.history.ladders.find(l => l.id === req.params.ladderId);
    const mate = fitsOf(job.document).find(m => m.id === ladder?.mateId);
    if (!ladder || !mate || mate.other.of !== 'object') throw notFound('That ladder');
    const world = await worldOf(store, job);
    const rung: BenchMate = {
      id: mate.id,
      side: mate.side,
      dimension: nameOfOther(job, mate),
      model: 0,
      want: windowForSize(ladder.want, ladder.sizes[0]!),
      soft: mate.soft,
    };
    const printer = drawPrinter(ladder.printerId ?? '', ladder.materialId ?? '');
    const verdicts = ladder.sizes.map((model, i) => {
      const drawn = { ...rung, model };
      const sizes = printSizes(world, printer, [drawn], seedOf(ladder.id, i));
      return tryOn(world, [drawn], sizes)[mate.id] ?? null;
    });
    res.json({ verdicts });
  });

  /** Prints the calibration piece and reads it: readings by feature, for the maker to keep or not. */
  router.post('/calibrations/:id/read', async (req, res) => {
    const { featureIds, times } = z
      .object({
        featureIds: z.array(z.string()).max(100),
        times: z.number().int().min(1).max(MOST_PIECE_READINGS),
      })
      .parse(req.body);
    const { workshop } = await readWorkshop(store.db);
    const calibration = workshop.calibrations?.find(c => c.id === req.params.id);
    if (!calibration) throw notFound('That calibration');
    const instrument =
      workshop.instruments.find(i => i.id === calibration.piece?.instrumentId) ?? workshop.instruments[0]!;
    res.json({ readings: readPractice(calibration, featureIds, times, instrument) });
  });

  return router;
}

/** The practice caliper's readings of the practice printer's piece, by feature. */
export function readPractice(
  calibration: Pick<Calibration, 'id' | 'printerId' | 'materialId'>,
  featureIds: readonly string[],
  times: number,
  { resolution, jawLand = 0 }: Pick<Instrument, 'resolution' | 'jawLand'>,
): Record<string, number[]> {
  const printer = drawPrinter(calibration.printerId, calibration.materialId);
  const piece = seedOf(calibration.id);
  return Object.fromEntries(
    featureIds.flatMap(id => {
      const feature = featureOf(id);
      const read = (n: number) =>
        Number(readPiece(printer, feature!, piece, n, resolution, jawLand).toFixed(3));
      return feature ? [[id, Array.from({ length: times }, (_, n) => read(n))]] : [];
    }),
  );
}

const sizesByMate = ({ sizes }: Filed, version: Version): Record<string, number> =>
  Object.fromEntries(
    version.mates.flatMap(m => {
      const size = sizes[m.surface];
      return size !== undefined && Number.isFinite(size) ? [[m.mateId, size]] : [];
    }),
  );

export function feel(world: World, job: JobView, version: Version, print: Print) {
  const mates = benchMates(job, version).map(m => ({ ...m, model: print.asFiled?.[m.id] ?? m.model }));
  const printer = drawPrinter(version.printerId ?? '', version.materialId ?? '');
  return tryOn(world, mates, printSizes(world, printer, mates, print.number));
}

function benchMates(job: JobView, version: Version): BenchMate[] {
  const recipe = recipeOf(version);
  return version.mates.map(m => {
    const { side, form } = m.own ?? recipe.mates.find(spec => spec.id === m.surface)!;
    const mate = fitsOf(job.document).find(x => x.id === m.mateId);
    return {
      id: m.mateId,
      side,
      form,
      dimension: nameOfOther(job, mate),
      model: m.model,
      want: windowForSize(m.want, m.reading.value),
      soft: mate?.soft ?? 'none',
    };
  });
}

/** The practice object's name for the other side of a mate; empty where that is one of our own parts. */
function nameOfOther({ document }: JobView, mate: FitMate | undefined): string {
  if (mate?.other.of !== 'object') return '';
  const { dimension } = mate.other;
  return document.dimensions.find(d => d.id === dimension)?.name ?? '';
}

/** A job's hidden object: made at the first request, and extended when parts were added to the job since. */
export async function worldOf(store: Store, job: JobView): Promise<World> {
  const { workshop } = await readWorkshop(store.db);
  const { exampleSizes } = new Work(job.document, workshop, job.history);
  const drawn = drawWorld(job.id, exampleSizes);
  const [row] = await store.db.select().from(bench).where(eq(bench.jobId, job.id));
  const kept = row ? (JSON.parse(row.document) as World) : null;
  if (kept && Object.keys(drawn.sizes).every(name => name in kept.sizes)) return kept;
  const world = kept ? { ...kept, sizes: { ...drawn.sizes, ...kept.sizes } } : drawn;
  await setWorld(store, job.id, world);
  return world;
}

export async function setWorld(store: Store, jobId: string, world: World): Promise<void> {
  await store.write(tx =>
    tx
      .insert(bench)
      .values({ jobId, document: JSON.stringify(world) })
      .onConflictDoUpdate({ target: bench.jobId, set: { document: JSON.stringify(world) } }),
  );
}

/** A try as the bench's hands would record it: for the demo's history. */
export function benchTry(world: World, job: JobView, version: Version, print: Print, note: string): Try {
  const verdicts = feel(world, job, version, print);
  return {
    id: ulid(),
    at: new Date().toISOString(),
    voided: null,
    printId: print.id,
    mates: Object.fromEntries(Object.entries(verdicts).map(([id, verdict]) => [id, { verdict }])),
    happened: [],
    photos: [],
    by: '',
    note,
  };
}
