import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, describe, expect, test } from 'vitest';
import { readingEdit, testServer } from '../../testing/server';
import { openStore } from './database';
import { sweepTemporary, takeFolder } from './folder';

const made: string[] = [];
function folder(name = 'data'): string {
  const root = mkdtempSync(join(tmpdir(), 'sagoma-folder-'));
  made.push(root);
  return join(root, name);
}
afterEach(() => {
  for (const f of made.splice(0)) rmSync(f, { recursive: true, force: true });
});

describe('the data folder', () => {
  test.each(['club #2', 'what?', '100 % ours', 'Bootshaus ä', 'a b'])('may be called “%s”', async name => {
    const path = folder(name);
    const server = await testServer(path);
    const { id } = await server.newJob('Cap');
    await server.stop();
    const again = await testServer(path);
    expect((await again.call('GET', `/jobs/${id}`)).status).toBe(200);
    await again.stop();
    expect(existsSync(join(path, 'sagoma.db'))).toBe(true);
  });

  test('belongs to one Sagoma at a time; one that was killed has left it', () => {
    const path = folder();
    mkdirSync(path);
    // Process 1 runs on every machine, and is not ours.
    writeFileSync(join(path, 'sagoma.lock'), '1');
    expect(() => takeFolder(path)).toThrow(/Another Sagoma \(process 1\) works on/);
    const dead = spawnSync(process.execPath, ['-e', '']).pid;
    writeFileSync(join(path, 'sagoma.lock'), String(dead));
    const release = takeFolder(path);
    expect(existsSync(join(path, 'sagoma.lock'))).toBe(true);
    release();
    expect(existsSync(join(path, 'sagoma.lock'))).toBe(false);
  });

  test('moved away under the running server: no edit is acknowledged, and it is said why', async () => {
    const path = folder();
    const server = await testServer(path);
    const { id, revision } = await server.newJob('Cap');
    renameSync(path, `${path}-moved`);
    const { status, body } = await server.call('POST', `/jobs/${id}/edits`, {
      revision,
      edit: readingEdit('rim', 31.7),
    });
    expect(status).toBe(507);
    expect(body.error.message).toContain('no longer where it was');
    renameSync(`${path}-moved`, path);
    const back = { revision, edit: readingEdit('rim', 31.7) };
    expect((await server.call('POST', `/jobs/${id}/edits`, back)).status).toBe(200);
    await server.stop();
  });

  test('a database that is none says where it is and what to do; an empty one is begun anew', async () => {
    const path = folder();
    mkdirSync(path);
    writeFileSync(join(path, 'sagoma.db'), 'not a database, but as long as one might be '.repeat(200));
    await expect(openStore(path)).rejects.toThrow(/sagoma\.db cannot be opened as Sagoma’s database/);
    writeFileSync(join(path, 'sagoma.db'), '');
    const store = await openStore(path);
    await store.close();
  });

  test('what a crash left half written is swept at the start', () => {
    const path = folder();
    mkdirSync(join(path, 'blobs/ab'), { recursive: true });
    writeFileSync(join(path, 'blobs/ab/.half'), 'half');
    writeFileSync(join(path, 'blobs/ab', 'ab'.repeat(32)), 'whole');
    expect(sweepTemporary(path)).toBe(1);
    expect(existsSync(join(path, 'blobs/ab', 'ab'.repeat(32)))).toBe(true);
  });
});
