import { existsSync, mkdirSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ulid } from 'ulid';
import { afterEach, expect, test } from 'vitest';
import { testServer } from '../../testing/server';
import { blobs, solids } from '../store/schema';
import { GRACE, sweepBlobs } from './sweep';

const PNG = new Uint8Array(
  Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  ),
);
const daysAgo = (days: number) => new Date(Date.now() - days * 24 * 3_600_000);

let server: Awaited<ReturnType<typeof testServer>>;
afterEach(async () => {
  await server.stop();
  rmSync(server.folder, { recursive: true, force: true });
});

/** Makes a file look as if it was stored that long ago. */
function age(sha256: string, days: number) {
  utimesSync(server.app.blobs.path(sha256), daysAgo(days), daysAgo(days));
}
const isThere = (sha256: string) => existsSync(server.app.blobs.path(sha256));

test('what nothing names goes after its grace; what a photo, an undone edit or a solid names stays', async () => {
  server = await testServer();
  const { app } = server;
  const { id } = await server.newJob();
  await server.call('POST', `/jobs/${id}/photos?label=Rim`, PNG);
  const before = (await server.call('GET', `/jobs/${id}`)).body;
  const photo: string = before.document.photos[0].sha256;
  const left = await app.blobs.put(new TextEncoder().encode('left'));
  const young = await app.blobs.put(new TextEncoder().encode('young'));
  const mesh = await app.blobs.put(new TextEncoder().encode('mesh'));
  const stale = await app.blobs.put(new TextEncoder().encode('stale'));
  const solid = (sha: string, days: number) => ({
    key: ulid(),
    record: '{}',
    mesh: sha,
    at: daysAgo(days).toISOString(),
  });
  await app.store.write(tx => tx.insert(solids).values([solid(mesh, 1), solid(stale, GRACE + 1)]));
  for (const sha of [photo, left, mesh, stale]) age(sha, GRACE + 1);
  age(young, GRACE - 1);

  expect(await sweepBlobs(app.store)).toBe(2);
  expect([photo, left, young, mesh, stale].map(isThere)).toEqual([true, false, true, true, false]);
  const rows = await app.store.db.select().from(blobs);
  expect(rows.map(r => r.sha256).sort()).toEqual([photo, young, mesh].sort());

  // After undo, redo still needs the photo of the edit.
  const { body } = await server.call('POST', `/jobs/${id}/undo`, { editId: before.undo.editId });
  expect(body.document.photos).toEqual([]);
  expect(await sweepBlobs(app.store)).toBe(0);
  expect(isThere(photo)).toBe(true);
});

test('kept again, a file has its whole grace before it', async () => {
  server = await testServer();
  const bytes = new TextEncoder().encode('again');
  const sha = await server.app.blobs.put(bytes);
  age(sha, GRACE + 1);
  expect(await server.app.blobs.put(bytes)).toBe(sha);
  expect(await sweepBlobs(server.app.store)).toBe(0);
  expect(isThere(sha)).toBe(true);
});

test('what was still coming when the server ended goes at the next start', async () => {
  server = await testServer();
  const coming = join(server.folder, 'blobs', 'coming');
  mkdirSync(coming, { recursive: true });
  writeFileSync(join(coming, '.half'), 'half a scan');
  await sweepBlobs(server.app.store);
  expect(readdirSync(coming)).toEqual([]);
});
