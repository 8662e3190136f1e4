import { afterAll, beforeAll, expect, test } from 'vitest';
import { readStl } from '../../core/files/reading-back';
import { closureOf } from '../../core/shape/mesh/mesh';
import { loopNear, sectionAtZ } from '../../core/shape/mesh/section';
import { readingEdit, type TestServer, testServer } from '../../testing/server';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

test('an object that is away: its gauge is printed, measured, tried on, and teaches by its own size', async () => {
  const { id } = await server.newJob();
  const at = (path: string, body?: object) => server.call('POST', `/jobs/${id}/${path}`, body);
  const wish = { mateId: 'skirt', partId: 'part-1' };
  expect((await at('gauges', wish)).body.error.code).toBe('not-measured');
  const { revision } = (await at('edits', { revision: 1, edit: readingEdit('rim', 31.7) })).body;
  expect((await at('gauges', { ...wish, mateId: 'nothing' })).status).toBe(404);
  const [gauge] = (await at('gauges', wish)).body.history.gauges;
  expect(gauge).toMatchObject({ side: 'outside', form: 'round', drawn: 31.7 });
  const mesh = readStl(await server.bytes(`/jobs/${id}/gauges/${gauge.id}/gauge.stl`));
  expect(closureOf(mesh).openEdges).toBe(0);
  expect(loopNear(sectionAtZ(mesh, 10), [0, 0], 31.7, 'outside')!.diameter).toBeCloseTo(31.7, 1);
  expect((await server.call('GET', `/jobs/${id}/gauges/${gauge.id}/gauge.doc`)).status).toBe(400);
  expect((await server.call('GET', `/jobs/${id}/gauges/none/gauge.stl`)).status).toBe(404);

  const version = (await at('versions', { revision, partId: 'part-1' })).body.history.versions[0];
  const [print] = (await at('prints', { versionId: version.id })).body.history.prints;
  const tried = { printId: print.id, mates: { skirt: { verdict: 'right', gauge: gauge.id } } };
  expect((await at('tries', tried)).body.error.message).toContain('measured yet');

  const measured = (value: number) => at('gauge-sizes', { gaugeId: gauge.id, value, u: 0.02 });
  expect((await measured(51)).body.error.message).toContain('drawn 31.70');
  expect((await at('gauge-sizes', { gaugeId: 'none', value: 31, u: 0.02 })).status).toBe(404);
  expect((await measured(31.5)).status).toBe(201);
  expect((await at('tries', tried)).status).toBe(201);

  // The bundle carries all of it, and a gauge that is put away takes its size along.
  const bundle = await server.bytes(`/jobs/${id}/bundle`);
  const other = await testServer();
  try {
    await other.call('POST', '/import', bundle);
    const there = (await other.call('GET', `/jobs/${id}`)).body.history;
    expect(there.gaugeSizes[0].value).toBe(31.5);
  } finally {
    await other.stop();
    other.remove();
  }
  expect((await at('void', { kind: 'gauge', id: gauge.id, reason: 'lost' })).status).toBe(200);
  expect((await at('tries', tried)).body.error.message).toContain('measured yet');
});
