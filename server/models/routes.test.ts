import { afterAll, beforeAll, expect, test } from 'vitest';
import { readStl } from '../../core/files/reading-back';
import { writeStl } from '../../core/files/stl';
import type { JobDocument } from '../../core/job/document';
import { volumeOf } from '../../core/shape/mesh/mesh';
import { Work } from '../../core/work/work';
import { type TestServer, testServer } from '../../testing/server';
import { box } from '../../testing/solids';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

const brick = writeStl(box([10, 6, 2]), 'brick');

test('a file becomes a body, an edit takes it into the job, and the part is built clear of it', async () => {
  const { id } = await server.newJob('Plate', 'wall-plate');
  const sent = await server.call('POST', '/models?label=%20brick%20', brick);
  expect(sent.status).toBe(201);
  const { model } = sent.body;
  expect(model).toMatchObject({ label: 'brick', size: [10, 6, 2], triangles: 12, hull: false, factor: 1 });
  expect(volumeOf(readStl(await server.bytes(`/models/${model.sha256}`)))).toBeCloseTo(120, 3);

  const edit = async (change: object) => {
    const { revision } = (await server.call('GET', `/jobs/${id}`)).body;
    const answer = await server.call('POST', `/jobs/${id}/edits`, { revision, edit: change });
    expect(answer.body.error?.message ?? '').toBe('');
    return answer.body;
  };
  await edit({ kind: 'add-model', model });
  await edit({
    kind: 'add-addition',
    partId: 'part-1',
    addition: { id: 'clear1', kind: 'keep-clear', name: 'Room for it', on: true },
  });
  const set = (name: string, text: string) =>
    edit({
      kind: 'parameter',
      partId: 'part-1',
      name: `clear1_${name}`,
      expression: { text, unit: text === model.id || text === 'model' ? 'none' : 'mm' },
    });
  await set('form', 'model');
  await set('model', model.id);
  // While it is used it cannot be removed.
  const { revision } = (await server.call('GET', `/jobs/${id}`)).body;
  const refused = await server.call('POST', `/jobs/${id}/edits`, {
    revision,
    edit: { kind: 'remove-model', modelId: model.id },
  });
  expect(refused.body.error.message).toContain('“Room for it” uses it');

  // The pool's thread finds its triangles among the blobs: half of its height is inside the plate.
  const job = (await server.call('GET', `/jobs/${id}`)).body;
  const { workshop } = (await server.call('GET', '/workshop')).body;
  await set('room', '0');
  await set('z', '3');
  // Beside its keyholes.
  await set('y', '12');
  const again = (await server.call('GET', `/jobs/${id}`)).body;
  const built = async (document: JobDocument) => {
    const resolved = new Work(document, workshop, job.history).part('part-1');
    const answer = await server.app.solids.built(resolved.solidSpec);
    if (!answer.ok) throw new Error(answer.findings[0]!.message);
    return answer.record.volume;
  };
  const plain = { ...again.document, parts: [{ ...again.document.parts[0], additions: [] }] };
  expect((await built(plain)) - (await built(again.document))).toBeCloseTo(60, 1);

  // It is included in a bundle, and a workshop that imports the bundle has it.
  const bundle = await server.bytes(`/jobs/${id}/bundle`);
  const other = await testServer();
  try {
    expect((await other.call('POST', '/import', bundle)).status).toBe(201);
    expect((await other.call('GET', `/models/${model.sha256}`)).status).toBe(200);
  } finally {
    await other.stop();
    other.remove();
  }
});

test('what is no body is refused in words, and nothing else is given away as one', async () => {
  for (const [bytes, words] of [
    [new TextEncoder().encode('not a body'), 'STEP, STL, OBJ or 3MF'],
    [brick.slice(0, 200), 'STEP, STL, OBJ or 3MF'],
    [new Uint8Array(), 'empty'],
  ] as const) {
    const { status, body } = await server.call('POST', '/models', bytes);
    expect(status).toBe(422);
    expect(body.error.message).toContain(words);
  }
  const large = await server.call('POST', '/models', new Uint8Array(25 * 1024 * 1024));
  expect(large.status).toBe(413);
  expect((await server.call('GET', `/models/${'0'.repeat(64)}`)).status).toBe(404);
  expect((await server.call('GET', '/models/..%2f..%2fsagoma.db')).status).toBe(404);
});
