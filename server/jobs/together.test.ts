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
  const apart = [0, 1].map(i => Math.max(b!.min[i]! - a!.max[i]!, a!.min[i]! - b!.max[i]!));
  expect(Math.max(...apart)).toBeGreaterThan(4);
});

test('a batch: how many fit on a bed, a file with so many, and a print of several', async () => {
  const job = await server.newJob('Shims', 'bush');
  const at = `/jobs/${job.id}`;
  let { revision } = job;
  for (const [key, size] of [
    ['shaft', 40],
    ['seat', 60],
    ['gap', 12],
  ] as const)
    ({ revision } = (
      await server.call('POST', `${at}/edits`, { revision, edit: readingEdit(key, size) })
    ).body);
  const said = await server.call('POST', `${at}/edits`, {
    revision,
    edit: { kind: 'brief', brief: { quantity: 20 } },
  });
  expect(said.status).toBe(200);
  const made = await server.call('POST', `${at}/versions`, {
    revision: said.body.revision,
    partId: 'part-1',
  });
  expect(made.status, JSON.stringify(made.body)).toBe(201);
  const { history } = (await server.call('GET', at)).body;
  const version = `${at}/versions/${history.versions[0].id}`;
  // Rings of 60 on a bed of 180 to 260: three or four a row.
  const { onOneBed, beds } = (await server.call('GET', `${version}/batch?pieces=20`)).body;
  expect(onOneBed).toBeGreaterThanOrEqual(4);
  expect(beds).toBe(Math.ceil(20 / onOneBed));
  const { meshes } = readThreeMf(await server.bytes(`${version}/batch.3mf?pieces=${onOneBed}`));
  expect(meshes).toHaveLength(onOneBed);
  const bounds = meshes.map(m => boundsOf(m));
  for (const [i, a] of bounds.entries())
    for (const b of bounds.slice(i + 1))
      expect(
        a.max[0] < b.min[0] || b.max[0] < a.min[0] || a.max[1] < b.min[1] || b.max[1] < a.min[1],
        'two lie in each other',
      ).toBe(true);
  const over = await server.call('GET', `${version}/batch.3mf?pieces=${onOneBed + 1}`);
  expect(over.status).toBe(422);
  expect(over.body.error.message).toContain(`${onOneBed} at most`);
  expect((await server.call('GET', `${version}/batch?pieces=0`)).status).toBe(400);
  expect((await server.call('GET', `${at}/versions/none/batch?pieces=2`)).status).toBe(404);
  const print = (pieces?: number) =>
    server.call('POST', `${at}/prints`, { versionId: history.versions[0].id, ...(pieces ? { pieces } : {}) });
  for (const answer of [await print(), await print(6)]) expect(answer.status).toBe(201);
  const rows = (await server.call('GET', at)).body.history.prints;
  expect(rows.map((p: { pieces: number }) => p.pieces)).toEqual([1, 6]);
  expect(rows[1].grams).toBeCloseTo(6 * rows[0].grams, 0);
});
