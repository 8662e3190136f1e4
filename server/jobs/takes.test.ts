import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { readStl } from '../../core/files/reading-back';
import { boundsOf } from '../../core/shape/mesh/mesh';
import { readingEdit, type TestServer, testServer } from '../../testing/server';

/** Time, plastic and pose of a print: from the version's own solid, and from prints with noted hours. */

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

const edit = (id: string, revision: number, what: object) =>
  server.call('POST', `/jobs/${id}/edits`, { revision, edit: what });

async function cap(pose?: object) {
  const { id } = await server.newJob('Vent-port cap');
  let revision = 1;
  for (const value of [31.7, 31.72, 31.68])
    revision = (await edit(id, revision, readingEdit('rim', value))).body.revision;
  revision = (await edit(id, revision, readingEdit('rim_height', 14))).body.revision;
  if (pose) revision = (await edit(id, revision, { kind: 'pose', partId: 'part-1', pose })).body.revision;
  const made = (await server.call('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' })).body;
  return { id, revision, version: made.history.versions[0] };
}

const print = async (id: string, versionId: string, more: object = {}) =>
  (await server.call('POST', `/jobs/${id}/prints`, { versionId, ...more })).body.history.prints.at(-1);

describe('what a print takes', () => {
  test('nothing typed, it is what was expected; what was typed is noted, and the next is foretold by it', async () => {
    const { id, version } = await cap();
    const first = await print(id, version.id);
    expect(first).toMatchObject({ noted: false });
    expect(first.expected.times.length).toBeGreaterThan(0);
    expect(first.hours).toBeGreaterThan(0.15);
    expect(first.hours).toBeLessThan(1);
    // A cap of 7 g or so, not a block.
    expect(first.grams).toBeGreaterThan(3);
    expect(first.grams).toBeLessThan(12);
    const took = Number((2 * first.hours).toFixed(2));
    const noted = await print(id, version.id, { hours: took });
    expect(noted).toMatchObject({ noted: true, hours: took });
    const { body: pace } = await server.call('GET', '/pace');
    expect(pace.noted.printer).toHaveLength(1);
    const next = await print(id, version.id);
    expect(next.hours / took).toBeGreaterThan(0.85);
    expect(next.hours / took).toBeLessThan(1.1);
  });

  test('several at once share the heating, and the batch says the same as the print', async () => {
    const { id, version } = await cap();
    const one = await print(id, version.id);
    const three = await print(id, version.id, { pieces: 3 });
    expect(three.grams).toBeCloseTo(3 * one.grams, 0);
    expect(three.hours).toBeLessThan(3 * one.hours);
    const { body } = await server.call('GET', `/jobs/${id}/versions/${version.id}/batch?pieces=3`);
    expect(body).toMatchObject({ beds: 1 });
    expect(body.hours).toBeCloseTo(three.hours, 1);
    expect(body.grams).toBeCloseTo(three.grams, 0);
  });
});

describe('how it lies', () => {
  test('files follow the pose: laid on its side the cap stands on its edge', async () => {
    const upright = await cap();
    const laid = await cap({ down: [0, -1, 0], turn: 30 });
    expect(laid.version.pose).toEqual({ down: [0, -1, 0], turn: 30 });
    const [a, b] = await Promise.all(
      [upright, laid].map(async ({ id, version }) =>
        boundsOf(readStl(await server.bytes(`/jobs/${id}/versions/${version.id}/files/stl`))),
      ),
    );
    expect(a!.min[2]).toBeCloseTo(0, 4);
    expect(b!.min[2]).toBeCloseTo(0, 4);
    // As high as it was deep.
    expect(b!.max[2]).toBeCloseTo(a!.max[1] - a!.min[1], 1);
    // Its round surface is built of layers now, and so less sure.
    expect(laid.version.mates[0].pRight).toBeLessThan(upright.version.mates[0].pRight);
    expect(laid.version.mates[0].prior.sd).toBeGreaterThan(1.5 * upright.version.mates[0].prior.sd);
  });

  test('a pose that is no direction is refused, with what it should be', async () => {
    const { id } = await server.newJob();
    const { status, body } = await edit(id, 1, {
      kind: 'pose',
      partId: 'part-1',
      pose: { down: [0, 0, 0.5], turn: 0 },
    });
    expect(status).toBe(400);
    expect(body.error.message).toContain('as long as 1');
  });

  test('what older windows call a pose is still understood', async () => {
    const { id } = await server.newJob();
    await edit(id, 1, { kind: 'pose', partId: 'part-1', pose: 'turned-over' });
    const { body } = await server.call('GET', `/jobs/${id}`);
    expect(body.document.parts[0].pose).toEqual({ down: [0, 0, 1], turn: 0 });
  });
});

