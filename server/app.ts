import { existsSync } from 'node:fs';
import express, { type Express, Router } from 'express';
import { z } from 'zod';
import { ChoicesAsked } from '../contract/import';
import type { LessonsAnswer } from '../contract/lessons';
import type { PaceAnswer } from '../contract/pace';
import type { WorthAnswer } from '../contract/worth';
import { Workshop } from '../core/job/workshop';
import { MIDDLES, PAPERS } from '../core/trace/sheet/layout';
import { benchRoutes } from './bench/bench';
import { Blobs } from './blobs/blobs';
import { importBundle, lookAtBundle } from './bundle/bundle';
import { calibrationRoutes } from './calibration/routes';
import type { App } from './context';
import { deviceRoutes } from './device/routes';
import { errorHandler, notFound, unknownRoute } from './errors';
import { Events, tabOfStream } from './events';
import { hostAndOrigin, securityHeaders } from './guard';
import { tabOf } from './jobs/answering';
import { notedPrints } from './jobs/prints';
import { queueRoutes } from './jobs/queue-routes';
import { RackReader } from './jobs/rack';
import { jobRoutes } from './jobs/routes';
import { type Log, logRequests } from './log';
import { modelRoutes } from './models/routes';
import { servePage } from './page';
import { passphraseGate } from './passphrase';
import { PhoneDoor } from './phone/door';
import { createDoorApp } from './phone/door-app';
import { OnBench } from './phone/on-bench';
import { Pairing } from './phone/pairing';
import { onBenchRoutes, phoneRoutes } from './phone/routes';
import { Visits } from './phone/visits';
import { Builds } from './solids/builds';
import { KernelPool } from './solids/pool';
import { Solids } from './solids/solids';
import type { Store } from './store/database';
import { repeatabilityOfInstruments } from './workshop/repeatability';
import { readWorkshop, saveWorkshop } from './workshop/repository';
import { readWorth } from './workshop/worth';

export interface AppOptions {
  log: Log;
  version: string;
  /** Folder of the built page; left out where its own development server serves the page. */
  page?: string;
  /** Accepted hosts besides this machine's own. */
  hosts?: readonly string[];
  /** The passphrase that every browser is asked for; left out where only this machine is served. */
  passphrase?: string;
  /** The port of the phones' door once it is opened; 0 or left out, any free one. */
  phonePort?: number;
  /** Kernel threads shared with other servers of this process; left out, its own. */
  pool?: KernelPool;
  reader?: KernelPool;
}

/** The open windows of a browser, which share one stream. */
const Presence = z.object({ tabs: z.array(z.string().min(1).max(60)).max(200) });

const MOST_JSON = '1mb';
const MOST_BUNDLE = '64mb';

export function createApp(
  store: Store,
  options: AppOptions,
): { express: Express; app: App; phones: PhoneDoor; close(): Promise<void> } {
  const blobs = new Blobs(store);
  const pool = options.pool ?? new KernelPool();
  const reader = options.reader ?? KernelPool.forReading();
  const events = new Events();
  const app: App = {
    store,
    blobs,
    pool,
    reader,
    solids: new Solids(store, blobs, pool),
    builds: new Builds(events),
    events,
    onBench: new OnBench(store, events),
    rack: new RackReader(store, reader, events, options.version),
    version: options.version,
  };
  const { log } = options;
  const page = options.page && existsSync(options.page) ? options.page : undefined;
  const api = apiRoutes(app);
  const pairing = new Pairing();
  const visits = new Visits();
  const phones = new PhoneDoor(
    createDoorApp({ store, events, log, pairing, visits, api, page }),
    options.phonePort ?? 0,
  );
  const server = express();
  server.disable('x-powered-by');
  server.use(securityHeaders);
  server.use(hostAndOrigin(() => options.hosts ?? []));
  server.use(logRequests(log));
  if (options.passphrase !== undefined) server.use(passphraseGate(options.passphrase));
  server.use('/api/phones', phoneRoutes({ store, events, pairing, visits, door: phones }));
  server.use('/api', api);
  if (page) servePage(server, page);
  server.use(errorHandler(log));
  return {
    express: server,
    app,
    phones,
    async close() {
      app.events.close();
      await phones.shut();
      // A pool that was handed in belongs to its owner.
      if (!options.pool) await pool.close();
      if (!options.reader) await reader.close();
      await store.close();
    },
  };
}

