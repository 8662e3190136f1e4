import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { requireRecipe } from '../../core/shape/recipes';
import { readingEdit, type TestServer, testServer } from '../../testing/server';
import { Cancelled, KernelPool } from './pool';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

const cap = (change: Record<string, number> = {}) => ({
  recipe: 'round-cap',
  additions: [],
  parameters: { ...requireRecipe('round-cap').demo.parameters, ...change },
});
const ran = (task: 'build' | 'step') => server.app.pool.ran[task] ?? 0;

/** A cap with its readings, ready for its first version. */
async function measured(rim = 31.7) {
  const { id } = await server.newJob();
  const edit = (revision: number, what: object) =>
    server.call('POST', `/jobs/${id}/edits`, { revision, edit: what });
  await edit(1, readingEdit('rim', rim));
  const { body } = await edit(2, readingEdit('rim_height', 14));
  return { id, revision: body.revision as number };
}

describe('a solid is built once', () => {
  test('for a version, its three files, a print and a second version of the same numbers', async () => {
    const { id, revision } = await measured();
    const before = { build: ran('build'), step: ran('step') };
    const { body, status } = await server.call('POST', `/jobs/${id}/versions`, {
      revision,
      partId: 'part-1',
    });
    expect(status).toBe(201);
    const [version] = body.history.versions;
    expect(Object.keys(version.files)).toHaveLength(3);
    for (const kind of ['3mf', 'step', 'stl'])
      expect((await server.bytes(`/jobs/${id}/versions/${version.id}/files/${kind}`)).length).toBeGreaterThan(
        1000,
      );
    const printed = await server.call('POST', `/jobs/${id}/prints`, { versionId: version.id });
    expect(printed.body.history.prints[0].files).toEqual(version.files);
    await server.call('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' });
    expect(ran('build') - before.build).toBe(1);
    expect(ran('step') - before.step).toBeLessThanOrEqual(1);
  });

  test('also when it is asked for twice at once, and after a restart of the server', async () => {
    const spec = cap({ wall: 2.3 });
    const before = ran('build');
    const [one, two] = await Promise.all([server.app.solids.built(spec), server.app.solids.built(spec)]);
    expect(one).toEqual(two);
    expect(ran('build') - before).toBe(1);
    const again = await testServer(server.folder);
    try {
      expect(await again.app.solids.built(spec)).toEqual(one);
      expect(ran('build') - before).toBe(1);
    } finally {
      await again.stop();
    }
  });

  test('what was refused is said, and an unknown recipe is a mistake', async () => {
    expect(await server.app.solids.built(cap({ leadIn: 5 }))).toMatchObject({
      ok: false,
      findings: [{ parameter: 'leadIn' }],
    });
    await expect((async () => server.app.solids.built({ ...cap(), recipe: 'teapot' }))()).rejects.toThrow(
      'no recipe',
    );
  });

  test('a version kept before its recipe had some numbers is built with those of the demo object', async () => {
    const { strap: _, strapWidth: __, ...kept } = requireRecipe('round-cap').demo.parameters;
    expect(await server.app.solids.built({ ...cap(), parameters: kept })).toMatchObject({ ok: true });
  });
});

describe('a version that could be made', () => {
  test('can be printed and recorded when STEP alone fails, and says so', async () => {
    const { id, revision } = await measured(33.1);
    const step = vi
      .spyOn(server.app.solids, 'step')
      .mockResolvedValue({ ok: false, message: 'It has no exact surfaces.' });
    const { body } = await server.call('POST', `/jobs/${id}/versions`, { revision, partId: 'part-1' });
    step.mockRestore();
    const [version] = body.history.versions;
    expect(version.without).toEqual({ step: 'It has no exact surfaces.' });
    expect(Object.keys(version.files).map(f => f.split('.').at(-1))).toEqual(['3mf', 'stl']);
    expect((await server.call('POST', `/jobs/${id}/prints`, { versionId: version.id })).status).toBe(201);
  });
});

describe('long work', () => {
  test('is ended when its asker gives up, and goes on while another waits for it', async () => {
    const spec = cap({ wall: 2.7 });
    const stop = new AbortController();
    const gone = server.app.solids.built(spec, { signal: stop.signal });
    const stays = server.app.solids.built(spec);
    stop.abort();
    await expect(gone).rejects.toThrow(Cancelled);
    expect(await stays).toMatchObject({ ok: true });
    const alone = new AbortController();
    const left = server.app.solids.built(cap({ wall: 2.8 }), { signal: alone.signal });
    alone.abort();
    await expect(left).rejects.toThrow(Cancelled);
  });

  test('over HTTP: its steps are told by name, it can be cancelled, and the job is as it was', async () => {
    const { id, revision } = await measured(35.3);
    const steps: string[] = [];
    const send = vi.spyOn(server.app.events, 'send').mockImplementation(event => {
      if (event.kind === 'build') {
        steps.push(event.step);
        if (event.step === 'Checking it') server.app.builds.cancel('mine');
      }
    });
    const { status, body } = await server.call('POST', `/jobs/${id}/versions`, {
      revision,
      partId: 'part-1',
      buildId: 'mine',
    });
    send.mockRestore();
    expect(status).toBe(409);
    expect(body.error.code).toBe('cancelled');
    expect(steps).toEqual(['Building the solid', 'Checking it']);
    expect((await server.call('GET', `/jobs/${id}`)).body.history.versions).toEqual([]);
    expect((await server.call('DELETE', '/builds/mine')).status).toBe(404);
  });

  test('of one job does not hold up another job’s: each has a line of its own', async () => {
    const begun: string[] = [];
    const end: Record<string, () => void> = {};
    class HandPool extends KernelPool {
      protected override inThread(_: unknown, asked: unknown): Promise<never> {
        const { name } = asked as { name: string };
        begun.push(name);
        return new Promise(done => {
          end[name] = () => done({ heap: 0 } as never);
        });
      }
    }
    const pool = new HandPool();
    const ask = (owner: string, name: string) =>
      pool.run('ladder', { side: 'inside', sizes: [1], name, bed: { width: 220, depth: 220 } }, { owner });
    const all = [ask('long', 'a'), ask('long', 'b'), ask('short', 'c')];
    await vi.waitFor(() => expect(begun).toEqual(['a', 'c']));
    end.c!();
    await all[2];
    end.a!();
    await vi.waitFor(() => expect(begun).toEqual(['a', 'c', 'b']));
    end.b!();
    await Promise.all(all);
    await pool.close();
  });
});