describe('a slice first', () => {
  test('it is a piece of the version: its verdict is about its own surface, and the part is still to be printed', async () => {
    const { id, version } = await cap();
    const [mate] = version.mates;
    const { body: whole } = await server.call('GET', `/jobs/${id}/versions/${version.id}/batch?pieces=1`);
    const file = readStl(
      await server.bytes(`/jobs/${id}/versions/${version.id}/slices/${mate.mateId}/slice.stl`),
    );
    expect(boundsOf(file).max[2]).toBeLessThan(12);
    const slice = await print(id, version.id, { slice: mate.mateId });
    expect(slice).toMatchObject({ slice: [mate.mateId], noted: false, files: {} });
    expect(slice.grams).toBeLessThan(0.6 * whole.grams);
    await server.call('POST', `/jobs/${id}/tries`, {
      printId: slice.id,
      mates: { [mate.mateId]: { verdict: 'right' } },
    });
    const { body: rack } = await server.call('GET', '/jobs');
    const tag = rack.jobs.find((j: { id: string }) => j.id === id);
    expect(tag.next).toMatchObject({ stage: 'print', reason: 'Its slice sat right.' });
    expect(tag.state).toContain('ready to print');
  });
  test('a tight slice asks for another version, and a strange surface is refused', async () => {
    const { id, version } = await cap();
    const [mate] = version.mates;
    const slice = await print(id, version.id, { slice: mate.mateId });
    await server.call('POST', `/jobs/${id}/tries`, {
      printId: slice.id,
      mates: { [mate.mateId]: { verdict: 'tight' } },
    });
    const { body: rack } = await server.call('GET', '/jobs');
    expect(rack.jobs.find((j: { id: string }) => j.id === id).next.action).toContain('Make version 2');
    const { status } = await server.call('POST', `/jobs/${id}/prints`, {
      versionId: version.id,
      slice: 'nothing',
    });
    expect(status).toBe(404);
  });

  test('one piece may carry several surfaces: each of them is judged by it, and no other', async () => {
    const { id } = await server.newJob('Sleeve', 'stepped-sleeve');
    let revision = 1;
    for (const [key, value] of [
      ['bore', 30],
      ['rod', 14],
      ['bore_depth', 40],
    ] as const)
      revision = (await edit(id, revision, readingEdit(key, value))).body.revision;
    const made = (await server.call('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' })).body;
    const [version] = made.history.versions;
    const ids = version.mates.map((m: { mateId: string }) => m.mateId);
    expect(ids).toHaveLength(2);
    const file = readStl(
      await server.bytes(`/jobs/${id}/versions/${version.id}/slices/${ids.join(',')}/slice.stl`),
    );
    expect(boundsOf(file).max[0] - boundsOf(file).min[0]).toBeGreaterThan(29);
    const both = await print(id, version.id, { slice: ids });
    expect(both).toMatchObject({ slice: ids });
    const tried = await server.call('POST', `/jobs/${id}/tries`, {
      printId: both.id,
      mates: { [ids[0]]: { verdict: 'right' }, [ids[1]]: { verdict: 'tight' } },
    });
    expect(tried.status).toBe(201);
    const { body: rack } = await server.call('GET', '/jobs');
    expect(rack.jobs.find((j: { id: string }) => j.id === id).next.action).toContain('Make version 2');
  });
});

test('work by hand is recorded of a surface that was judged, and of no other', async () => {
  const { id, version } = await cap();
  const made = await print(id, version.id);
  const [mate] = version.mates;
  const worked = {
    printId: made.id,
    mateId: mate.mateId,
    how: 'ream',
    amount: 0.2,
    by: 'caliper',
    after: 'right',
  };
  const record = async (body: object) =>
    (await server.call('POST', `/jobs/${id}/reworks`, { ...worked, ...body })).status;
  expect(await record({})).toBe(400);
  await server.call('POST', `/jobs/${id}/tries`, {
    printId: made.id,
    mates: { [mate.mateId]: { verdict: 'tight' } },
  });
  expect(await record({ amount: 50 })).toBe(400);
  expect(await record({ how: 'hammer' })).toBe(400);
  expect(await record({ printId: 'none' })).toBe(404);
  expect(await record({})).toBe(201);
  const { body: rack } = await server.call('GET', '/jobs');
  const { next } = rack.jobs.find((j: { id: string }) => j.id === id);
  // Asked before anybody relies on it.
  expect(next.action).toBe('Say what happens if it breaks');
  const { body } = await server.call('GET', `/jobs/${id}/activity`);
  expect(body.activity[0].words).toBe('Worked on a print of version 1: reamed or scraped by 0.2 mm across');
});

test('when a print came off is kept, and never in the future', async () => {
  const { id, version } = await cap();
  const finished = new Date(Date.now() - 3600e3).toISOString();
  expect(await print(id, version.id, { finished })).toMatchObject({ finished });
  const later = new Date(Date.now() + 86_400e3).toISOString();
  const { status, body } = await server.call('POST', `/jobs/${id}/prints`, {
    versionId: version.id,
    finished: later,
  });
  expect(status).toBe(400);
  expect(body.error.message).toContain('in the future');
});

test('what the workshop made this month adds up, what does not count left out', async () => {
  const worth = async () => (await server.call('GET', '/worth')).body.months.at(-1);
  const before = await worth();
  const { id, version } = await cap();
  await print(id, version.id, { pieces: 2, hours: 3, grams: 10, cost: 0.4 });
  await print(id, version.id, { hours: 1, grams: 4, cost: 0.1, failed: 'clogged' });
  const wrong = await print(id, version.id, { hours: 9 });
  await server.call('POST', `/jobs/${id}/void`, { kind: 'print', id: wrong.id, reason: 'twice' });
  const { body } = await server.call('GET', `/jobs/${id}`);
  const priced = await edit(id, body.revision, { kind: 'brief', brief: { priceToBuy: 7.5, quantity: 2 } });
  await edit(id, priced.body.revision, { kind: 'in-service', since: new Date().toISOString() });
  const now = await worth();
  const more = (of: string) => now[of] - before[of];
  expect(['pieces', 'failed', 'jobs'].map(more)).toEqual([2, 1, 1]);
  expect(more('printHours')).toBeCloseTo(4, 6);
  expect(more('grams')).toBeCloseTo(14, 6);
  expect(more('cost')).toBeCloseTo(0.5, 6);
  expect(more('bought')).toBeCloseTo(15, 6);
  expect(more('ownHours')).toBeGreaterThan(0.02);
  // Voiding a version voids all of its prints.
  await server.call('POST', `/jobs/${id}/void`, { kind: 'version', id: version.id, reason: 'wrong' });
  expect((await worth()).pieces).toBe(before.pieces);
});
