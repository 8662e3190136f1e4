import { ulid } from 'ulid';
import type { JobView } from '../contract/jobs';
import { jpegOf } from '../core/bench/jpeg';
import { practicePhoto } from '../core/bench/practice-photo';
import { seedOf } from '../core/bench/random';
import { readCaliper, type World } from '../core/bench/world';
import { FEATURES } from '../core/calibration/piece';
import { writeStl } from '../core/files/stl';
import type { Photo, Reading } from '../core/job/document';
import type { Edit } from '../core/job/edits';
import { newJob } from '../core/job/new-job';
import type { Scan } from '../core/job/scans';
import type { Trace } from '../core/job/traces';
import type { Calibration, Workshop } from '../core/job/workshop';
import { findingsOf } from '../core/scan/find/findings';
import { ScanSurface } from '../core/scan/scan-surface';
import { scannedReading } from '../core/scan/scanned-reading';
import { followed } from '../core/scan/thinned';
import { boundsOf, type TriangleMesh } from '../core/shape/mesh/mesh';
import { requireRecipe } from '../core/shape/recipes';
import { USUAL_BROKEN, USUAL_TOLERANCE } from '../core/trace/usual';
import { preparedAs } from '../core/work/scan-trust';
import { benchTry, readPractice, setWorld } from '../server/bench/bench';
import { Blobs } from '../server/blobs/blobs';
import { editJob } from '../server/jobs/editing';
import { preparePrint } from '../server/jobs/prints';
import { appendRow, insertJob, readJob } from '../server/jobs/repository';
import { type Makers, prepareVersion } from '../server/jobs/versions';
import { KernelPool } from '../server/solids/pool';
import { Solids } from '../server/solids/solids';
import { openStore, type Store } from '../server/store/database';
import { saveWorkshop } from '../server/workshop/repository';
import { BOATHOUSE, CALIBRATION } from './boathouse';
import { JOBS } from './jobs';
import { scannedTorch, scannedVentPort } from './scanned-object';
import type { DemoJob, DemoStep } from './steps';

/** Fills an empty data folder with the boathouse, through the app's own paths: `tsx demo/fill.ts DIR`. */
const DAY = 86_400_000;
/** Time between the steps of a demo job, ms. */
const STEP = 47 * 60_000;
const editor = { tab: 'demo', isOpen: () => false };

export async function fill(folder: string): Promise<void> {
  const store = await openStore(folder);
  const blobs = new Blobs(store);
  const pool = new KernelPool();
  const makers = { solids: new Solids(store, blobs, pool), blobs };
  try {
    await store.write(tx => saveWorkshop(tx, 0, BOATHOUSE));
    const [before, after] = [
      JOBS.filter(j => j.daysAgo > CALIBRATION.daysAgo),
      JOBS.filter(j => j.daysAgo <= CALIBRATION.daysAgo),
    ];
    for (const job of before) await play(job, BOATHOUSE, store, makers);
    const calibrated = { ...BOATHOUSE, calibrations: [calibration()] };
    await store.write(tx => saveWorkshop(tx, 1, calibrated));
    for (const job of after) await play(job, calibrated, store, makers);
  } finally {
    await pool.close();
    await store.close();
  }
}

function calibration(): Calibration {
  const { daysAgo, times, ...settings } = CALIBRATION;
  const ids = FEATURES.map(f => f.id);
  return {
    ...settings,
    at: new Date(Date.now() - daysAgo * DAY).toISOString(),
    rows: [],
    piece: {
      instrumentId: 'calipers',
      readings: readPractice(settings, ids, times, BOATHOUSE.instruments[0]!),
    },
  };
}

async function play(demo: DemoJob, shop: Workshop, store: Store, makers: Makers): Promise<void> {
  const document = newJob(demo.title, requireRecipe(demo.recipe ?? 'round-cap'), shop, demo.materialId);
  document.object.name = demo.object;
  const id = await store.write(tx => insertJob(tx, document));
  const world: World = { ...demo.world, seed: seedOf('boathouse', demo.title) };
  await setWorld(store, id, world);
  let at = Date.now() - demo.daysAgo * DAY;
  for (const step of demo.steps) {
    at += STEP;
    // Nothing in the demo is in the future, however early in the day it is filled.
    await playStep(
      step,
      await readJob(store.db, id),
      world,
      shop,
      new Date(Math.min(at, Date.now())).toISOString(),
      store,
      makers,
    );
  }
}

