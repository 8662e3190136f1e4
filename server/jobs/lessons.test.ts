import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Evidence } from '../../core/learn/lessons';
import { readingEdit, type TestServer, testServer } from '../../testing/server';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

/** A cap on the same rim, tried so often; each version draws what the ledger proposes. */
async function capTried(
  title: string,
  verdicts: string[],
): Promise<{ id: string; first: number; chance: number }> {
  const { id } = await server.newJob(title);
  let revision = 1;
  for (const [n, value] of [31.7, 31.71, 31.69].entries())
    ({ revision } = (
      await server.call('POST', `/jobs/${id}/edits`, {
        revision,
        edit: readingEdit('rim', value, `${id}-${n}`),
      })
    ).body);
  ({ revision } = (
    await server.call('POST', `/jobs/${id}/edits`, {
      revision,
      edit: readingEdit('rim_height', 14, `${id}-h`),
    })
  ).body);
  const made: { model: number; pRight: number }[] = [];
  for (const verdict of verdicts) {
    const { history } = (await server.call('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' }))
      .body;
    const version = history.versions.at(-1);
    made.push(version.mates[0]);
    const printed = (await server.call('POST', `/jobs/${id}/prints`, { versionId: version.id })).body;
    const printId = printed.history.prints.at(-1).id;
    await server.call('POST', `/jobs/${id}/tries`, { printId, mates: { skirt: { verdict } } });
  }
  return { id, first: made[0]!.model, chance: made[0]!.pRight };
}

test('what jobs taught of a printer moves the next job’s first number, and makes it surer', async () => {
  const one = await capTried('First cap', ['tight', 'right']);
  const before = (await server.call('GET', '/lessons')).body.evidence;
  expect(before).toMatchObject([{ jobId: one.id, title: 'First cap', surface: 'hole', prints: 2 }]);
  const two = await capTried('Second cap', ['right']);
  // Holes come out tighter here than on an unknown printer: the second cap is drawn larger at once.
  expect(two.first).toBeGreaterThan(one.first + 0.03);
  expect(two.chance).toBeGreaterThan(one.chance);

  // Its own tries are never counted twice: the first cap's ledger uses the second one only.
  const evidence = (await server.call('GET', '/lessons')).body.evidence as Evidence[];
  expect(evidence.map(e => e.jobId).sort()).toEqual([one.id, two.id].sort());

  // What the maker mutes is left out.
  const { revision, workshop } = (await server.call('GET', '/workshop')).body;
  const { printerId, materialId } = evidence[0]!;
  const muted = { printerId, materialId, surface: 'hole', before: null, reason: 'new nozzle' };
  const put = await server.call('PUT', '/workshop', {
    revision,
    workshop: { ...workshop, lessonsMuted: [muted] },
  });
  expect(put.status).toBe(200);
  const three = await capTried('Third cap', ['right']);
  expect(three.first).toBeCloseTo(one.first, 2);
});
