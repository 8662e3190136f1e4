import { afterAll, beforeAll, expect, test } from 'vitest';
import { readStl } from '../../core/files/reading-back';
import { type Bounds, boundsOf, volumeOf } from '../../core/shape/mesh/mesh';
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

/** A cap measured and made into its first version. */
async function measuredVersion() {
  const { id } = await server.newJob();
  await server.call('POST', `/jobs/${id}/edits`, { revision: 1, edit: readingEdit('rim', 31.7) });
  const { revision } = (
    await server.call('POST', `/jobs/${id}/edits`, { revision: 2, edit: readingEdit('rim_height', 14) })
  ).body;
  const { history } = (await server.call('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' }))
    .body;
  return { id, version: history.versions[0] };
}

test('a version as designed carries reading and allowance, not this printer; its name and its file say so', async () => {
  const { id, version } = await measuredVersion();
  const [mate] = version.mates;
  const path = `/jobs/${id}/versions/${version.id}/files`;
  const size = async (query: string) =>
    loopNear(sectionAtZ(readStl(await server.bytes(`${path}/stl${query}`)), 5), [0, 0], mate.model, 'inside')!
      .diameter;
  const amount = (step: string) => mate.ledger.find((s: { step: string }) => s.step === step).amount;
  expect(await size('')).toBeCloseTo(mate.model, 2);
  expect(await size('?sizes=designed')).toBeCloseTo(amount('reading') + amount('allowance'), 2);
  expect(amount('compensation')).toBeGreaterThan(0.1);
  const answer = await server.call('GET', `${path}/3mf?sizes=designed`);
  expect(answer.headers.get('content-disposition')).toContain('v1-as-designed.3mf');
  expect((await server.call('GET', `/jobs/${id}/versions/none/files/stl?sizes=designed`)).status).toBe(404);
});

test('for another printer its own share is taken instead, and name and file say whose', async () => {
  const { id, version } = await measuredVersion();
  const [mate] = version.mates;
  const { workshop } = (await server.call('GET', '/workshop')).body;
  const [printer] = workshop.printers;
  const plastic = workshop.materials.at(-1);
  const path = `/jobs/${id}/versions/${version.id}/files`;
  const query = `?sizes=profile&printer=${printer.id}&plastic=${plastic.id}`;
  const found = loopNear(
    sectionAtZ(readStl(await server.bytes(`${path}/stl${query}`)), 5),
    [0, 0],
    mate.model,
    'inside',
  )!;
  const amount = (step: string) => mate.ledger.find((s: { step: string }) => s.step === step).amount;
  // Nothing was calibrated: the workshop's general belief about holes applies.
  expect(found.diameter).toBeCloseTo(
    amount('reading') + amount('allowance') + workshop.belief.inside.mean,
    2,
  );
  const answer = await server.call('GET', `${path}/3mf${query}`);
  expect(answer.headers.get('content-disposition')).toMatch(/v1-for-.+\.3mf/);
  expect(
    (await server.call('GET', `${path}/stl?sizes=profile&printer=none&plastic=${plastic.id}`)).status,
  ).toBe(404);
  expect((await server.call('GET', `${path}/stl?sizes=profile`)).status).toBe(400);
  expect((await server.call('GET', `${path}/stl?sizes=mine`)).status).toBe(400);
});

test('the other hand is the same version mirrored, under a name of its own, and its print is recorded as such', async () => {
  const { id, version } = await measuredVersion();
  const path = `/jobs/${id}/versions/${version.id}/files`;
  const [drawn, other] = await Promise.all(
    ['', '?sizes=other-hand'].map(async query => readStl(await server.bytes(`${path}/stl${query}`))),
  );
  const middleOf = ({ min, max }: Bounds) => [0, 1, 2].map(i => (min[i]! + max[i]!) / 2);
  // The tab that was on the right is on the left now; its volume is the same.
  const [a, b] = [drawn!, other!].map(m => middleOf(boundsOf(m)));
  expect(a![0]).toBeGreaterThan(1);
  expect(b![0]).toBeCloseTo(-a![0]!, 2);
  expect(b![1]).toBeCloseTo(a![1]!, 2);
  expect(volumeOf(other!) / volumeOf(drawn!)).toBeCloseTo(1, 4);
  const answer = await server.call('GET', `${path}/3mf?sizes=other-hand`);
  expect(answer.headers.get('content-disposition')).toContain('v1-other-hand.3mf');

  const printed = await server.call('POST', `/jobs/${id}/prints`, { versionId: version.id, hand: 'other' });
  const [print] = printed.body.history.prints;
  expect(print).toMatchObject({ hand: 'other', files: {} });
  const { activity } = (await server.call('GET', `/jobs/${id}/activity`)).body;
  expect(JSON.stringify(activity)).toContain('Printed the other hand of version 1');
});
