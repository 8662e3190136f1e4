import { copyFileSync, mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { describe, expect, test } from 'vitest';
import { testServer } from '../testing/server';
import { ROOT } from './root';

/** A folder and a bundle written by the previous version of Sagoma: one job with every kind of history row. */
const LANDED = join(ROOT, 'testing/landed');

function landedFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'sagoma-landed-'));
  copyFileSync(join(LANDED, 'sagoma.db'), join(folder, 'sagoma.db'));
  for (const [name, bytes] of Object.entries(unzipSync(readFileSync(join(LANDED, 'bundle.zip'))))) {
    const sha256 = /^blobs\/(.+)$/.exec(name)?.[1];
    if (!sha256) continue;
    mkdirSync(join(folder, 'blobs', sha256.slice(0, 2)), { recursive: true });
    writeFileSync(join(folder, 'blobs', sha256.slice(0, 2), sha256), bytes);
  }
  return folder;
}

describe('what the version before this one wrote', () => {
  test('a folder opens: the job reads the same, its file is the printed one, undo goes on, a version can be made', async () => {
    const server = await testServer(landedFolder());
    try {
      const { jobs } = (await server.call('GET', '/jobs')).body;
      expect(jobs).toHaveLength(1);
      const { id } = jobs[0];
      // The window that made the edits, still open.
      const window = { 'x-sagoma-tab': 't' };
      const job = (await server.call('GET', `/jobs/${id}`, undefined, window)).body;
      expect(job.document.title).toBe('Vent-port cap');
      expect(job.document.parts[0].additions).toHaveLength(1);
      const lengths = Object.entries(job.history).map(([list, rows]) => [list, (rows as unknown[]).length]);
      expect(Object.fromEntries(lengths)).toEqual({
        versions: 1,
        prints: 1,
        tries: 1,
        ladders: 1,
        ladderTries: 1,
        // They did not exist then.
        looks: 0,
        remarks: 0,
        reworks: 0,
        gauges: 0,
        gaugeSizes: 0,
        starts: 0,
      });
      const [version] = job.history.versions;
      expect(version).toMatchObject({ files: {}, without: {} });
      const [print] = job.history.prints;
      const stl = Object.keys(print.files).find(name => name.endsWith('.stl'))!;
      const answer = await server.call('GET', `/jobs/${id}/versions/${version.id}/files/stl`);
      expect(answer.headers.get('content-disposition')).toContain(stl);
      expect(job.undo.words).toContain('stands around');
      const undone = await server.call('POST', `/jobs/${id}/undo`, { editId: job.undo.editId }, window);
      expect(undone.body.document.parts[0].neighbours).toEqual([]);
      const made = await server.call('POST', `/jobs/${id}/versions`, {
        revision: undone.body.revision,
        partId: 'part-1',
      });
      expect(made.status).toBe(201);
      expect(made.body.history.versions.at(-1)).toMatchObject({ number: 2 });
      // The number includes what its try taught.
      expect(made.body.history.versions.at(-1).mates[0].model).toBeGreaterThan(version.mates[0].model);
      // A second print of the old version has the files of the first.
      const again = await server.call('POST', `/jobs/${id}/prints`, { versionId: version.id });
      expect(again.body.history.prints.at(-1).files).toEqual(print.files);
    } finally {
      await server.stop();
      server.remove();
    }
  });

  test('a bundle is taken in whole, the tries of its ladder too', async () => {
    const server = await testServer();
    try {
      const bytes = new Uint8Array(readFileSync(join(LANDED, 'bundle.zip')));
      const { body, status } = await server.call('POST', '/import', bytes);
      expect(status).toBe(201);
      const [{ id, outcome }] = body.jobs;
      expect(outcome).toBe('added');
      const { history } = (await server.call('GET', `/jobs/${id}`)).body;
      expect(history.ladderTries).toHaveLength(1);
      expect((await server.call('POST', '/import', bytes)).body.jobs[0].outcome).toBe('same');
    } finally {
      await server.stop();
      server.remove();
    }
  });
});
