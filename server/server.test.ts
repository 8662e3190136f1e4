import { mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createClient } from '@libsql/client';
import { strToU8, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { readingEdit, type TestServer, testServer } from '../testing/server';
import { Blobs } from './blobs/blobs';
import { openStore } from './store/database';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

/** fetch refuses to set Host: the raw client does not. */
function rawStatus(headers: Record<string, string>, method = 'GET'): Promise<number> {
  return new Promise((done, fail) => {
    const req = request(`${server.base}/api/health`, { method, headers }, res => {
      res.resume();
      done(res.statusCode ?? 0);
    });
    req.on('error', fail);
    req.end();
  });
}

describe('who may talk to it', () => {
  test('only by names of this machine', async () => {
    expect(await rawStatus({ host: 'localhost:4317' })).toBe(200);
    expect(await rawStatus({ host: '[::1]:4317' })).toBe(200);
    expect(await rawStatus({ host: 'sagoma.example:4317' })).toBe(403);
    expect(await rawStatus({ host: 'localhost.example' })).toBe(403);
  });
  test('only from its own page', async () => {
    expect(await rawStatus({ host: 'localhost:4317', origin: 'http://localhost:4317' })).toBe(200);
    expect(await rawStatus({ host: 'localhost:4317', origin: 'http://example.com' })).toBe(403);
    expect(await rawStatus({ host: 'localhost:4317', origin: 'null' })).toBe(403);
  });
  test('security headers are on every answer', async () => {
    const { headers } = await server.call('GET', '/health');
    expect(headers.get('content-security-policy')).toContain("default-src 'self'");
    expect(headers.get('content-security-policy')).not.toContain("'unsafe-eval'");
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    expect(headers.get('x-powered-by')).toBeNull();
  });
});

describe('errors have one shape', () => {
  test.each([
    ['GET', '/nowhere', undefined, 404, 'no-route'],
    ['GET', '/jobs/none', undefined, 404, 'not-found'],
    ['POST', '/jobs', { title: 'x'.repeat(2_000_000) }, 413, 'too-large'],
    ['POST', '/device/readings', { text: '' }, 400, 'bad-input'],
    ['PUT', '/workshop', { revision: 0, workshop: {} }, 400, 'bad-input'],
    ['POST', '/jobs/none/undo', {}, 400, 'bad-input'],
  ])('%s %s', async (method, path, body, status, code) => {
    expect(await server.call(method, path, body)).toMatchObject({
      status,
      body: { error: { code, message: expect.any(String) } },
    });
  });
  test('broken JSON', async () => {
    const response = await fetch(`${server.base}/api/jobs`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{"title":',
    });
    expect(response.status).toBe(400);
    expect(await response.json()).toMatchObject({ error: { code: 'bad-json' } });
  });
});

describe('bundles are not trusted', () => {
  const send = async (files: Record<string, Uint8Array> | Uint8Array) =>
    (await server.call('POST', '/import', files instanceof Uint8Array ? files : zipSync(files))).body.error;
  const manifest = (change: object) => ({
    'manifest.json': strToU8(
      JSON.stringify({
        format: 'sagoma-bundle',
        schemaVersion: 1,
        application: { name: 'Sagoma', version: '0' },
        contains: 'jobs',
        jobs: [],
        blobs: [],
        ...change,
      }),
    ),
  });
  test('what is no zip, or no bundle', async () => {
    expect(await send(strToU8('hello'))).toMatchObject({ code: 'bad-bundle' });
    expect(await send(new Uint8Array())).toMatchObject({ code: 'bad-bundle' });
    expect((await send({ 'a.txt': strToU8('x') })).message).toContain('manifest.json is missing');
    expect((await send({ 'manifest.json': strToU8('{') })).message).toContain('not JSON');
  });
  test('a newer format is refused in words', async () =>
    expect((await send(manifest({ schemaVersion: 2 }))).message).toContain('newer Sagoma'));
  test('a job that is not what the manifest says', async () => {
    const job = { id: 'a', title: 't', revision: 1, path: 'jobs/a.json', sha256: '0'.repeat(64) };
    expect((await send({ ...manifest({ jobs: [job] }), 'jobs/a.json': strToU8('{}') })).message).toContain(
      'damaged',
    );
  });
  test('a zip that unpacks to more than we take', async () => {
    const many = Object.fromEntries(Array.from({ length: 6001 }, (_, i) => [`f${i}`, new Uint8Array(1)]));
    expect((await send(many)).message).toContain('more than');
    // A zip states its sizes: one that claims too much is refused before anything is unpacked.
    const zip = zipSync({ 'manifest.json': new Uint8Array(100) });
    const view = new DataView(zip.buffer);
    for (let i = 0; i + 28 < zip.length; i++)
      if (view.getUint32(i, true) === 0x02014b50) view.setUint32(i + 24, 4e8, true);
    expect((await send(zip)).message).toContain('more than');
  });
});

describe('the workshop', () => {
  test('is saved on the revision that was looked at', async () => {
    const { revision, workshop } = (await server.call('GET', '/workshop')).body;
    const saved = await server.call('PUT', '/workshop', {
      revision,
      workshop: { ...workshop, name: 'Boathouse' },
    });
    expect(saved.body).toMatchObject({ revision: revision + 1, workshop: { name: 'Boathouse' } });
    expect((await server.call('PUT', '/workshop', { revision, workshop })).status).toBe(409);
    expect(
      (
        await server.call('PUT', '/workshop', {
          revision: revision + 1,
          workshop: { ...workshop, printers: [] },
        })
      ).body.error.message,
    ).toContain('at least one printer');
  });
});

describe('streams', () => {
  /** The next event of the stream after `act` ran. */
  async function eventAfter(act: () => Promise<unknown>) {
    const abort = new AbortController();
    const response = await fetch(`${server.base}/api/events?tab=t`, { signal: abort.signal });
    const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
    await act();
    let text = '';
    while (!/data: (.*)\n\n/.test(text)) text += (await reader.read()).value ?? '';
    abort.abort();
    return JSON.parse(/data: (.*)\n\n/.exec(text)![1]!);
  }
  test('a caliper’s reading reaches every window', async () => {
    expect(
      await eventAfter(() => server.call('POST', '/device/readings', { text: '31,72 mm' })),
    ).toMatchObject({ kind: 'reading', text: '31,72 mm', jobId: null });
  });
  test('the practice caliper takes the same path, once it is switched on', async () => {
    const job = await server.newJob();
    expect(
      (await server.call('POST', `/bench/jobs/${job.id}/caliper`, { dimensionId: 'rim' })).body.error.code,
    ).toBe('bench-off');
    const { revision, workshop } = (await server.call('GET', '/workshop')).body;
    await server.call('PUT', '/workshop', { revision, workshop: { ...workshop, practiceBench: true } });
    const event = await eventAfter(() =>
      server.call('POST', `/bench/jobs/${job.id}/caliper`, { dimensionId: 'rim' }),
    );
    expect(event).toMatchObject({
      kind: 'reading',
      jobId: job.id,
      dimensionId: 'rim',
      text: expect.stringMatching(/^\d+\.\d\d$/),
    });
  });
  test('an edit is told to the other windows', async () => {
    const job = await server.newJob();
    const event = await eventAfter(() =>
      server.call('POST', `/jobs/${job.id}/edits`, { revision: 1, edit: readingEdit('rim', 3) }),
    );
    expect(event).toEqual({ kind: 'job', jobId: job.id, revision: 2, tab: 'tab-a' });
  });
});

describe('the practice bench plays the whole loop', () => {
  test('from wrong priors it still fits within seven prints', { timeout: 180_000 }, async () => {
    const { revision: shop, workshop } = (await server.call('GET', '/workshop')).body;
    const belief = {
      inside: { mean: -0.1, sd: 0.14 },
      outside: { mean: 0.3, sd: 0.08 },
      repeatability: 0.04,
    };
    await server.call('PUT', '/workshop', {
      revision: shop,
      workshop: { ...workshop, practiceBench: true, belief },
    });
    const job = await server.newJob('Practice');
    const { worldOf } = await import('./bench/bench');
    const { readCaliper } = await import('../core/bench/world');
    const world = await worldOf(server.app.store, job);
    let revision = 1;
    for (let n = 0; n < 3; n++) {
      const value = Number(readCaliper(world, 'rim', n, 0.01)!.toFixed(2));
      revision = (
        await server.call('POST', `/jobs/${job.id}/edits`, {
          revision,
          edit: readingEdit('rim', value, `n${n}`),
        })
      ).body.revision;
    }
    revision = (
      await server.call('POST', `/jobs/${job.id}/edits`, { revision, edit: readingEdit('rim_height', 14) })
    ).body.revision;
    let verdict = '';
    let prints = 0;
    while (verdict !== 'right' && prints < 7) {
      const made = (await server.call('POST', `/jobs/${job.id}/versions`, { revision, partId: 'part-1' }))
        .body;
      const { printId } = (
        await server.call('POST', `/bench/jobs/${job.id}/print`, {
          versionId: made.history.versions.at(-1).id,
        })
      ).body;
      const { verdicts } = (await server.call('POST', `/bench/jobs/${job.id}/try-on`, { printId })).body;
      verdict = verdicts.skirt;
      prints += 1;
      await server.call('POST', `/jobs/${job.id}/tries`, { printId, mates: { skirt: { verdict } } });
    }
    expect(verdict).toBe('right');
  });
});

describe('the store', () => {
  test('refuses data of a newer Sagoma with a sentence', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'sagoma-newer-'));
    await (await openStore(folder)).close();
    const client = createClient({ url: `file:${join(folder, 'sagoma.db')}` });
    await client.execute(
      "insert into __drizzle_migrations (hash, created_at) values ('future', 99999999999999)",
    );
    client.close();
    await expect(openStore(folder)).rejects.toThrow('newer Sagoma');
  });
  test('writes wait for each other instead of failing', async () => {
    const store = await openStore(mkdtempSync(join(tmpdir(), 'sagoma-queue-')));
    let inside = 0;
    let most = 0;
    await Promise.all(
      Array.from({ length: 20 }, () =>
        store.write(async () => {
          inside += 1;
          most = Math.max(most, inside);
          await new Promise(done => setTimeout(done, 2));
          inside -= 1;
        }),
      ),
    );
    await expect(store.write(async () => Promise.reject(new Error('one fails')))).rejects.toThrow(
      'one fails',
    );
    await expect(store.write(async () => 'the next goes on')).resolves.toBe('the next goes on');
    expect(most).toBe(1);
    await store.close();
  });
  test('blobs are kept once, by content, and a damaged one is not handed out', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'sagoma-blobs-'));
    const store = await openStore(folder);
    const blobs = new Blobs(store);
    const [a, b] = await Promise.all([blobs.put(strToU8('same')), blobs.put(strToU8('same'))]);
    expect(a).toBe(b);
    expect(await blobs.get(a)).toEqual(Buffer.from('same'));
    const shelf = join(folder, 'blobs', a.slice(0, 2));
    expect(readdirSync(shelf)).toEqual([a]);
    writeFileSync(join(shelf, a), 'other');
    expect(await blobs.get(a)).toBeNull();
    expect(await blobs.get('../../etc/passwd')).toBeNull();
    await store.close();
  });
});