function apiRoutes(app: App): Router {
  const { store, blobs, events } = app;
  const api = Router();
  api.get('/health', async (_req, res) => {
    await store.db.run('select 1');
    res.json({ ok: true, version: app.version });
  });
  // A window that asks is open, whether its presence was reported in time or not.
  api.use((req, _res, next) => {
    if (req.get('x-sagoma-tab')) events.hear(tabOf(req));
    next();
  });
  api.get('/events', (req, res) => events.listen(req, res, tabOfStream(req)));
  const bundle = express.raw({ type: () => true, limit: MOST_BUNDLE });
  const bytesOf = (req: express.Request) =>
    new Uint8Array(Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0));
  api.post('/import/look', bundle, async (req, res) => {
    res.json(await lookAtBundle(bytesOf(req), store, app.reader));
  });
  api.post('/import', bundle, async (req, res) => {
    const { choose } = z.object({ choose: ChoicesAsked }).parse(req.query);
    const answer = await importBundle(bytesOf(req), choose, store, blobs, app.reader);
    for (const job of answer.jobs) events.send({ kind: 'job', jobId: job.id, revision: 0, tab: null });
    res.status(201).json(answer);
  });
  api.use(express.json({ limit: MOST_JSON }));
  api.post('/presence', (req, res) => {
    for (const tab of Presence.parse(req.body).tabs) events.hear(tab);
    res.status(204).end();
  });
  api.use('/on-bench', onBenchRoutes(app.onBench));
  api.get('/reference-sheet.pdf', async (req, res) => {
    const asked = z.object({ paper: z.enum(PAPERS), middle: z.enum(MIDDLES) }).parse(req.query);
    const { file } = await app.reader.run('drawReferenceSheet', asked);
    res.set({
      'content-type': 'application/pdf',
      'content-disposition': `attachment; filename="sagoma-sheet-${asked.paper}${asked.middle === 'dark' ? '-dark' : ''}.pdf"`,
    });
    res.end(Buffer.from(file));
  });
  api.get('/workshop', async (_req, res) => {
    res.json(await readWorkshop(store.db));
  });
  api.get('/workshop/repeatability', async (_req, res) => {
    const { workshop } = await readWorkshop(store.db);
    res.json({ instruments: await repeatabilityOfInstruments(store.db, workshop) });
  });
  api.put('/workshop', async (req, res) => {
    const { revision, workshop } = z
      .object({ revision: z.number().int(), workshop: Workshop })
      .parse(req.body);
    res.json(await store.write(tx => saveWorkshop(tx, revision, workshop)));
  });
  api.get('/pace', async (_req, res) => {
    const answer: PaceAnswer = { noted: await notedPrints(app.store.db) };
    res.json(answer);
  });
  api.get('/lessons', async (_req, res) => {
    const answer: LessonsAnswer = { evidence: await app.rack.lessons() };
    res.json(answer);
  });
  api.get('/worth', async (_req, res) => {
    const answer: WorthAnswer = await readWorth(app.store.db, new Date());
    res.json(answer);
  });
  api.delete('/builds/:id', (req, res) => {
    if (!app.builds.cancel(req.params.id)) throw notFound('That piece of work');
    res.json({ cancelled: true });
  });
  api.use('/queue', queueRoutes(app));
  api.use('/calibrations', calibrationRoutes(app));
  api.use('/models', modelRoutes(app));
  api.use('/jobs', jobRoutes(app));
  api.use('/device', deviceRoutes(app));
  api.use('/bench', benchRoutes(app));
  api.use(unknownRoute);
  return api;
}
