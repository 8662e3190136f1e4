import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import type { JobAnswer } from '../contract/jobs';
import { createApp } from '../server/app';
import { KernelPool } from '../server/solids/pool';
import { openStore } from '../server/store/database';
import { readEdit } from './read-edit';

/** All test servers of a process share these threads: they are warm after the first. */
const pool = new KernelPool();
const reader = KernelPool.forReading();

/** A real server on a free port over a throw-away data folder, for tests. */
export async function testServer(
  folder = mkdtempSync(join(tmpdir(), 'sagoma-')),
  log = pino({ level: 'silent' }),
) {
  const { express, app, phones, close } = createApp(await openStore(folder), {
    log,
    version: 'test',
    pool,
    reader,
  });
  const server = createServer(express);
  await new Promise<void>(done => server.listen(0, '127.0.0.1', done));
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const call = async (
    method: string,
    path: string,
    given?: unknown,
    headers: Record<string, string> = {},
  ) => {
    const raw = given instanceof Uint8Array;
    const sent = {
      'x-sagoma-tab': 'tab-a',
      ...(given === undefined || raw ? {} : { 'content-type': 'application/json' }),
      ...headers,
    };
    const response = await fetch(`${base}/api${path}`, {
      method,
      headers: sent,
      body: given === undefined ? undefined : raw ? (given as BodyInit) : JSON.stringify(given),
    });
    const text = await response.text();
    // biome-ignore lint/suspicious/noExplicitAny: answers of every route pass here; tests look at what they expect
    const body = (text.startsWith('{') ? JSON.parse(text) : text) as any;
    const { status, headers: heard } = response;
    // A change says only what it changed: tests look at the job as it is then.
    const job = /^\/jobs\/([\w-]+)\/(?!bundle)/.exec(path)?.[1];
    if (!response.ok || !job || body?.changes === undefined) return { status, body, headers: heard };
    const whole = await fetch(`${base}/api/jobs/${job}`, { headers: sent });
    return { status, body: { ...body, ...((await whole.json()) as object) }, headers: heard };
  };
  return {
    base,
    folder,
    app,
    phones,
    call,
    bytes: async (path: string) => new Uint8Array(await (await fetch(`${base}/api${path}`)).arrayBuffer()),
    newJob: async (title = 'Cap', recipe = 'round-cap'): Promise<JobAnswer> =>
      (await call('POST', '/jobs', { title, recipe })).body,
    /** Stops without removing the data. */
    async stop() {
      app.events.close();
      server.closeAllConnections();
      await new Promise(done => server.close(done));
      await close();
    },
    remove: () => rmSync(folder, { recursive: true, force: true }),
  };
}

export type TestServer = Awaited<ReturnType<typeof testServer>>;

/** A reading whose id follows from what was read, so that a test can name it. */
export const readingEdit = (
  dimensionId: string,
  value: number,
  id = `r-${dimensionId}-${Math.round(1000 * value)}`,
) => readEdit(dimensionId, value, { id });
