import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { Plate, Queue } from '../../contract/queue';
import { readThreeMf } from '../../core/files/reading-back';
import { GAUGE_HEIGHT, gaugeVolume } from '../../core/print/gauge';
import { boundsOf, volumeOf } from '../../core/shape/mesh/mesh';
import { readingEdit, type TestServer, testServer } from '../../testing/server';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

/** A bush with a version, and how many are wanted. */
async function bush(title: string, shaft: number, quantity?: number) {
  const job = await server.newJob(title, 'bush');
  const at = `/jobs/${job.id}`;
  let { revision } = job;
  const edit = async (change: object) => {
    const { status, body } = await server.call('POST', `${at}/edits`, { revision, edit: change });
    expect(status, JSON.stringify(body)).toBe(200);
    revision = body.revision;
  };
  await edit(readingEdit('shaft', shaft));
  await edit(readingEdit('seat', shaft + 6));
  await edit(readingEdit('gap', 12));
  if (quantity) await edit({ kind: 'brief', brief: { quantity } });
  const made = await server.call('POST', `${at}/versions`, { revision, partId: 'part-1' });
  expect(made.status, JSON.stringify(made.body)).toBe(201);
  const version = made.body.history.versions.at(-1);
  return { id: job.id, at, version: version.id as string, mates: version.mates as { mateId: string }[] };
}
const queue = async () => Queue.parse((await server.call('GET', '/queue')).body);
const waiting = async (versionId: string) => (await queue()).items.find(i => i.versionId === versionId);

describe('what waits for a printer', () => {
  test('a version until a print of it came out; a failed one does not count', async () => {
    const one = await bush('Waits', 8);
    expect(await waiting(one.version)).toMatchObject({ pieces: 1, title: 'Waits', words: 'version 1' });
    const failed = { versionId: one.version, pieces: 1, failed: 'came-loose' };
    const said = await server.call('POST', `${one.at}/prints`, failed);
    expect(said.status, JSON.stringify(said.body)).toBe(201);
    expect(await waiting(one.version)).toBeDefined();
    await server.call('POST', `${one.at}/prints`, { versionId: one.version, pieces: 1, failed: null });
    expect(await waiting(one.version)).toBeUndefined();
  });
  test('what is on a printer is told apart, and its print takes the hours from start to finish', async () => {
    const one = await bush('Runs', 8.5);
    const begun = await server.call('POST', `${one.at}/starts`, { versionId: one.version, pieces: 2 });
    expect(begun.status, JSON.stringify(begun.body)).toBe(201);
    const [start] = begun.body.history.starts;
    expect(start).toMatchObject({ pieces: 2, hand: 'drawn', slice: null });
    expect(await waiting(one.version)).toBeUndefined();
    const running = async () => (await queue()).running.filter(r => r.jobId === one.id);
    expect(await running()).toMatchObject([{ words: 'version 1', pieces: 2, startId: start.id }]);
    expect(Date.parse((await running())[0]!.ready!)).toBeGreaterThan(Date.parse(start.at));
    // Another start by mistake.
    const twice = await server.call('POST', `${one.at}/starts`, { versionId: one.version });
    const mistaken = twice.body.history.starts.at(-1).id;
    await server.call('POST', `${one.at}/void`, {
      kind: 'start',
      id: mistaken,
      reason: 'not printed after all',
    });
    expect(await running()).toHaveLength(1);
    const { body } = await server.call('POST', `${one.at}/prints`, { versionId: one.version, pieces: 2 });
    expect(body.history.prints.at(-1)).toMatchObject({ start: start.id, noted: false });
    expect(await running()).toEqual([]);
    expect((await server.call('POST', `${one.at}/starts`, { versionId: 'none' })).status).toBe(404);
    const late = await server.call('POST', `${one.at}/starts`, { versionId: one.version, pieces: 0 });
    expect(late.status).toBe(400);
  });
  test('the rest of a batch once the first one sat right', async () => {
    const batch = await bush('Dozen', 9, 12);
    expect((await waiting(batch.version))?.pieces).toBe(1);
    const { body } = await server.call('POST', `${batch.at}/prints`, {
      versionId: batch.version,
      pieces: 1,
      failed: null,
    });
    const print = body.history.prints.at(-1);
    expect(await waiting(batch.version)).toBeUndefined();
    const mates = Object.fromEntries(batch.mates.map(m => [m.mateId, { verdict: 'right', effort: {} }]));
    const tried = await server.call('POST', `${batch.at}/tries`, {
      printId: print.id,
      mates,
      happened: [],
      photos: [],
      by: '',
    });
    expect(tried.status, JSON.stringify(tried.body)).toBe(201);
    expect((await waiting(batch.version))?.pieces).toBe(11);
  });
  test('a ladder until it is tried and a gauge until it is measured, before there is a version', async () => {
    const { id } = await server.newJob('Aids', 'bush');
    await server.call('POST', `/jobs/${id}/edits`, { revision: 1, edit: readingEdit('shaft', 12) });
    const say = async (path: string, body: object) => {
      const { status, body: answer } = await server.call('POST', `/jobs/${id}/${path}`, body);
      expect(status, JSON.stringify(answer)).toBe(201);
      return answer.history;
    };
    const aids = async () => (await queue()).aids.filter(a => a.jobId === id);
    const { mates } = (await server.call('GET', `/jobs/${id}`)).body.document;
    const [mate] = mates.filter((m: { other: { dimension?: string } }) => m.other.dimension === 'shaft');
    const [gauge] = (await say('gauges', { mateId: mate.id, partId: 'part-1' })).gauges;
    const [ladder] = (await say('ladders', { mateId: mate.id, partId: 'part-1' })).ladders;
    expect((await aids()).map(a => a.words)).toEqual([
      `ladder of 5 rings, ${mate.name}`,
      `gauge of the object, ${mate.name}`,
    ]);
    const of = `of=gauge:${id}:${gauge.id},ladder:${id}:${ladder.id}`;
    const plate = Plate.parse((await server.call('GET', `/queue/plate?${of}`)).body);
    expect(plate.beds[0]!.pieces).toHaveLength(6);
    const { meshes, names } = readThreeMf(await server.bytes(`/queue/plate.3mf?${of}`));
    const drawn = meshes[names.findIndex(n => n.includes('gauge: 12.00'))]!;
    expect(boundsOf(drawn).max[2]).toBeCloseTo(GAUGE_HEIGHT, 2);
    // Figures and edges are left out of what is worked out.
    expect(volumeOf(drawn) / gaugeVolume({ side: 'outside', form: 'round', size: 12 })).toBeCloseTo(1, 1);
    await say('ladder-tries', { ladderId: ladder.id, verdicts: [null, null, 'right', null, null] });
    await say('gauge-sizes', { gaugeId: gauge.id, value: 12.05, u: 0.02 });
    expect(await aids()).toEqual([]);
    expect((await server.call('GET', `/queue/plate?of=gauge:${id}:none`)).status).toBe(404);
  });
});

