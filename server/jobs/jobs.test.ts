import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { readStl } from '../../core/files/reading-back';
import { JobDocument } from '../../core/job/document';
import { acceptedAs, type Finding } from '../../core/shape/findings/finding';
import { volumeOf } from '../../core/shape/mesh/mesh';
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
const edit = (id: string, revision: number, what: object, tab = 'tab-a') =>
  server.call('POST', `/jobs/${id}/edits`, { revision, edit: what }, { 'x-sagoma-tab': tab });

test('one edit validates the document once, and answers what it changed instead of the whole job', async () => {
  const { id } = await server.newJob();
  const parse = vi.spyOn(JobDocument, 'parse');
  const validations = async (send: () => Promise<Response>) => {
    parse.mockClear();
    const answer = (await (await send()).json()) as Record<string, unknown>;
    return { answer, count: parse.mock.calls.length };
  };
  const send = (path: string, body: object) =>
    fetch(`${server.base}/api/jobs/${id}/${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-sagoma-tab': 'tab-a' },
      body: JSON.stringify(body),
    });
  const edited = await validations(() => send('edits', { revision: 1, edit: readingEdit('rim', 31.7) }));
  expect(edited.count).toBe(1);
  expect(edited.answer).toMatchObject({
    revision: 2,
    added: [],
    changes: [{ path: ['dimensions', '#rim', 'readings', expect.any(String)] }],
  });
  expect(edited.answer).not.toHaveProperty('document');
  const { editId } = edited.answer.undo as { editId: string };
  const undone = await validations(() => send('undo', { editId }));
  expect(undone).toMatchObject({ count: 1, answer: { revision: 3 } });
  parse.mockRestore();
});

describe('making jobs', () => {
  test('the smallest one answers 201 with its id and a tag number', async () => {
    const made = await server.call('POST', '/jobs', { title: 'Vent-port cap', recipe: 'round-cap' });
    expect(made.status).toBe(201);
    expect(made.body).toMatchObject({
      id: expect.any(String),
      number: expect.any(Number),
      revision: 1,
      document: { title: 'Vent-port cap' },
    });
    expect((await server.newJob()).number).toBe(made.body.number + 1);
  });
  test.each([
    [{ title: '', recipe: 'round-cap' }, 'title'],
    [{ title: 'x'.repeat(301), recipe: 'round-cap' }, 'title'],
    [{ recipe: 'round-cap' }, 'title'],
    [{ title: 'Cap', recipe: 'teapot' }, undefined],
    [[], undefined],
  ])('%j is refused with 400 and a sentence', async (body, path) => {
    const answer = await server.call('POST', '/jobs', body);
    expect(answer.status).toBe(400);
    expect(answer.body.error.message).toMatch(/\w/);
    if (path) expect(answer.body.error.path).toBe(path);
  });
  test('an emoji and 300 characters are a fine name', async () => {
    expect((await server.newJob('🦆'.repeat(100))).document.title).toBe('🦆'.repeat(100));
    expect((await server.newJob('x'.repeat(300))).document.title).toHaveLength(300);
  });
});

describe('edits', () => {
  test('a stale edit gets 409 with both sides, and nothing is overwritten', async () => {
    const job = await server.newJob();
    expect((await edit(job.id, 1, { kind: 'rename', title: 'Mine' })).status).toBe(200);
    const late = await edit(job.id, 1, { kind: 'rename', title: 'Yours' }, 'tab-b');
    expect(late.status).toBe(409);
    expect(late.body.error).toMatchObject({
      code: 'stale',
      details: {
        theirs: ['Renamed to “Mine”'],
        yours: 'Renamed to “Yours”',
        current: { revision: 2, document: { title: 'Mine' } },
      },
    });
    expect((await server.call('GET', `/jobs/${job.id}`)).body.document.title).toBe('Mine');
  });
  test('of fifty edits sent at once on one revision exactly one lands', async () => {
    const job = await server.newJob();
    const answers = await Promise.all(
      Array.from({ length: 50 }, (_, i) => edit(job.id, 1, { kind: 'rename', title: `Name ${i}` })),
    );
    expect(answers.filter(a => a.status === 200)).toHaveLength(1);
    expect(answers.filter(a => a.status === 409)).toHaveLength(49);
  });
  test.each([
    [readingEdit('lid', 3), 422],
    [readingEdit('rim', -3), 422],
    [readingEdit('rim', 0), 422],
    [readingEdit('rim', 1e9), 400],
    [{ kind: 'explode' }, 400],
    [{ kind: 'rename', title: ' ' }, 400],
  ])('%j is refused and changes nothing', async (what, status) => {
    const job = await server.newJob();
    const answer = await edit(job.id, 1, what);
    expect(answer.status).toBe(status);
    expect(answer.body.error.message).toMatch(/\w/);
    expect((await server.call('GET', `/jobs/${job.id}`)).body.revision).toBe(1);
  });
  test('an edit that changes nothing makes no revision', async () => {
    const job = await server.newJob('Cap');
    expect((await edit(job.id, 1, { kind: 'rename', title: 'Cap' })).body.revision).toBe(1);
  });
});

describe('undo and redo', () => {
  test('go back and forth as new revisions, and are logged', async () => {
    const job = await server.newJob();
    const done = (await edit(job.id, 1, readingEdit('rim', 31.7))).body;
    expect(done.undo.words).toContain('31.7');
    const undone = (await server.call('POST', `/jobs/${job.id}/undo`, { editId: done.undo.editId })).body;
    expect(undone).toMatchObject({ revision: 3, undo: null, redo: { editId: done.undo.editId } });
    expect(undone.document.dimensions[0].readings).toEqual([]);
    const redone = (await server.call('POST', `/jobs/${job.id}/redo`, { editId: done.undo.editId })).body;
    expect(redone.document).toEqual(done.document);
    const { activity } = (await server.call('GET', `/jobs/${job.id}/activity`)).body;
    expect(activity.map((a: { kind: string }) => a.kind)).toEqual(['redo', 'undo', 'edit']);
  });
  test('never discard what another window did since', async () => {
    const job = await server.newJob();
    const mine = (await edit(job.id, 1, readingEdit('rim', 31.7))).body;
    await edit(job.id, 2, readingEdit('rim', 31.8), 'tab-b');
    const undone = (await server.call('POST', `/jobs/${job.id}/undo`, { editId: mine.undo.editId })).body;
    expect(undone.document.dimensions[0].readings.map((r: { value: number }) => r.value)).toEqual([31.8]);
  });
  test('are refused where the other window changed the same value', async () => {
    const job = await server.newJob('Zero');
    const mine = (await edit(job.id, 1, { kind: 'rename', title: 'One' })).body;
    await edit(job.id, 2, { kind: 'rename', title: 'Two' }, 'tab-b');
    const refused = await server.call('POST', `/jobs/${job.id}/undo`, { editId: mine.undo.editId });
    expect(refused).toMatchObject({ status: 409, body: { error: { code: 'overtaken' } } });
    expect((await server.call('GET', `/jobs/${job.id}`)).body.document.title).toBe('Two');
  });
  test('a window that is open keeps its own edits to itself', async () => {
    const job = await server.newJob();
    const mine = (await edit(job.id, 1, { kind: 'rename', title: 'Mine' })).body;
    const other = await server.call('GET', `/jobs/${job.id}`, undefined, { 'x-sagoma-tab': 'tab-b' });
    expect(other.body.undo).toBeNull();
    expect(
      (
        await server.call(
          'POST',
          `/jobs/${job.id}/undo`,
          { editId: mine.undo.editId },
          { 'x-sagoma-tab': 'tab-b' },
        )
      ).body.error.code,
    ).toBe('other-window');
  });
  test('a new edit closes the way forward', async () => {
    const job = await server.newJob('Zero');
    const one = (await edit(job.id, 1, { kind: 'rename', title: 'One' })).body;
    await server.call('POST', `/jobs/${job.id}/undo`, { editId: one.undo.editId });
    expect((await edit(job.id, 3, { kind: 'rename', title: 'Other' })).body.redo).toBeNull();
    expect(
      (await server.call('POST', `/jobs/${job.id}/redo`, { editId: one.undo.editId })).body.error.code,
    ).toBe('not-undoable');
  });
});

describe('version, print, try, version', () => {
  async function measured() {
    const job = await server.newJob('Vent-port cap');
    let revision = 1;
    for (const value of [31.7, 31.72, 31.68])
      revision = (await edit(job.id, revision, readingEdit('rim', value))).body.revision;
    revision = (await edit(job.id, revision, readingEdit('rim_height', 14))).body.revision;
    return { id: job.id, revision };
  }

  test('the loop: a tight verdict gives a larger hole and says why; the file measures what the ledger says', async () => {
    const { id, revision } = await measured();
    const one = (await server.call('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' })).body;
    const v1 = one.history.versions[0];
    expect(v1).toMatchObject({ number: 1, mates: [{ surface: 'skirt' }] });
    const stl = readStl(await server.bytes(`/jobs/${id}/versions/${v1.id}/files/stl`));
    const loop = loopNear(sectionAtZ(stl, 10), [0, 0], v1.mates[0].model, 'inside');
    expect(Math.abs(loop!.diameter - v1.mates[0].model)).toBeLessThan(0.01);
    expect(volumeOf(stl)).toBeCloseTo(v1.volume, 0);
    const printed = (await server.call('POST', `/jobs/${id}/prints`, { versionId: v1.id, hours: 0.7 })).body;
    const print = printed.history.prints[0];
    expect(print).toMatchObject({ hours: 0.7, number: 1 });
    expect(Object.keys(print.files)).toHaveLength(3);
    await server.call('POST', `/jobs/${id}/tries`, {
      printId: print.id,
      mates: { skirt: { verdict: 'tight' } },
    });
    const two = (await server.call('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' })).body;
    const v2 = two.history.versions[1];
    expect(v2.mates[0].model).toBeGreaterThan(v1.mates[0].model + 0.05);
    expect(v2.pAllRight).toBeGreaterThan(v1.pAllRight);
    expect(v2.reasons[0]).toContain('“tight”');
    // The file of a printed version is frozen, whatever is learned later.
    expect(readStl(await server.bytes(`/jobs/${id}/versions/${v1.id}/files/stl`)).positions).toEqual(
      stl.positions,
    );
  });

  test('an unread mate, a stale revision and a stopping finding make no version', async () => {
    const job = await server.newJob();
    expect(
      (await server.call('POST', `/jobs/${job.id}/versions`, { revision: 1, partId: 'part-1' })).body.error,
    ).toMatchObject({ code: 'not-measured' });
    const { id, revision } = await measured();
    expect(
      (await server.call('POST', `/jobs/${id}/versions`, { revision: revision - 1, partId: 'part-1' }))
        .status,
    ).toBe(409);
    const set = {
      kind: 'parameter',
      partId: 'part-1',
      name: 'skirtDiameter',
      expression: { text: '15.85', unit: 'mm' },
    };
    const next = (await edit(id, revision, set)).body.revision;
    const answer = await server.call('POST', `/jobs/${id}/versions`, { revision: next, partId: 'part-1' });
    expect(answer.body.error).toMatchObject({ code: 'finding', message: expect.stringContaining('radius') });
    // Another cause with the same code was not accepted.
    const reason = 'a gauge, half the size';
    const stops = (answer.body.error.details.findings as Finding[]).filter(f => f.level === 'stop');
    const accepted = stops.map(f => acceptedAs(f, reason));
    const other = accepted.map(a => ({ ...a, fields: { ...a.fields, size: 3, across: 3 } }));
    const refused = await server.call('POST', `/jobs/${id}/versions`, {
      revision: next,
      partId: 'part-1',
      accepted: other,
    });
    expect(refused.body.error.code).toBe('finding');
    expect(
      (await server.call('POST', `/jobs/${id}/versions`, { revision: next, partId: 'part-1', accepted })).body
        .history.versions[0].accepted,
    ).toEqual(accepted);
  });

  test('rows are voided with a reason, never removed', async () => {
    const { id, revision } = await measured();
    const { history } = (await server.call('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' }))
      .body;
    expect(
      (
        await server.call('POST', `/jobs/${id}/void`, {
          kind: 'version',
          id: history.versions[0].id,
          reason: ' ',
        })
      ).status,
    ).toBe(400);
    const voided = (
      await server.call('POST', `/jobs/${id}/void`, {
        kind: 'version',
        id: history.versions[0].id,
        reason: 'wrong object',
      })
    ).body;
    expect(voided.history.versions).toMatchObject([{ voided: 'wrong object' }]);
    expect(
      (await server.call('POST', `/jobs/${id}/prints`, { versionId: history.versions[0].id })).status,
    ).toBe(404);
  });

  test('verdicts on unknown mates and prints, and empty tries, are refused', async () => {
    const { id, revision } = await measured();
    const { history } = (await server.call('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' }))
      .body;
    const { history: after } = (
      await server.call('POST', `/jobs/${id}/prints`, { versionId: history.versions[0].id })
    ).body;
    const printId = after.prints[0].id;
    const say = async (body: object) => (await server.call('POST', `/jobs/${id}/tries`, body)).status;
    expect(await say({ printId, mates: {} })).toBe(400);
    expect(await say({ printId, mates: { lid: { verdict: 'right' } } })).toBe(400);
    expect(await say({ printId, mates: { skirt: { verdict: 'splendid' } } })).toBe(400);
    expect(await say({ printId: 'none', mates: { skirt: { verdict: 'right' } } })).toBe(404);
    expect(await say({ printId, mates: { skirt: { verdict: 'right' } } })).toBe(201);
  });

  test('a job is made again for another object: its readings, prints and service stay behind', async () => {
    const { id } = await measured();
    const again = await server.call('POST', `/jobs/${id}/again`, {
      title: 'Other port',
      object: 'starboard',
    });
    expect(again.status).toBe(201);
    expect(again.body).toMatchObject({
      document: { title: 'Other port', object: { name: 'starboard' } },
      history: { versions: [] },
    });
    expect(again.body.id).not.toBe(id);
    expect(again.body.document.dimensions.every((d: { readings: [] }) => d.readings.length === 0)).toBe(true);
    expect((await server.call('POST', `/jobs/${id}/again`, { title: ' ' })).status).toBe(400);
    expect((await server.call('POST', '/jobs/none/again', { title: 'x' })).status).toBe(404);
  });

  test('a recipe of one’s own goes to another workshop, hangs on no rack there, and is made again', async () => {
    const { id } = await measured();
    const file = await server.bytes(`/jobs/${id}/recipe`);
    const other = await testServer();
    try {
      const { jobs } = (await other.call('POST', '/import', file)).body;
      expect(jobs).toMatchObject([{ outcome: 'added' }]);
      expect(jobs[0].id).not.toBe(id);
      expect((await other.call('POST', '/import', file)).body.jobs[0].outcome).toBe('same');
      const [tag] = (await other.call('GET', '/jobs')).body.jobs;
      expect(tag).toMatchObject({ away: 'recipe', marks: [] });
      const recipe = (await other.call('GET', `/jobs/${tag.id}`)).body;
      expect(recipe.document.dimensions.every((d: { readings: [] }) => d.readings.length === 0)).toBe(true);
      expect(recipe.history.versions).toEqual([]);
      const made = await other.call('POST', `/jobs/${tag.id}/again`, { title: 'From the recipe' });
      expect(made.status).toBe(201);
      expect(made.body.document.away).toBeUndefined();
      expect(made.body.document.parts).toEqual(recipe.document.parts);
    } finally {
      await other.stop();
    }
  });

  test('a bundle takes the whole job to another workshop, and back only when newer', async () => {
    const { id, revision } = await measured();
    const { history } = (await server.call('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' }))
      .body;
    await server.call('POST', `/jobs/${id}/prints`, { versionId: history.versions[0].id });
    const bundle = await server.bytes(`/jobs/${id}/bundle`);
    const other = await testServer();
    try {
      expect((await other.call('POST', '/import', bundle)).body.jobs).toMatchObject([
        { outcome: 'added', id },
      ]);
      const there = (await other.call('GET', `/jobs/${id}`)).body;
      expect(there.history).toEqual((await server.call('GET', `/jobs/${id}`)).body.history);
      const path = `/jobs/${id}/versions/${history.versions[0].id}/files/3mf`;
      expect(await other.bytes(path)).toEqual(await server.bytes(path));
      expect((await other.call('POST', '/import', bundle)).body.jobs[0].outcome).toBe('same');
      await other.call('POST', `/jobs/${id}/edits`, {
        revision,
        edit: { kind: 'rename', title: 'Newer here' },
      });
      expect((await other.call('POST', '/import', bundle)).body.jobs[0].outcome).toBe('kept-ours');
      expect(
        (await server.call('POST', '/import', await other.bytes(`/jobs/${id}/bundle`))).body.jobs[0].outcome,
      ).toBe('updated');
    } finally {
      await other.stop();
      other.remove();
    }
  });
});
