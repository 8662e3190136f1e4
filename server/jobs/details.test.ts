import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { remarkOf } from '../../core/job/history/remark-of';
import { FIRST_WORKSHOP } from '../../core/job/workshop';
import { readingEdit, type TestServer, testServer } from '../../testing/server';
import { Events } from '../events';
import { fileName } from './file-names';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

describe('file names', () => {
  const job = (title: string) =>
    ({ number: 14, document: { title, parts: [{ id: 'part-1', name: 'Cap' }] } }) as never;
  const version = { number: 3, partId: 'part-1', materialId: 'tpu' } as never;
  test.each([
    ['Vent-port cap', '14-vent-port-cap-v3-tpu-95a-compensated.3mf'],
    ['Été: “größer” / 2', '14-ete-gro-er-2-v3-tpu-95a-compensated.3mf'],
    ['🦆', '14-part-v3-tpu-95a-compensated.3mf'],
    ['../../etc/passwd', '14-etc-passwd-v3-tpu-95a-compensated.3mf'],
    ['x'.repeat(300), `14-${'x'.repeat(60)}-v3-tpu-95a-compensated.3mf`],
  ])('%s', (title, name) => expect(fileName(job(title), version, '3mf', FIRST_WORKSHOP)).toBe(name));

  test('two parts of one job never come down under one name', () => {
    const named = (...names: string[]) => {
      const parts = names.map((name, i) => ({ id: `part-${i + 1}`, name }));
      const two = { number: 14, document: { title: 'Clamp', parts } } as never;
      return parts.map(({ id: partId }) =>
        fileName(two, { number: 1, partId, materialId: 'pla' } as never, 'stl', FIRST_WORKSHOP),
      );
    };
    expect(named('Jaw', 'Lever')).toEqual([
      '14-clamp-jaw-v1-pla-compensated.stl',
      '14-clamp-lever-v1-pla-compensated.stl',
    ]);
    for (const names of [
      ['Jaw', 'Jaw'],
      ['🦆', '🦢'],
      ['Jaw', 'jaw!'],
    ])
      expect(new Set(named(...names)).size).toBe(2);
  });
});

describe('windows that are gone', () => {
  test('just after a start every window counts as open, so nobody undoes another’s edit by surprise', () => {
    const events = new Events();
    expect(events.isOpen('never-heard-of')).toBe(true);
    events.close();
  });

  test('an edit of a closed window can be undone by the next one', async () => {
    const job = await server.newJob();
    const { body } = await server.call(
      'POST',
      `/jobs/${job.id}/edits`,
      { revision: 1, edit: readingEdit('rim', 31.7) },
      { 'x-sagoma-tab': 'gone' },
    );
    const { isOpen } = server.app.events;
    server.app.events.isOpen = tab => tab !== 'gone';
    try {
      const mine = (await server.call('GET', `/jobs/${job.id}`)).body;
      expect(mine.undo).toEqual(body.undo);
      const undone = await server.call('POST', `/jobs/${job.id}/undo`, { editId: mine.undo.editId });
      expect(undone.body.document.dimensions[0].readings).toEqual([]);
      // Whoever undid it may redo it.
      expect(undone.body.redo).toEqual(body.undo);
    } finally {
      server.app.events.isOpen = isOpen;
    }
  });
});