describe('a plate', () => {
  test('of two jobs: both on one bed with their times, and in one file by name', async () => {
    const [a, b] = [await bush('Left', 8), await bush('Right', 10)];
    const of = `of=part:${a.id}:${a.version}:2,part:${b.id}:${b.version}:1`;
    const { body } = await server.call('GET', `/queue/plate?${of}`);
    const plate = Plate.parse(body);
    expect(plate.left).toEqual([]);
    expect(plate.beds).toHaveLength(1);
    expect(plate.beds[0]!.pieces).toHaveLength(3);
    const alone = (await server.call('GET', `/queue/takes/${b.id}/${b.version}`)).body.takes;
    expect(plate.beds[0]!.takes.grams).toBeGreaterThan(2.5 * alone.grams);
    // All cool while the others are laid: far less than three times one.
    expect(plate.beds[0]!.takes.hours).toBeLessThan(2.5 * alone.hours);
    const { meshes, names } = readThreeMf(await server.bytes(`/queue/plate.3mf?${of}`));
    expect(names).toEqual(['Left v1, 1', 'Left v1, 2', 'Right v1']);
    for (const { min, max } of meshes.map(m => boundsOf(m))) {
      expect(Math.min(min[0], min[1])).toBeGreaterThan(0);
      expect(Math.max(max[0], max[1])).toBeLessThan(220);
    }
  });
  test('pairs: the same number of each hand, mirrored and named; a thread is never mirrored', async () => {
    const a = await bush('Pair', 8);
    const of = `of=part:${a.id}:${a.version}:2:both`;
    const plate = Plate.parse((await server.call('GET', `/queue/plate?${of}`)).body);
    expect(plate.beds[0]!.pieces.map(p => p.name).sort()).toEqual([
      'Pair v1',
      'Pair v1',
      'Pair v1, other hand',
      'Pair v1, other hand',
    ]);
    const { names, meshes } = readThreeMf(await server.bytes(`/queue/plate.3mf?${of}`));
    expect(names.filter(n => n.includes('other hand'))).toHaveLength(2);
    for (const mesh of meshes) expect(volumeOf(mesh)).toBeCloseTo(volumeOf(meshes[0]!), 1);
    const none = await server.call('GET', `/queue/plate?of=part:${a.id}:${a.version}:1:left`);
    expect(none.status).toBe(400);
  });
  test('a slice may lie beside a part', async () => {
    const a = await bush('Sliced', 30);
    const of = `of=slice:${a.id}:${a.version}:${a.mates[0]!.mateId},part:${a.id}:${a.version}:1`;
    const { body, status } = await server.call('GET', `/queue/plate?${of}`);
    if (status === 422) expect(body.error.message).toMatch(/slice|half|plastic/i);
    else expect(Plate.parse(body).beds[0]!.pieces.map(p => p.name)).toContain('Sliced v1, slice');
  });
  test('one after the other takes longer, needs the head’s room, and is told apart when nothing is known of it', async () => {
    const a = await bush('In turn', 8);
    const of = `of=part:${a.id}:${a.version}:4`;
    const refused = await server.call('GET', `/queue/plate?${of}&inTurn=yes`);
    expect(refused.status).toBe(422);
    expect(refused.body.error.message).toContain('Say in the workshop');
    const { revision, workshop } = (await server.call('GET', '/workshop')).body;
    const printers = workshop.printers.map((p: object) => ({ ...p, clearance: { beside: 40, above: 25 } }));
    const saved = await server.call('PUT', '/workshop', { revision, workshop: { ...workshop, printers } });
    expect(saved.status, JSON.stringify(saved.body)).toBe(200);
    const once = Plate.parse((await server.call('GET', `/queue/plate?${of}`)).body);
    const turn = Plate.parse((await server.call('GET', `/queue/plate?${of}&inTurn=yes`)).body);
    expect(turn.beds[0]!.takes.hours).toBeGreaterThan(once.beds[0]!.takes.hours);
    expect(turn.beds[0]!.lost.hours).toBeLessThan(turn.beds[0]!.takes.hours / 2);
  });
  test.each([
    ['of=part:no:such:1', 404],
    ['of=part:x', 400],
    ['of=', 400],
    ['of=part:a:b:0', 400],
    ['of=part:a:b:1&bed=-1', 400],
  ])('%s is refused with a sentence', async (query, status) => {
    const answer = await server.call('GET', `/queue/plate?${query}`);
    expect(answer.status).toBe(status);
    expect(answer.body.error.message.length).toBeGreaterThan(10);
  });
});
