import { strToU8, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { type TestServer, testServer } from '../testing/server';
import { KernelPool, TookTooLong } from './solids/pool';

/** Files made to keep a reader busy: they are refused soon, and nobody else waits for them. */
let server: TestServer;
let job: string;
beforeAll(async () => {
  server = await testServer();
  job = (await server.newJob()).id;
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

/** The longest time that the server took to answer others meanwhile, ms. */
async function whileServing(work: Promise<{ status: number; body: { error: { message: string } } }>) {
  let done = false;
  const answer = work.finally(() => {
    done = true;
  });
  let longest = 0;
  while (!done) {
    const began = performance.now();
    expect((await server.call('GET', '/health')).status).toBe(200);
    longest = Math.max(longest, performance.now() - began);
    await new Promise(next => setTimeout(next, 20));
  }
  return { ...(await answer), longest };
}

/** A picture of another type with nested boxes, 400 kB of them. */
function nestedAvif(): Uint8Array {
  const bytes = new Uint8Array(400_000);
  bytes.set([0, 0, 0, 16, ...strToU8('ftypavif'), 0, 0, 0, 0]);
  for (let i = 16; i + 8 <= bytes.length; i += 8) bytes.set([0, 0, 0, 8, ...strToU8('meta')], i);
  return bytes;
}
function zeros(head: readonly number[], size: number): Uint8Array {
  const bytes = new Uint8Array(size);
  bytes.set(head);
  return bytes;
}

describe('a file made to keep its reader busy', () => {
  test.each([
    ['an AVIF of nested boxes', nestedAvif()],
    ['a JPEG of zeros', zeros([0xff, 0xd8, 0xff, 0xe0], 11e6)],
    ['a WebP of zeros', zeros([...strToU8('RIFF'), 0, 0, 0, 0, ...strToU8('WEBP')], 3e6)],
    ['a PNG of zeros', zeros([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a], 11e6)],
  ])('%s is refused, and others are answered meanwhile', async (_, bytes) => {
    const { status, body, longest } = await whileServing(server.call('POST', `/jobs/${job}/photos`, bytes));
    expect(status).toBe(422);
    expect(body.error.message).toMatch(/JPEG, PNG or WebP|took longer/);
    expect(longest).toBeLessThan(1500);
  });

  test('a zip whose manifest unpacks to 250 MB is refused by what it says of itself', async () => {
    const bomb = zipSync({ 'manifest.json': new Uint8Array(250e6) }, { level: 9 });
    expect(bomb.length).toBeLessThan(1e6);
    const { status, body, longest } = await whileServing(server.call('POST', '/import', bomb));
    expect(status).toBe(422);
    expect(body.error.message).toMatch(/more than Sagoma takes/);
    expect(longest).toBeLessThan(1500);
  });

  test('paths that mean something else to a program are no files of a bundle', async () => {
    for (const path of ['__proto__', 'constructor', 'toString']) {
      const manifest = {
        format: 'sagoma-bundle',
        schemaVersion: 1,
        application: { name: 'Sagoma', version: '1' },
        contains: 'jobs',
        jobs: [{ id: 'a', title: 'a', revision: 1, path, sha256: '0'.repeat(64) }],
        blobs: [],
      };
      const zip = zipSync({ 'manifest.json': strToU8(JSON.stringify(manifest)) });
      const { status, body } = await server.call('POST', '/import', zip);
      expect(status, path).toBe(422);
      expect(body.error.message).toMatch(/damaged/);
    }
  });
});

test('one that hangs is ended at its own time, and what waited behind it is not blamed', async () => {
  const pool = new KernelPool(1, { readPhoto: 5000, readBundle: 50 });
  await pool.run('readPhoto', { head: strToU8('warm') });
  const slow = zipSync({ 'manifest.json': strToU8(`[${'1,'.repeat(1.9e6)}1]`) }, { level: 9 });
  // Two at once on one thread: the second begins when the first has ended, and has its full time.
  const [first, second] = await Promise.allSettled([
    pool.run('readBundle', { file: slow }),
    pool.run('readPhoto', { head: strToU8('not a photo at all') }),
  ]);
  expect(first.status === 'rejected' && first.reason).toBeInstanceOf(TookTooLong);
  expect(second).toMatchObject({ status: 'fulfilled', value: { photo: { ok: false } } });
  await pool.close();
});

test('what was given up while it waited is not worked off', async () => {
  const pool = new KernelPool(1);
  const given = new AbortController();
  const before = pool.run('readPhoto', { head: strToU8('one') });
  const waiting = pool.run('readPhoto', { head: strToU8('two') }, { signal: given.signal });
  given.abort();
  await before;
  await expect(waiting).rejects.toThrow(/Stopped, as asked/);
  expect(pool.ran.readPhoto).toBe(1);
  await pool.close();
});
