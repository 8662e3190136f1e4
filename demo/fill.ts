import { ulid } from 'ulid';
import type { JobView } from '../contract/jobs';
import { seedOf } from '../core/bench/random';
import { readCaliper, type World } from '../core/bench/world';
import { FEATURES } from '../core/calibration/piece';
import { writeStl } from '../core/files/stl';
import type { Reading } from '../core/job/document';
import type { Edit } from '../core/job/edits';
import { newJob } from '../core/job/new-job';
import type { Calibration, Workshop } from '../core/job/workshop';
import { findingsOf } from '../core/scan/find/findings';
import { ScanSurface } from '../core/scan/scan-surface';
import { requireRecipe } from '../core/shape/recipes';
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
import { BOATHOUSE, CALIBRATION, type DemoJob, type DemoStep, JOBS } from './boathouse';
import { scannedVentPort } from './scanned-object';

/** Fills an empty data folder with the boathouse, through the app's own paths: `tsx demo/fill.ts DIR`. */
const DAY = 86_400_000;
/** Steps of a demo job are this far apart, ms. */
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
    // Nothing in the demo lies in the future, however early in the day it is filled.
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
      const scan = {
        id: ulid(),
        sha256: await makers.blobs.put(writeStl(mesh, step.label)),
        label: step.label,
        unit: 'mm' as const,
        steps: [],
      };
      await send({ kind: 'add-scan', scan }, job.revision);
      const rim = findingsOf(new ScanSurface(mesh)).find(
        f => f.kind === 'cylinder' && f.sizes[0]?.kind === 'outside',
      );
      const size = rim?.sizes[0];
      if (!rim || !size) throw new Error('The demo’s scan shows no rim.');
      const reading: Reading = {
        id: ulid(),
        value: Number(size.value.toFixed(4)),
        text: `${size.value.toFixed(3)}, scanned`,
        unit: 'mm',
        at,
        instrumentId: null,
        source: 'scan',
        via: 'import',
        u: Number(size.u.toFixed(5)),
        struck: null,
        scanned: { scan: scan.id, kind: rim.kind, near: [...rim.near] },
      };
      await send({ kind: 'add-reading', dimensionId: step.dimension, reading }, job.revision + 1);
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

const [folder] = process.argv.slice(2);
if (!folder) {
  process.stderr.write('Say which folder: tsx demo/fill.ts DIR\n');
  process.exit(2);
}
await fill(folder);
