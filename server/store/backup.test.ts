import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { readingEdit, testServer } from '../../testing/server';
import { backUp, restore } from './backup';

const root = mkdtempSync(join(tmpdir(), 'sagoma-backup-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));

test('a copy made beside the running server is the whole workshop, and becomes one again', async () => {
  const server = await testServer(join(root, 'data'));
  const { id, revision } = await server.newJob('Cap');
  await server.call('POST', `/jobs/${id}/edits`, { revision, edit: readingEdit('rim', 31.7) });
  const sha256 = await server.app.blobs.put(new Uint8Array([1, 2, 3]));
  const copy = join(root, 'copy');
  expect(await backUp(join(root, 'data'), copy)).toBe(1);
  // Later changes are not in it; run again, only new files are copied.
  await server.app.blobs.put(new Uint8Array([4, 5]));
  expect(await backUp(join(root, 'data'), copy)).toBe(1);
  const before = (await server.call('GET', `/jobs/${id}`)).body;
  expect(() => restore(copy, join(root, 'data'))).toThrow(/holds a workshop already/);
  await server.stop();
  rmSync(join(root, 'data'), { recursive: true });
  expect(restore(copy, join(root, 'data'))).toBe(2);
  const again = await testServer(join(root, 'data'));
  expect((await again.call('GET', `/jobs/${id}`)).body.document).toEqual(before.document);
  expect(await again.app.blobs.get(sha256)).not.toBeNull();
  await again.stop();
  expect(existsSync(join(root, 'data/sagoma.lock'))).toBe(false);
});

test('no workshop, no backup: a sentence each', async () => {
  await expect(backUp(join(root, 'nothing'), join(root, 'x'))).rejects.toThrow(/no workshop in/);
  expect(() => restore(join(root, 'nothing'), join(root, 'y'))).toThrow(/no backup in/);
});
