import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Rack } from '../../contract/rack';
import { type TestServer, testServer } from '../../testing/server';
import { sweepRemoved } from './sweep-removed';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});
const rackOf = async () => ((await server.call('GET', '/jobs')).body as Rack).jobs;
const found = async (q: string) =>
  (await server.call('GET', `/jobs/search?q=${encodeURIComponent(q)}`)).body.ids;

test('what was written anywhere in a job is found, and nothing else', async () => {
  const { id } = await server.newJob('Drain cover');
  await server.newJob('Other thing');
  await server.call('POST', `/jobs/${id}/edits`, {
    revision: 1,
    edit: {
      kind: 'service-note',
      id: 'n1',
      at: '2026-01-01T00:00:00.000Z',
      words: 'whitened at the Zephyr lip',
    },
  });
  expect(await found('zephyr')).toEqual([id]);
  expect(await found('lip drain')).toEqual([id]);
  expect(await found('zephyr other')).toEqual([]);
  // Nobody wrote the field names of the document.
  expect(await found('schemaversion')).toEqual([]);
  expect((await server.call('GET', '/jobs/search?q=')).status).toBe(400);
});

test('a job that was removed can be hung up again for a month; then it goes for good', async () => {
  const { id, revision } = await server.newJob('To be removed');
  const at = '2026-03-01T00:00:00.000Z';
  await server.call('POST', `/jobs/${id}/edits`, {
    revision,
    edit: { kind: 'put-away', away: { how: 'removed', at } },
  });
  expect((await rackOf()).find(j => j.id === id)!.away).toBe('removed');
  expect(await sweepRemoved(server.app.store, new Date('2026-03-20T00:00:00.000Z'))).toBe(0);
  await server.call('POST', `/jobs/${id}/edits`, {
    revision: revision + 1,
    edit: { kind: 'put-away', away: null },
  });
  expect((await rackOf()).find(j => j.id === id)!.away).toBeNull();
  expect(await sweepRemoved(server.app.store, new Date('2027-03-20T00:00:00.000Z'))).toBe(0);
  await server.call('POST', `/jobs/${id}/edits`, {
    revision: revision + 2,
    edit: { kind: 'put-away', away: { how: 'removed', at } },
  });
  expect(await sweepRemoved(server.app.store, new Date('2026-04-02T00:00:00.000Z'))).toBe(1);
  expect((await server.call('GET', `/jobs/${id}`)).status).toBe(404);
});
