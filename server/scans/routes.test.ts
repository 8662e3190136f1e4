import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { writeStl } from '../../core/files/stl';
import { scannedCylinder } from '../../testing/scanned';
import { type TestServer, testServer } from '../../testing/server';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

const tube = writeStl(scannedCylinder(31.7, 24), 'tube');
const waiting = () => readdirSync(join(server.folder, 'blobs', 'coming'));

test('a scan is taken in, undone and redone, goes along in a bundle and comes back byte by byte', async () => {
  const { id } = await server.newJob('Cap', 'round-cap');
  const sent = await server.call('POST', `/jobs/${id}/scans?label=%20rim%20`, tube);
  expect(sent.status).toBe(201);
  expect(sent.body.scan).toMatchObject({ label: 'rim', unit: 'mm', steps: [] });
  const { scan } = sent.body;
  expect(Buffer.compare(await server.bytes(`/jobs/${id}/scans/${scan.id}`), tube)).toBe(0);
  const job = (await server.call('GET', `/jobs/${id}`)).body;
  expect(job.document.scans).toHaveLength(1);
  expect(waiting()).toEqual([]);

  const edited = await server.call('POST', `/jobs/${id}/edits`, {
    revision: job.revision,
    edit: { kind: 'scan', scanId: scan.id, change: { unit: 'in' } },
  });
  expect(edited.status).toBe(200);

  const bundle = await server.bytes(`/jobs/${id}/bundle`);
  const other = await testServer();
  try {
    const taken = await other.call('POST', '/import', bundle);
    expect(taken.status).toBe(201);
    expect(Buffer.compare(await other.bytes(`/jobs/${id}/scans/${scan.id}`), tube)).toBe(0);
    const there = (await other.call('GET', `/jobs/${id}`)).body;
    expect(there.document.scans[0].unit).toBe('in');
  } finally {
    await other.stop();
    other.remove();
  }
});

test('what is no scan is refused in words, and leaves nothing behind', async () => {
  const { id } = await server.newJob('Cap', 'round-cap');
  for (const [bytes, words] of [
    [new TextEncoder().encode('solid of nothing'), /./],
    [tube.slice(0, 3000), /./],
    [new Uint8Array(), /empty/i],
  ] as const) {
    const { status, body } = await server.call('POST', `/jobs/${id}/scans`, bytes);
    expect(status).toBe(422);
    expect(body.error.code).toBe('bad-scan');
    expect(body.error.message).toMatch(words);
  }
  expect(waiting()).toEqual([]);
  expect((await server.call('GET', `/jobs/${id}`)).body.document.scans).toEqual([]);
  expect((await server.call('GET', `/jobs/${id}/scans/none`)).status).toBe(404);
  expect((await server.call('POST', '/jobs/none/scans', tube)).status).toBe(404);
});
