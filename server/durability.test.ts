import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { seeded } from '../core/bench/random';
import { killed, killRounds, startServer } from '../testing/kill-rounds';

const folder = mkdtempSync(join(tmpdir(), 'sagoma-kill-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test('killed with -9 in a stream of edits, photos and imports, every acknowledged one is there on re-reading', {
  timeout: 60_000,
}, async () => {
  const deeds = ['edit', 'photo', 'edit', 'import', 'edit'] as const;
  const rounds = await killRounds(folder, 3, seeded(4), { deeds });
  expect(rounds.map(r => r.lost)).toEqual([[], [], []]);
  expect(rounds.reduce((sum, r) => sum + r.acknowledged.edit, 0)).toBeGreaterThan(5);
});

test('asked to stop, it ends by itself with 0', async () => {
  const { child, base } = await startServer(folder);
  expect((await fetch(`${base}/api/health`)).status).toBe(200);
  expect(await killed(child, 'SIGINT')).toBe(0);
});