async function playStep(
  step: DemoStep,
  job: JobView,
  world: World,
  shop: Workshop,
  at: string,
  store: Store,
  makers: Makers,
): Promise<void> {
  const send = (edit: Edit, revision: number) =>
    store.write(tx => editJob(tx, job.id, revision, edit, shop, editor));
  switch (step.do) {
    case 'edit':
      await send(step.edit, job.revision);
      return;
    case 'read': {
      const instrument = BOATHOUSE.instruments.find(i => i.id === (step.instrument ?? 'calipers'))!;
      for (let n = 0; n < step.times; n++) {
        const value = Number(readCaliper(world, step.dimension, n, instrument.resolution)!.toFixed(2));
        const reading: Reading = {
          id: ulid(),
          value,
          text: value.toFixed(2),
          unit: 'mm',
          at,
          instrumentId: instrument.id,
          source: 'seat',
          via: 'typed',
          struck: null,
        };
        await send({ kind: 'add-reading', dimensionId: step.dimension, reading }, job.revision + n);
      }
      return;
    }
    case 'type':
      for (const [n, value] of step.values.entries()) {
        const reading: Reading = {
          id: ulid(),
          value,
          text: value.toFixed(2),
          unit: 'mm',
          at,
          instrumentId: step.instrument ?? 'calipers',
          source: 'seat',
          via: 'typed',
          struck: null,
        };
        await send({ kind: 'add-reading', dimensionId: step.dimension, reading }, job.revision + n);
      }
      return;
    case 'scan': {
      const mesh = scannedVentPort(world);
      const scan = await keptScan(mesh, step.label, makers);
      await send({ kind: 'add-scan', scan }, job.revision);
      const rim = findingsOf(new ScanSurface(mesh)).find(
        f => f.kind === 'cylinder' && f.sizes[0]?.kind === 'outside',
      );
      const size = rim?.sizes[0];
      if (!rim || !size) throw new Error('The demo’s scan shows no rim.');
      const place = { scan: scan.id, kind: rim.kind, near: [...rim.near] as [number, number, number] };
      const reading = scannedReading({ id: ulid(), at, value: size.value, u: size.u, place });
      await send({ kind: 'add-reading', dimensionId: step.dimension, reading }, job.revision + 1);
      return;
    }
    case 'follow': {
      const mesh = scannedTorch(world);
      const scan = await keptScan(mesh, step.label, makers);
      const surface = followed(new ScanSurface(mesh), { lies: 'drawn', turn: 0 });
      const { min, max } = boundsOf(surface.mesh);
      const model = {
        id: ulid(),
        sha256: await makers.blobs.put(writeStl(surface.mesh, 'surface')),
        label: step.label,
        factor: 1 as const,
        size: [max[0] - min[0], max[1] - min[1], max[2] - min[2]] as [number, number, number],
        triangles: surface.mesh.triangles.length / 3,
        hull: false,
        surface: true as const,
        from: { scan: scan.id, prepared: preparedAs(scan) },
      };
      const place = { scan: scan.id, kind: 'across' as const, near: [0, 0, 0] as [number, number, number] };
      const readings = (['width', 'length', 'high'] as const).map(dimensionId => ({
        dimensionId,
        reading: scannedReading({ id: ulid(), at, value: surface[dimensionId], u: surface.u, place }),
      }));
      const expression = { text: model.id, unit: 'none' as const };
      const edits: Edit[] = [
        { kind: 'add-scan', scan },
        { kind: 'add-model', model },
        { kind: 'add-readings', readings },
        { kind: 'parameter', partId: 'part-1', name: 'object', expression },
      ];
      for (const [n, edit] of edits.entries()) await send(edit, job.revision + n);
      return;
    }
    case 'photo': {
      const recipe = job.document.parts.find(p => p.id === 'part-1')!.recipe;
      const taken = practicePhoto(recipe, world, 0, DEMO_PHOTO);
      if (!taken) throw new Error('The demo’s object has no flat face.');
      const { picture, thickness, bars, f35 } = taken;
      const photo: Photo = {
        id: ulid(),
        sha256: await makers.blobs.put(jpegOf(picture)),
        type: 'image/jpeg',
        width: picture.width,
        height: picture.height,
        label: step.label,
      };
      const trace: Trace = {
        id: ulid(),
        photo: photo.id,
        label: step.label,
        by: { kind: 'sheet', paper: 'a4', middle: 'white', bars, f35 },
        thickness,
        broken: USUAL_BROKEN,
        tolerance: USUAL_TOLERANCE,
        strokes: [],
        tidy: [],
      };
      await send({ kind: 'add-photo', photo }, job.revision);
      await send({ kind: 'add-trace', trace }, job.revision + 1);
      return;
    }
    case 'version': {
      const row = await prepareVersion(job, shop, [], { partId: 'part-1', accepted: [] }, makers);
      await store.write(tx => appendRow(tx, job.id, { kind: 'version', row: { ...row, at } }));
      return;
    }
    case 'print': {
      const version = job.history.versions.at(-1)!;
      const wish = {
        versionId: version.id,
        pieces: 1,
        hours: step.hours ?? null,
        grams: null,
        cost: null,
        note: '',
        failed: null,
        slice: null,
      };
      const row = await preparePrint(job, wish, true, shop, { db: store.db, solids: makers.solids });
      await store.write(tx => appendRow(tx, job.id, { kind: 'print', row: { ...row, at } }));
      return;
    }
    case 'try': {
      const print = job.history.prints.at(-1)!;
      const version = job.history.versions.find(v => v.id === print.versionId)!;
      const row = { ...benchTry(world, job, version, print, step.note), at };
      await store.write(tx => appendRow(tx, job.id, { kind: 'try', row }));
    }
  }
}

/** px: drawn while the demo is filled. */
const DEMO_PHOTO = [1350, 1800] as const;

async function keptScan(mesh: TriangleMesh, label: string, { blobs }: Makers): Promise<Scan> {
  return { id: ulid(), sha256: await blobs.put(writeStl(mesh, label)), label, unit: 'mm', steps: [] };
}

const [folder] = process.argv.slice(2);
if (!folder) {
  process.stderr.write('Say which folder: tsx demo/fill.ts DIR\n');
  process.exit(2);
}
await fill(folder);
