import { truncateSync } from 'node:fs';
import { eq } from 'drizzle-orm';
import { strFromU8, strToU8 } from 'fflate';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { forged } from '../testing/forged';
import { readingEdit, type TestServer, testServer } from '../testing/server';
import { history, jobs } from './store/schema';

/**
 * Rows and files that cannot be read, and bundles that meet a job that is already here: nothing else is lost because of
 * them.
 */
let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

const spoil = (id: string, document: string) =>
  server.app.store.db.update(jobs).set({ document }).where(eq(jobs.id, id));

describe('a job that cannot be read', () => {
  test('is shown as such, harms no other, leaves raw, and can be removed', async () => {
    const good = await server.newJob('Good');
    const bad = await server.newJob('Bad');
    const unknown = await server.newJob('From elsewhere');
    await spoil(bad.id, '{"schemaVersion":3,');
    const strange = structuredClone(unknown.document);
    strange.parts[0]!.recipe = 'hat-rack';
    await spoil(unknown.id, JSON.stringify(strange));
    const { status, body } = await server.call('GET', '/jobs');
    expect(status).toBe(200);
    expect(body.jobs.map((j: { title: string }) => j.title)).toContain('Good');
    expect(body.unreadable).toMatchObject([
      { title: 'From elsewhere', why: expect.stringContaining('hat-rack') },
      { title: 'Bad', why: 'its data is damaged.' },
    ]);
    for (const path of ['', '/bundle', '/activity'])
      expect((await server.call('GET', `/jobs/${bad.id}${path}`)).body.error.code, path).toBe('unreadable');
    const edit = { revision: 1, edit: readingEdit('rim', 3) };
    expect((await server.call('POST', `/jobs/${bad.id}/edits`, edit)).status).toBe(422);
    const raw = JSON.parse(strFromU8(await server.bytes(`/jobs/${bad.id}/raw`)));
    expect(raw.job.document).toBe('{"schemaVersion":3,');
    expect((await server.call('DELETE', `/jobs/${good.id}`)).status).toBe(409);
    expect((await server.call('DELETE', `/jobs/${bad.id}`)).status).toBe(200);
    expect((await server.call('DELETE', `/jobs/${bad.id}`)).status).toBe(404);
    await server.call('DELETE', `/jobs/${unknown.id}`);
    expect((await server.call('GET', '/jobs')).body.unreadable).toEqual([]);
  });

  test('by its history alone, too', async () => {
    const job = await server.newJob('Torn logbook');
    await server.app.store.db
      .insert(history)
      .values({ id: 'h1', jobId: job.id, kind: 'print', at: '2026-01-01', document: '{}' });
    expect((await server.call('GET', '/jobs')).body.unreadable).toMatchObject([{ title: 'Torn logbook' }]);
    await server.call('DELETE', `/jobs/${job.id}`);
  });
});

test('a bundle whose history has the ids of another job’s takes nothing from that job', async () => {
  const { id } = await server.newJob('Owner');
  await server.call('POST', `/jobs/${id}/edits`, { revision: 1, edit: readingEdit('rim', 31.7) });
  await server.call('POST', `/jobs/${id}/ladders`, { mateId: 'skirt', partId: 'part-1' });
  const mine = (await server.call('GET', `/jobs/${id}`)).body.history.ladders;
  expect(mine).toHaveLength(1);
  const other = id.slice(0, -1) + (id.endsWith('0') ? '1' : '0');
  const { status, body } = await server.call(
    'POST',
    '/import',
    forged(await server.bytes(`/jobs/${id}/bundle`), id, id, other),
  );
  expect(status, JSON.stringify(body)).toBe(201);
  expect(body.jobs[0]).toMatchObject({ id: other, outcome: 'added' });
  const [copied] = (await server.call('GET', `/jobs/${other}`)).body.history.ladders;
  expect(copied).toEqual({ ...mine[0], id: copied.id });
  expect((await server.call('GET', `/jobs/${id}`)).body.history.ladders).toEqual(mine);
});

test('a bundle of a recipe that is not here is refused before anything is written', async () => {
  const job = await server.newJob('Hat');
  const bundle = await server.bytes(`/jobs/${job.id}/bundle`);
  const { status, body } = await server.call(
    'POST',
    '/import',
    forged(bundle, job.id, 'round-cap', 'hat-rack'),
  );
  expect(status).toBe(422);
  expect(body.error.message).toMatch(/does not have, “hat-rack”/);
});

test('a file that was cut short is noticed, healed by the same file again, and named as missing in a bundle', async () => {
  const bytes = strToU8('the same bytes, again and again');
  const sha256 = await server.app.blobs.put(bytes);
  truncateSync(server.app.blobs.path(sha256), 5);
  expect(await server.app.blobs.get(sha256)).toBeNull();
  expect(await server.app.blobs.put(bytes)).toBe(sha256);
  expect(Buffer.from((await server.app.blobs.get(sha256))!).toString()).toBe(
    'the same bytes, again and again',
  );
});