describe('the activity', () => {
  test('tells edits and what was made, newest first, and what does not count', {
    timeout: 60_000,
  }, async () => {
    const job = await server.newJob();
    let revision = 1;
    for (const [id, value] of [
      ['rim', 31.7],
      ['rim_height', 14],
    ] as const) {
      revision = (
        await server.call('POST', `/jobs/${job.id}/edits`, { revision, edit: readingEdit(id, value) })
      ).body.revision;
    }
    const { history } = (
      await server.call('POST', `/jobs/${job.id}/versions`, { revision, partId: 'part-1' })
    ).body;
    const words = async () =>
      (await server.call('GET', `/jobs/${job.id}/activity`)).body.activity.map(
        (a: { words: string }) => a.words,
      );
    expect(await words()).toEqual(['Made version 1', 'Read 14 on Rim height', 'Read 31.7 on Rim, outside']);
    const tag = async () =>
      (await server.call('GET', '/jobs')).body.jobs.find((j: { id: string }) => j.id === job.id);
    expect((await tag()).state).toBe('Version 1 is ready to print');
    await server.call('POST', `/jobs/${job.id}/void`, {
      kind: 'version',
      id: history.versions[0].id,
      reason: 'wrong spool',
    });
    expect((await words())[0]).toBe('Made version 1; does not count: wrong spool');
    expect((await tag()).state).toBe('On the bench');
  });
});

test('a version is noted of, the latest note counts, and it stands in the logbook', async () => {
  const job = await server.newJob();
  let revision = 1;
  for (const edit of [readingEdit('rim', 31.7), readingEdit('rim_height', 14)])
    revision = (await server.call('POST', `/jobs/${job.id}/edits`, { revision, edit })).body.revision;
  const made = await server.call('POST', `/jobs/${job.id}/versions`, { revision, partId: 'part-1' });
  const versionId = made.body.history.versions[0].id;
  for (const text of ['the stiff one', ' the flexible one '])
    expect((await server.call('POST', `/jobs/${job.id}/remarks`, { versionId, text })).status).toBe(201);
  const { history } = (await server.call('GET', `/jobs/${job.id}`)).body;
  expect(remarkOf(history, versionId)).toBe('the flexible one');
  const { activity } = (await server.call('GET', `/jobs/${job.id}/activity`)).body;
  expect(activity[0].words).toBe('Noted of version 1: the flexible one');
  const found = await server.call('GET', '/jobs/search?q=flexible%20one');
  expect(found.body.ids).toEqual([job.id]);
  const none = await server.call('POST', `/jobs/${job.id}/remarks`, { versionId: 'v-none', text: 'x' });
  expect(none.status).toBe(404);
  const long = await server.call('POST', `/jobs/${job.id}/remarks`, { versionId, text: 'x'.repeat(601) });
  expect(long.status).toBe(400);
});

test('hours by stage follow from what was done when', async () => {
  const job = await server.newJob();
  await server.call('POST', `/jobs/${job.id}/edits`, { revision: 1, edit: readingEdit('rim', 31.7) });
  const brief = { kind: 'brief', brief: { purpose: 'keeps the rain out' } };
  await server.call('POST', `/jobs/${job.id}/edits`, { revision: 2, edit: brief });
  const { minutes } = (await server.call('GET', `/jobs/${job.id}/hours`)).body;
  // The first thing at a sitting brings its two minutes; the second came a moment later.
  expect(minutes.measure).toBe(2);
  expect(minutes.brief).toBeGreaterThanOrEqual(0);
  expect(minutes.brief).toBeLessThan(1);
  expect(minutes.print).toBe(0);
  expect((await server.call('GET', '/jobs/none/hours')).status).toBe(404);
});

describe('the rack', () => {
  test('shows where each job stands, worked out anew', async () => {
    const job = await server.newJob('Rail end cap');
    const tag = async () =>
      (await server.call('GET', '/jobs')).body.jobs.find((j: { id: string }) => j.id === job.id);
    expect(await tag()).toMatchObject({
      title: 'Rail end cap',
      state: 'On the bench',
      next: { action: 'Measure “Rim, outside”' },
      marks: [],
      inService: false,
    });
    await server.call('POST', `/jobs/${job.id}/edits`, { revision: 1, edit: readingEdit('rim', 42.4) });
    expect(await tag()).toMatchObject({ next: { action: 'Measure “Rim height”' } });
    expect(await tag()).toMatchObject({ next: { action: 'Measure “Rim height”' } });
  });
});
