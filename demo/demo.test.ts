import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { Rack, type RackJob } from '../contract/rack';
import { readStl } from '../core/files/reading-back';
import { loopNear, sectionAtZ } from '../core/shape/mesh/section';
import { type TestServer, testServer } from '../testing/server';

const root = fileURLToPath(new URL('..', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'sagoma-demo-'));
let server: TestServer;
let jobs: RackJob[];
beforeAll(async () => {
  const filled = spawnSync(process.execPath, ['dist-server/fill.mjs', folder], {
    cwd: root,
    encoding: 'utf8',
  });
  expect(filled.stderr).toBe('');
  expect(filled.status).toBe(0);
  server = await testServer(folder);
  jobs = Rack.parse((await server.call('GET', '/jobs')).body).jobs;
}, 120_000);
afterAll(async () => {
  await server.stop();
  rmSync(folder, { recursive: true, force: true });
});
const job = (title: string) => jobs.find(j => j.title.startsWith(title))!;

describe('the boathouse', () => {
  test('has jobs in different states, each with a next step and a drawn part', () => {
    expect(jobs.length).toBeGreaterThanOrEqual(4);
    expect(new Set(jobs.map(j => j.state)).size).toBeGreaterThanOrEqual(4);
    for (const { next, thumbnail } of jobs) {
      expect(next.action.length).toBeGreaterThan(3);
      expect(thumbnail.cut[0]).toMatch(/^M-?\d/);
    }
  });

  test('the vent-port cap is flexible, went on tight, and waits with its second version', async () => {
    const cap = job('Vent-port cap');
    expect(cap.marks).toMatchObject([
      { version: 1, words: 'version 1', verdict: 'tight' },
      { version: 2, words: 'version 2', verdict: null },
    ]);
    expect(cap.next).toMatchObject({ stage: 'try', waits: true });
    const { document, history } = (await server.call('GET', `/jobs/${cap.id}`)).body;
    expect(document.parts[0].materialId).toBe('tpu');
    const chances = history.versions.map((v: { pAllRight: number }) => v.pAllRight);
    expect(chances[1]).toBeGreaterThan(chances[0]);
    const models = history.versions.map((v: { mates: { model: number }[] }) => v.mates[0]!.model);
    expect(models[1]).toBeGreaterThan(models[0]);
  });

  test('its frozen file measures its ledger’s numbers', async () => {
    const { id } = job('Vent-port cap');
    const { history } = (await server.call('GET', `/jobs/${id}`)).body;
    const version = history.versions.at(-1);
    const mesh = readStl(await server.bytes(`/jobs/${id}/versions/${version.id}/files/stl`));
    const heights: Record<string, number> = {
      skirt: 2 + 2,
      lip: 2 + version.parameters.lipFrom + version.parameters.lipWidth / 2,
    };
    for (const mate of version.mates) {
      const loop = loopNear(sectionAtZ(mesh, heights[mate.surface]!), [0, 0], mate.model, 'inside');
      expect(Math.abs(loop!.diameter - mate.model), mate.surface).toBeLessThan(0.01);
    }
  });

  test('nothing in it lies in the future, and dates rise along each job', async () => {
    for (const { id } of jobs) {
      const { history } = (await server.call('GET', `/jobs/${id}`)).body;
      const dates = [...history.versions, ...history.prints, ...history.tries].map(
        (row: { at: string }) => row.at,
      );
      expect(dates.every((at: string) => at <= new Date().toISOString())).toBe(true);
      const prints = history.prints.map((p: { at: string }) => p.at);
      expect(prints).toEqual(prints.toSorted());
    }
  });

  test('the practice bench is on, and its hidden sizes are what the readings read', async () => {
    expect((await server.call('GET', '/workshop')).body.workshop.practiceBench).toBe(true);
    const { document } = (await server.call('GET', `/jobs/${job('Rail end cap').id}`)).body;
    const readings = document.dimensions
      .find((d: { id: string }) => d.id === 'rim')
      .readings.map((r: { value: number }) => r.value);
    for (const value of readings) expect(Math.abs(value - 42.4)).toBeLessThan(0.12);
  });
});
