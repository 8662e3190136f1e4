import { afterAll, beforeAll, expect, test } from 'vitest';
import { readStl } from '../../core/files/reading-back';
import { boundsOf } from '../../core/shape/mesh/mesh';
import { polygonCentroid, sectionAtZ } from '../../core/shape/mesh/section';
import { readingEdit, type TestServer, testServer } from '../../testing/server';

const fromMiddle = ([x, y]: [number, number], points: [number, number][]): number => {
  const [mx, my] = polygonCentroid(points);
  return Math.hypot(x - mx, y - my);
};

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

test('a ladder is made about the ledger’s number, its rings measure theirs, and what they say is learned', async () => {
  const { id } = await server.newJob();
  const at = (path: string, body?: object) => server.call('POST', `/jobs/${id}/${path}`, body);
  const wish = { mateId: 'skirt', partId: 'part-1' };
  expect((await at('ladders', wish)).body.error.code).toBe('not-measured');
  await at('edits', { revision: 1, edit: readingEdit('rim', 31.7) });
  expect((await at('ladders', { ...wish, mateId: 'nothing' })).status).toBe(404);
  const [ladder] = (await at('ladders', wish)).body.history.ladders;
  expect(ladder.sizes).toHaveLength(5);
  const mesh = readStl(await server.bytes(`/jobs/${id}/ladders/${ladder.id}/ladder.stl`));
  const loops = sectionAtZ(mesh, 3);
  // They lie in rows on the bed: each bore about its own middle.
  const bores = loops
    .filter(l => l.area < 0)
    .map(l => 2 * Math.max(...l.points.map(p => fromMiddle(p, l.points))));
  expect(bores).toHaveLength(5);
  for (const [i, bore] of bores.sort((a, b) => a - b).entries())
    expect(Math.abs(bore - ladder.sizes[i])).toBeLessThan(0.012);
  const { min, max } = boundsOf(mesh);
  expect(max[0]! - min[0]!).toBeLessThan(220);
  expect((await server.call('GET', `/jobs/${id}/ladders/${ladder.id}/ladder.doc`)).status).toBe(400);
  expect((await server.call('GET', `/jobs/${id}/ladders/none/ladder.stl`)).status).toBe(404);

  const say = (verdicts: unknown) => at('ladder-tries', { ladderId: ladder.id, verdicts });
  expect((await say([null, null, null, null, null])).body.error.message).toContain('at least one ring');
  expect((await say(['right'])).body.error.message).toContain('5 rings');
  expect((await say(['fine', null, null, null, null])).status).toBe(400);
  const said = await say(['wont-go', 'tight', 'right', 'loose', null]);
  expect(said.status).toBe(201);
  expect(said.body.history.ladderTries[0].verdicts[2]).toBe('right');
  const { activity } = (await server.call('GET', `/jobs/${id}/activity`)).body;
  expect(JSON.stringify(activity)).toContain('Made a ladder of 5 rings');

  // A bundle carries it.
  const bundle = await server.bytes(`/jobs/${id}/bundle`);
  const other = await testServer();
  try {
    await other.call('POST', '/import', bundle);
    const there = (await other.call('GET', `/jobs/${id}`)).body.history;
    expect(there.ladders[0].sizes).toEqual(ladder.sizes);
    expect(there.ladderTries).toHaveLength(1);
  } finally {
    await other.stop();
    other.remove();
  }

  await at('void', { kind: 'ladder', id: ladder.id, reason: 'wrong spool' });
  expect((await say(['right', null, null, null, null])).status).toBe(404);
});
