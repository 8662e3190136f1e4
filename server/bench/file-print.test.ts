import { afterAll, beforeAll, expect, test } from 'vitest';
import { readCaliper } from '../../core/bench/world';
import { readStl } from '../../core/files/reading-back';
import { writeStl } from '../../core/files/stl';
import { mirroredMesh, type TriangleMesh } from '../../core/shape/mesh/mesh';
import { readingEdit, type TestServer, testServer } from '../../testing/server';
import { worldOf } from './bench';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

test('the practice printer takes a version’s file, and prints it as it is: scaled, mirrored, or not at all', async () => {
  const { revision, workshop } = (await server.call('GET', '/workshop')).body;
  await server.call('PUT', '/workshop', { revision, workshop: { ...workshop, practiceBench: true } });
  const job = await server.newJob();
  const { id } = job;
  // Every job has another hidden object: the part is made for this one.
  const world = await worldOf(server.app.store, job);
  const rim = Number(readCaliper(world, 'rim', 0, 0.01)!.toFixed(2));
  const edits = `/jobs/${id}/edits`;
  await server.call('POST', edits, { revision: 1, edit: readingEdit('rim', rim) });
  const measured = await server.call('POST', edits, { revision: 2, edit: readingEdit('rim_height', 14) });
  const made = await server.call('POST', `/jobs/${id}/versions`, {
    revision: measured.body.revision,
    partId: 'part-1',
  });
  const [version] = made.body.history.versions;
  const model = version.mates[0].model;
  const stl = await server.bytes(`/jobs/${id}/versions/${version.id}/files/stl`);
  const give = (file: Uint8Array) =>
    server.call('POST', `/bench/jobs/${id}/print?versionId=${version.id}`, file, {
      'content-type': 'application/octet-stream',
    });
  const last = async () => (await server.call('GET', `/jobs/${id}`)).body.history.prints.at(-1);
  const feel = async (printId: string) =>
    (await server.call('POST', `/bench/jobs/${id}/try-on`, { printId })).body.verdicts.skirt;

  const own = await give(stl);
  expect(own.status).toBe(201);
  expect(own.body.filed.scale).toBeCloseTo(1, 4);
  expect((await last()).asFiled.skirt).toBeCloseTo(model, 2);

  const scaled = (by: number): TriangleMesh => {
    const mesh = readStl(stl);
    return { ...mesh, positions: mesh.positions.map(x => by * x) };
  };
  // Shrunk by a fifth it goes over nothing; grown by a fifth it drops off.
  const small = await give(writeStl(scaled(0.8), 'small'));
  expect(small.body.filed.scale).toBeCloseTo(0.8, 3);
  expect(await feel(small.body.printId)).toBe('wont-go');
  const large = await give(writeStl(scaled(1.2), 'large'));
  expect(await feel(large.body.printId)).toBe('drops-off');

  const other = await give(writeStl(mirroredMesh(readStl(stl)), 'other'));
  expect(other.body.filed.mirrored).toBe(true);
  expect(await last()).toMatchObject({ hand: 'other', practice: true });

  const cube = await give(new TextEncoder().encode('solid nothing\nendsolid nothing\n'));
  expect(cube.status).toBe(422);
  const flat = readStl(stl);
  const stretched = { ...flat, positions: flat.positions.map((x, i) => (i % 3 === 0 ? 1.2 * x : x)) };
  expect((await give(writeStl(stretched, 'stretched'))).body.error.message).toContain('not this version');
  expect((await give(new TextEncoder().encode('half a fi'))).status).toBe(422);
});
