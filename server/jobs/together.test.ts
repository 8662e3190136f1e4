import { afterAll, beforeAll, expect, test } from 'vitest';
import { readThreeMf } from '../../core/files/reading-back';
import { boundsOf } from '../../core/shape/mesh/mesh';
import { readingEdit, type TestServer, testServer } from '../../testing/server';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

test('two parts: each has its versions, what was put on is in its files, and both come in one', async () => {
  const job = await server.newJob('Spacers', 'bush');
  const at = `/jobs/${job.id}`;
  let { revision } = job;
  const edit = async (change: object) => {
    const { status, body } = await server.call('POST', `${at}/edits`, { revision, edit: change });
    expect(status, JSON.stringify(body)).toBe(200);
    revision = body.revision;
  };
  await edit(readingEdit('shaft', 8));
  await edit(readingEdit('seat', 14));
  await edit(readingEdit('gap', 12));
  await edit({ kind: 'add-part', id: 'part-2', name: 'Outer bush', recipe: 'bush', share: false });
  await edit({
    kind: 'mate-with',
    mateId: 'part-2-bore',
    other: { of: 'part', part: 'part-1', surface: 'outside' },
  });
  await edit(readingEdit('seat_2', 24));
  await edit({
    kind: 'add-addition',
    partId: 'part-2',
    addition: { id: 'words1', kind: 'words', name: 'Side', on: true },
  });
  for (const [name, text] of [
    ['words1_text', 'A'],
    ['words1_height', '3'],
    ['words1_x', '9.5'],
  ])
    await edit({ kind: 'parameter', partId: 'part-2', name, expression: { text, unit: 'mm' } });
  const missing = await server.call('GET', `${at}/together.3mf`);
  expect(missing.status).toBe(422);
  expect(missing.body.error.message).toContain('has no version yet');
  for (const partId of ['part-1', 'part-2']) {
    const made = await server.call('POST', `${at}/versions`, { revision, partId });
    expect(made.status, JSON.stringify(made.body)).toBe(201);
    revision = (await server.call('GET', at)).body.revision;
  }
  const { history } = (await server.call('GET', at)).body;
  expect(history.versions.map((v: { number: number }) => v.number)).toEqual([1, 1]);
  expect(history.versions[1].additions).toHaveLength(1);
  const { meshes } = readThreeMf(await server.bytes(`${at}/together.3mf`));
  expect(meshes).toHaveLength(2);
  const [a, b] = meshes.map(m => boundsOf(m));
  expect(b!.min[0]).toBeGreaterThan(a!.max[0]);
});