describe('a bundle of a job that is here already', () => {
  async function measured(title: string) {
    const { id } = await server.newJob(title);
    const { body } = await server.call('POST', `/jobs/${id}/edits`, {
      revision: 1,
      edit: readingEdit('rim', 31.7),
    });
    return { id, revision: body.revision as number };
  }
  const take = async (bundle: Uint8Array, choose = '') =>
    (await server.call('POST', `/import${choose}`, bundle)).body.jobs[0];

  test('that has readings which the bundle lacks keeps both, whichever revision is higher', async () => {
    const { id, revision } = await measured('Two benches');
    const other = await testServer();
    try {
      await other.call('POST', '/import', await server.bytes(`/jobs/${id}/bundle`));
      await server.call('POST', `/jobs/${id}/edits`, { revision, edit: readingEdit('rim', 31.74) });
      let there = revision;
      for (const value of [31.6, 31.62, 31.64])
        there = (
          await other.call('POST', `/jobs/${id}/edits`, { revision: there, edit: readingEdit('rim', value) })
        ).body.revision;
      const bundle = await other.bytes(`/jobs/${id}/bundle`);
      const said = await take(bundle);
      expect(said).toMatchObject({ outcome: 'kept-both' });
      const ours = (await server.call('GET', `/jobs/${id}`)).body.document.dimensions[0].readings;
      expect(ours.map((r: { value: number }) => r.value)).toEqual([31.7, 31.74]);
      const theirs = (await server.call('GET', `/jobs/${said.id}`)).body.document;
      expect(theirs.title).toBe('Two benches (from a bundle)');
      expect(theirs.dimensions[0].readings).toHaveLength(4);
    } finally {
      await other.stop();
      other.remove();
    }
  });

  test('is shown beside ours before anything is written, and becomes what was chosen', async () => {
    const { id, revision } = await measured('Side by side');
    const other = await testServer();
    try {
      await other.call('POST', '/import', await server.bytes(`/jobs/${id}/bundle`));
      await server.call('POST', `/jobs/${id}/edits`, { revision, edit: readingEdit('rim', 31.74) });
      await other.call('POST', `/jobs/${id}/edits`, { revision, edit: readingEdit('rim', 31.6) });
      const bundle = await other.bytes(`/jobs/${id}/bundle`);
      const stamp = async () => JSON.stringify((await server.call('GET', '/jobs')).body);
      const before = await stamp();
      const [look] = (await server.call('POST', '/import/look', bundle)).body.jobs;
      expect(look).toMatchObject({ id, here: 'otherwise', choices: ['both', 'merge', 'ours'], clash: null });
      expect(look.differences).toEqual([
        { what: expect.stringContaining('Readings'), here: '31.7 · 31.74', there: '31.7 · 31.6' },
      ]);
      expect(await stamp()).toBe(before);

      expect(await take(bundle, `?choose=${id}:ours`)).toMatchObject({ outcome: 'kept-ours' });
      // An action that would lose a reading is refused, even when asked for.
      expect((await server.call('POST', '/import?choose=x:burn', bundle)).status).toBe(400);
      expect(await take(bundle, `?choose=${id}:merge`)).toMatchObject({ outcome: 'merged', id });
      const { document } = (await server.call('GET', `/jobs/${id}`)).body;
      expect(document.dimensions[0].readings.map((r: { value: number }) => r.value)).toEqual([
        31.7, 31.74, 31.6,
      ]);
      expect((await server.call('POST', '/import/look', bundle)).body.jobs[0].choices).toEqual([
        'ours',
        'both',
      ]);
    } finally {
      await other.stop();
      other.remove();
    }
  });

  test('that has only more than ours brings it up, and undo takes that back', async () => {
    const { id, revision } = await measured('Moved on');
    const other = await testServer();
    try {
      await other.call('POST', '/import', await server.bytes(`/jobs/${id}/bundle`));
      await other.call('POST', `/jobs/${id}/edits`, { revision, edit: readingEdit('rim', 31.74) });
      expect(await take(await other.bytes(`/jobs/${id}/bundle`))).toMatchObject({ outcome: 'updated', id });
      const { body } = await server.call('GET', `/jobs/${id}`);
      expect(body.document.dimensions[0].readings).toHaveLength(2);
      const { body: log } = await server.call('GET', `/jobs/${id}/activity`);
      const edit = log.activity.find((a: { words: string }) => a.words === 'Took in a bundle');
      const undone = await server.call('POST', `/jobs/${id}/undo`, { editId: edit.id });
      expect(undone.status, JSON.stringify(undone.body)).toBe(200);
      expect(undone.body.document.dimensions[0].readings).toHaveLength(1);
      expect(await take(await other.bytes(`/jobs/${id}/bundle`))).toMatchObject({ outcome: 'kept-both' });
    } finally {
      await other.stop();
      other.remove();
    }
  });
});
